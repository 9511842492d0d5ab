import { createHash } from 'node:crypto';
import { deflateRawSync } from 'node:zlib';
import { buf as crc32 } from 'crc-32';

/** A file in a zip, as its headers claim it to be. */
interface Claimed {
  readonly name: Uint8Array;
  readonly bytes: Uint8Array;
  readonly packed?: Uint8Array;
  readonly flags?: number;
  readonly size?: number;
  readonly crc?: number;
  /** Unix mode in the external attributes: 0o120777 is a link. */
  readonly mode?: number;
}

const text = (words: string) => new TextEncoder().encode(words);
const json = (data: unknown) => text(JSON.stringify(data));
const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

/** A zip whose headers say what they are told to (PKWARE APPNOTE 6.3.10, 4.3.7 to 4.3.16). */
function zipOf(files: readonly Claimed[]): Uint8Array {
  const parts: Uint8Array[] = [];
  const central: Uint8Array[] = [];
  let at = 0;
  for (const {
    name,
    bytes,
    packed = bytes,
    flags = 0x800,
    size = bytes.length,
    crc = crc32(bytes),
    mode,
  } of files) {
    const method = packed === bytes ? 0 : 8;
    const shared = new DataView(new ArrayBuffer(26));
    shared.setUint16(0, 20, true);
    shared.setUint16(2, flags, true);
    shared.setUint16(4, method, true);
    shared.setUint16(8, 0x21, true);
    shared.setInt32(10, crc, true);
    shared.setUint32(14, packed.length, true);
    shared.setUint32(18, size, true);
    shared.setUint16(22, name.length, true);
    const header = new Uint8Array(shared.buffer);
    parts.push(new Uint8Array([0x50, 0x4b, 3, 4]), header, name, packed);
    const tail = new DataView(new ArrayBuffer(14));
    tail.setUint32(6, mode === undefined ? 0 : (mode << 16) >>> 0, true);
    tail.setUint32(10, at, true);
    central.push(new Uint8Array([0x50, 0x4b, 1, 2, 20, 3]), header, new Uint8Array(tail.buffer), name);
    at += 4 + header.length + name.length + packed.length;
  }
  const size = central.reduce((sum, part) => sum + part.length, 0);
  const end = new DataView(new ArrayBuffer(22));
  end.setUint32(0, 0x06054b50, true);
  end.setUint16(8, files.length & 0xffff, true);
  end.setUint16(10, files.length & 0xffff, true);
  end.setUint32(12, size, true);
  end.setUint32(16, at, true);
  return new Uint8Array(Buffer.concat([...parts, ...central, new Uint8Array(end.buffer)]));
}

/** Chance that is the same in every run (mulberry32). */
function chance(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

type Plain = Record<string, unknown>;
type Make = (template: Plain, random: () => number) => Uint8Array;

/** A picture that would run a script, and fetch something, if anybody let it. */
const SVG = text(
  '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9" onload="window.taken=1"><script>window.taken=1</script><image href="https://kites.invalid/track.png" width="9" height="9"/></svg>',
);

const contents = (media: readonly unknown[] = [], more: Plain = {}) => ({
  format: 'freshreel/contents',
  version: 2,
  ...{ documents: [], media, fonts: [], ...more },
});
const file = (name: string, data: unknown): Claimed => ({ name: text(name), bytes: json(data) });
const whole = (template: Plain, more: readonly Claimed[] = [], listed: Plain = contents()) =>
  zipOf([file('template.json', template), ...more, file('contents.json', listed)]);
const layersOf = (template: Plain) => template.layers as Plain[];
const media = (path: string, id = `sha256:${'0'.repeat(64)}`) => ({
  id,
  path,
  name: path,
  type: 'image/svg+xml',
});

/** Ways to make a package that is none, each a little different every time. */
const WAYS: Readonly<Record<string, Make>> = {
  cut: (t, random) => {
    const all = whole(t);
    return all.slice(0, Math.floor(4 + random() * (all.length - 4)));
  },
  encrypted: (t) =>
    zipOf([
      { ...file('template.json', t), flags: 0x801 },
      { ...file('contents.json', contents()), flags: 0x801 },
    ]),
  'two documents': (t) => whole(t, [file('reel.json', { format: 'freshreel/reel', version: 5 })]),
  'a bomb': (t, random) => {
    const bytes = new Uint8Array(70_000_000 + Math.floor(random() * 1_000_000));
    const bomb = { name: text('media/a'), bytes, packed: new Uint8Array(deflateRawSync(bytes)) };
    return whole(t, [bomb], contents([media('media/a')]));
  },
  'a bomb that lies': (t) => {
    const bytes = new Uint8Array(20_000_000);
    const packed = new Uint8Array(deflateRawSync(bytes));
    return whole(t, [{ name: text('media/a'), bytes, packed, size: 100 }], contents([media('media/a')]));
  },
  'a document that is a bomb': () => {
    const bytes = text(`[${'['.repeat(400_000)}`);
    return zipOf([
      { name: text('template.json'), bytes, packed: new Uint8Array(deflateRawSync(bytes)) },
      file('contents.json', contents()),
    ]);
  },
  'odd names': (t, random) => {
    const odd = [
      new Uint8Array([0xff, 0xfe, 0x80]),
      text('media/\u202egnp.exe'),
      text('con'),
      text('media/a\0b'),
    ];
    return whole(
      t,
      odd.map((name) => ({ name, bytes: SVG, flags: random() < 0.5 ? 0 : 0x800 })),
    );
  },
  'paths outside': (t, random) => {
    const out = ['/etc/passwd', '../../../etc/passwd', 'C:\\windows\\kite.ini', 'media/../../../kite'];
    const path = out[Math.floor(random() * out.length)]!;
    return whole(t, [{ name: text(path), bytes: text('x') }], contents([media(path)]));
  },
  links: (t) =>
    whole(
      t,
      [{ name: text('media/a'), bytes: text('/etc/passwd'), mode: 0o120777 }],
      contents([media('media/a', `sha256:${sha256(text('/etc/passwd'))}`)]),
    ),
  'a hash that is wrong': (t) =>
    whole(t, [{ name: text('media/a'), bytes: SVG }], contents([media('media/a')])),
  'a checksum that is wrong': (t) =>
    zipOf([
      { ...file('template.json', t), crc: 7 },
      { ...file('contents.json', contents()), crc: 9 },
    ]),
  'a newer version': (t, random) =>
    whole({ ...t, version: 7 + Math.floor(random() * 90), weather: { wind: random() } }),
  'a newer list': (t) => whole(t, [], { ...contents(), version: 7 }),
  'ten thousand files': (t) =>
    whole(
      t,
      Array.from({ length: 10_000 }, (_, i) => ({ name: text(`media/${i}`), bytes: text('x') })),
    ),
  'a list of a file that is not there': (t) => whole(t, [], contents([media('media/gone')])),
  'a list of documents that are not there': () =>
    zipOf([
      file(
        'contents.json',
        contents([], { documents: [{ kind: 'template', path: 'templates/a.json', name: 'A' }] }),
      ),
    ]),
  'no layers': (t) => whole({ ...t, layers: [] }),
  'a circle of ties': (t) => {
    const [first] = layersOf(t);
    const ring = (id: string, next: string) => ({
      ...first,
      id,
      kind: 'group',
      layers: [],
      matte: { layer: next },
    });
    return whole({ ...t, layers: [ring('a', 'b'), ring('b', 'a'), ...layersOf(t)] });
  },
  'a control tied to nothing': (t) =>
    whole({ ...t, layers: [{ ...layersOf(t)[0], opacity: { control: 'nobody' } }] }),
  'a name of 5,000 letters': (t) => whole({ ...t, name: 'k'.repeat(5000) }),
  'a brand without colours': () =>
    zipOf([
      file('brands/a.json', { format: 'freshreel/brand', version: 3, id: 'a', name: 'A' }),
      file(
        'contents.json',
        contents([], { documents: [{ kind: 'brand', path: 'brands/a.json', name: 'A' }] }),
      ),
    ]),
  'a picture with a script': (t) =>
    whole(t, [{ name: text('media/a'), bytes: SVG }], contents([media('media/a', `sha256:${sha256(SVG)}`)])),
  'words that are code': (t) =>
    whole({
      ...t,
      name: '<img src=x onerror="window.taken=1">',
      about: '</script><script>window.taken=1</script>',
    }),
  'keys of every object': (t) =>
    zipOf([
      {
        name: text('template.json'),
        bytes: text(
          JSON.stringify(t).replace('{', '{"__proto__":{"taken":1},"constructor":{"prototype":{"taken":1}},'),
        ),
      },
      file('contents.json', contents()),
    ]),
  'numbers beyond measure': (t) =>
    zipOf([
      {
        name: text('template.json'),
        bytes: text(JSON.stringify(t).replaceAll(/"at":\s*\d+/g, '"at":1e999')),
      },
      file('contents.json', contents()),
    ]),
  'an asset elsewhere': (t) => whole({ ...t, assets: { badge: 'https://kites.invalid/badge.png' } }),
  'something that is no object': (_, random) =>
    zipOf([
      file('template.json', [[], 1, 'kite', null, true][Math.floor(random() * 5)]),
      file('contents.json', contents()),
    ]),
  'bytes that were changed': (t, random) => {
    const all = whole(t, [{ name: text('media/a'), bytes: SVG }], contents([media('media/a')]));
    for (let i = 0; i < 40; i++) all[Math.floor(random() * all.length)] = Math.floor(random() * 256);
    return all;
  },
  'a document that was changed': (t, random) => {
    let letters = JSON.stringify(t);
    for (let i = 0; i < 8; i++) {
      const at = Math.floor(random() * letters.length);
      letters = letters.slice(0, at) + '[]{}",:0e'[Math.floor(random() * 9)]! + letters.slice(at + 1);
    }
    return zipOf([{ name: text('template.json'), bytes: text(letters) }, file('contents.json', contents())]);
  },
  'no zip': (_, random) =>
    new Uint8Array([0x50, 0x4b, 3, 4, ...Array.from({ length: 200 }, () => random() * 256)]),
};

/** A package that is meant to do harm, or is none. */
export interface Hostile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/**
 * Hostile packages, the same ones for the same seed: each way in turn, a little different every time.
 * @param template a whole one, from which they are made
 */
export function* hostilePackages(count: number, seed: number, template: object): Generator<Hostile> {
  const random = chance(seed);
  const ways = Object.entries(WAYS);
  for (let i = 0; i < count; i++) {
    const [name, make] = ways[i % ways.length]!;
    const own = JSON.parse(JSON.stringify(template)) as Plain;
    yield {
      name: `${String(i).padStart(3, '0')}-${name.replaceAll(/[^a-z0-9]+/g, '-')}`,
      bytes: make(own, random),
    };
  }
}
