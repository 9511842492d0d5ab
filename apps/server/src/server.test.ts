import { spawnSync } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { newReel } from '@fresh-reel/core';
import { allTemplates, templateById } from '@fresh-reel/templates';
import { PNG } from 'pngjs';
import { createApp } from './app';
import { main } from './cli/main';
import { asked } from './cli/testing';
import { paintOnThreads, threadsFor } from './rendering/threads';

const bin = join(__dirname, '../bin/fresh-reel.mjs');
const run = (...args: string[]) => spawnSync('node', [bin, ...args], { encoding: 'utf8' });
/** The command line in this process: one of its own takes seconds to start. */
async function here(...args: string[]): Promise<{ status: number; stdout: string; stderr: string }> {
  const [told, said]: [string[], string[]] = [[], []];
  const spies = [
    jest.spyOn(console, 'error').mockImplementation((line: string) => void said.push(line)),
    jest.spyOn(console, 'log').mockImplementation((line: string) => void told.push(line)),
    jest.spyOn(process.stdout, 'write').mockImplementation(() => true),
  ];
  try {
    return { status: await main(args), stdout: told.join('\n'), stderr: said.join('\n') };
  } finally {
    for (const spy of spies) spy.mockRestore();
  }
}
let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'fresh-reel-server-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** The pictures of a render, in order. */
const picturesIn = (folder: string) =>
  readdirSync(folder)
    .filter((name) => name.endsWith('.png'))
    .sort();

describe('fresh-reel render', () => {
  it('writes every frame as a numbered PNG with alpha', () => {
    const out = join(folder, 'frames');
    const { status, stdout } = run('render', 'name-strap', '--out', out, '--size', '480x270', '--rate', '25');
    expect(status).toBe(0);
    expect(stdout).toContain('135 frames');
    // Its sound lies beside the pictures.
    expect(readdirSync(out)).toContain('name-strap.wav');
    const files = picturesIn(out);
    expect(files).toHaveLength(135);
    expect([files[0], files.at(-1)]).toEqual(['name-strap_00001.png', 'name-strap_00135.png']);
    const png = PNG.sync.read(readFileSync(join(out, files[60]!)));
    expect([png.width, png.height]).toEqual([480, 270]);
    const alphas = new Set(png.data.filter((_, i) => i % 4 === 3));
    expect(alphas.has(0)).toBe(true);
    expect(alphas.has(255)).toBe(true);
    expect(readdirSync(folder)).toEqual(['frames']);
  });

  it('takes a fill: words, a path, controls and a look', async () => {
    const logo = new PNG({ width: 20, height: 20 });
    logo.data.fill(255);
    for (let i = 0; i < logo.data.length; i += 4) logo.data.set([10, 200, 30], i);
    writeFileSync(join(folder, 'green.png'), PNG.sync.write(logo));
    writeFileSync(
      join(folder, 'fill.json'),
      JSON.stringify({
        look: 'lantern',
        slots: { logo: 'green.png', line: null },
        controls: { 'backdrop-on': false },
      }),
    );
    const out = join(folder, 'out');
    const args = ['--fill', join(folder, 'fill.json'), '--size', '320x180', '--frames', '180-181'];
    expect((await here('render', 'gust-sting', '--out', out, ...args)).status).toBe(0);
    const png = PNG.sync.read(readFileSync(join(out, 'gust-sting_00001.png')));
    const middle = (80 * 320 + 160) * 4;
    expect([...png.data.subarray(middle, middle + 4)]).toEqual([10, 200, 30, 255]);
    expect(png.data[3]).toBe(0);
  });

  it('paints the same on several threads, each picture once', async () => {
    const template = templateById('name-strap');
    const reel = newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide' });
    const [one, many] = ['one', 'many'].map((name) => {
      mkdirSync(join(folder, name));
      return join(folder, name);
    });
    const job = (to: string) => ({
      ...{ reel, files: [], fonts: [], size: { width: 160, height: 90 }, rate: { num: 10, den: 1 } },
      ...{ from: 0, count: 20, folder: to, stem: 's' },
    });
    let written = 0;
    await paintOnThreads(job(one!), 1, () => void written++);
    await paintOnThreads(job(many!), 2, () => void written++);
    expect(written).toBe(40);
    const names = readdirSync(one!).sort();
    expect(names).toHaveLength(20);
    expect(readdirSync(many!).sort()).toEqual(names);
    for (const name of names) expect(readFileSync(join(many!, name))).toEqual(readFileSync(join(one!, name)));
    expect([threadsFor(500, 2), threadsFor(500, 8), threadsFor(30, 8)]).toEqual([1, 4, 1]);
    const broken = { ...job(many!), files: [['sha256:x', join(folder, 'gone.mp4')] as const] };
    await expect(paintOnThreads(broken, 1, () => undefined)).rejects.toThrow('gone.mp4');
  }, 60_000);

  it('hides slots, and leaves no pictures of an earlier, longer render', async () => {
    writeFileSync(join(folder, 'hide.json'), JSON.stringify({ hidden: ['role', 'badge'] }));
    const out = join(folder, 'v1.25');
    const go = (...more: string[]) =>
      here('render', 'name-strap', '--out', out, '--size', '160x90', '--rate', '10', ...more);
    expect((await go('--frames', '10-19')).status).toBe(0);
    writeFileSync(join(out, 'notes.txt'), 'mine');
    const before = readFileSync(join(out, 'name-strap_00001.png'));
    expect((await go('--frames', '10-13', '--fill', join(folder, 'hide.json'))).status).toBe(0);
    expect(readdirSync(out).sort()).toEqual([
      'name-strap.wav',
      ...[1, 2, 3, 4].map((n) => `name-strap_0000${n}.png`),
      'notes.txt',
    ]);
    expect(readFileSync(join(out, 'name-strap_00001.png'))).not.toEqual(before);
    writeFileSync(join(folder, 'wrong.json'), JSON.stringify({ hidden: ['nothing'] }));
    expect((await go('--fill', join(folder, 'wrong.json'))).stderr).toContain('no slot "nothing" to hide');
  });

  it('shows the right frames of a clip, and writes the sound beside them', async () => {
    // Red for a second, then blue; a tone all along.
    const clip = join(folder, 'two.mp4');
    const made = spawnSync('ffmpeg', [
      ...['-v', 'error', '-nostdin', '-f', 'lavfi', '-i', 'color=red:s=64x36:r=25:d=1'],
      ...['-f', 'lavfi', '-i', 'color=blue:s=64x36:r=25:d=1', '-f', 'lavfi', '-i', 'sine=440:d=2'],
      ...['-filter_complex', '[0][1]concat=n=2[v]', '-map', '[v]', '-map', '2:a'],
      ...['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-c:a', 'aac', clip],
    ]);
    expect(made.status).toBe(0);
    writeFileSync(
      join(folder, 'fill.json'),
      JSON.stringify({
        slots: {
          shot: { path: 'two.mp4', clip: { in: 0.8 } },
          whoosh: { path: 'two.mp4', level: -12 },
          shutter: null,
        },
      }),
    );
    const out = join(folder, 'clip');
    const { status, stderr } = await here(
      ...['render', 'freeze-print', '--fill', join(folder, 'fill.json'), '--out', out],
      ...['--size', '320x180', '--rate', '25', '--frames', '0-9'],
    );
    expect([status, stderr.includes('error')]).toEqual([0, false]);
    const colour = (n: number) => {
      const png = PNG.sync.read(readFileSync(join(out, `freeze-print_${String(n).padStart(5, '0')}.png`)));
      const at = (90 * 320 + 160) * 4;
      return png.data[at]! > png.data[at + 2]! ? 'red' : 'blue';
    };
    // Frame 5 of the render is a fifth of a second after 0.8: the first blue one.
    expect(Array.from({ length: 10 }, (_, i) => colour(i + 1))).toEqual([
      ...new Array(5).fill('red'),
      ...new Array(5).fill('blue'),
    ]);
    const wav = readFileSync(join(out, 'freeze-print.wav'));
    expect(wav.length).toBe(44 + 0.4 * 48000 * 6);
    expect(wav.subarray(44).some((b) => b !== 0)).toBe(true);
  });

  it('renders a reel file with the pictures in it, and says when one is not', async () => {
    const template = templateById('gust-sting');
    const media = `sha256:${'a'.repeat(64)}`;
    const fill = {
      slots: { logo: { media, focus: [0.5, 0.5] as [number, number], scale: 1, turn: 0 } },
      controls: {},
    };
    const reel = newReel(template, {
      id: 'r',
      name: 'A sting',
      now: '2026-06-06T09:00:00.000Z',
      shape: 'square',
      fill,
    });
    const file = join(folder, 'a.reel.json');
    writeFileSync(file, JSON.stringify(reel));
    const without = await here('render', file, '--out', join(folder, 'x'), '--frames', '0-0');
    expect(without.status).toBe(1);
    expect(without.stderr).toContain('needs files that it does not hold');
    expect(existsSync(join(folder, 'x'))).toBe(false);

    const png = PNG.sync.write(new PNG({ width: 4, height: 4 }));
    writeFileSync(
      file,
      JSON.stringify({
        ...reel,
        embedded: { [media]: { name: 'l.png', type: 'image/png', base64: png.toString('base64') } },
      }),
    );
    const withIt = await here(
      'render',
      file,
      '--out',
      join(folder, 'x'),
      '--size',
      '270x270',
      '--frames',
      '10-10',
    );
    expect(withIt.stderr).toBe('');
    expect(readdirSync(join(folder, 'x'))).toEqual(['a-sting.wav', 'a-sting_00001.png']);
  });

  it.each([
    [['render', 'nothing-here', '--out', 'x'], '"nothing-here" is neither a template (name-strap, '],
    [['render', 'name-strap'], "Required option '--out <folder or film>' not specified"],
    [['render', 'name-strap', '--out', 'x.avi'], 'looks like a file'],
    [['render', 'name-strap', '--out', 'x.mov', '--codec', 'best'], '"best" is none of h264, h265,'],
    [['render', 'name-strap', '--out', 'x.mov', '--codec', 'vp9'], 'vp9 goes into a file that ends in .webm'],
    [['render', 'name-strap', '--out', 'x', '--codec', 'h264'], 'ends in .mp4 or .mov, and'],
    [
      ['render', 'name-strap', '--out', 'x.mp4', '--size', '161x90'],
      'even sides only, and 161x90 is not: try --size 162x90',
    ],
    [['render', 'name-strap', '--out', 'x.mp4', '--alpha', 'straight'], 'h264 keeps no transparency'],
    [['render', 'name-strap', '--out', 'x.mov', '--alpha', 'half'], '"half" is none of straight'],
    [
      ['render', 'name-strap', '--out', 'x.mov', '--timecode', 'noon'],
      '--timecode: "noon" is not a timecode',
    ],
    [['render', 'name-strap', '--out', 'x', '--size', 'big'], '"big" is not a size'],
    [['render', 'name-strap', '--out', 'x', '--rate', 'fast'], '"fast" is not a frame rate'],
    [['render', 'name-strap', '--out', 'x', '--frames', '9-3'], 'not a range'],
    [['render', 'name-strap', '--out', 'x', '--frames', '0-9999'], 'the last frame is 323'],
    [['render', 'name-strap', '--out', 'x', '--fill', 'gone.json'], 'cannot be read'],
  ])('%j fails with a reason on standard error', async (args, reason) => {
    const inFolder = (arg: string) => (arg.startsWith('x') ? join(folder, arg) : arg);
    const { status, stderr } = await here(...args.map(inFolder));
    expect(status).toBe(1);
    expect(stderr).toContain(reason);
    expect(readdirSync(folder)).toEqual([]);
  });

  it('ends with 1 and the reason on standard error as a process, too', () => {
    const { status, stderr, stdout } = run('dance');
    expect([status, stdout]).toEqual([1, '']);
    expect(stderr).toContain("Unknown command 'dance'");
  });

  it.each([
    ['{"slots":{"nome":"x"}}', 'there is no slot "nome"; the slots are name, role, badge'],
    ['{"controls":{"size":900}}', '"size" takes a number from 60 to 160, not 900'],
    ['{"slots":{"badge":"words.txt"}}', 'is not a picture, clip or sound that can be read'],
    ['{"slots":{"badge":"gone.png"}}', 'The file "gone.png" for the slot "badge" cannot be read'],
    ['{"slots":', 'is not complete JSON'],
    ['{"colour":"red"}', 'Unrecognized key'],
  ])('a fill of %s is told what is wrong', async (text, reason) => {
    writeFileSync(join(folder, 'words.txt'), 'not a picture');
    writeFileSync(join(folder, 'fill.json'), text);
    const { status, stderr } = await here(
      'render',
      'name-strap',
      '--fill',
      join(folder, 'fill.json'),
      '--out',
      join(folder, 'out'),
    );
    expect(status).toBe(1);
    expect(stderr).toContain(reason);
    expect(existsSync(join(folder, 'out'))).toBe(false);
  });

  it('takes lists, marked words, keyframes and changes of a text', async () => {
    const frame = async (fill: object) => {
      const file = join(folder, 'text.json');
      writeFileSync(file, JSON.stringify(fill));
      const out = join(folder, 'text');
      rmSync(out, { recursive: true, force: true });
      const args = ['--fill', file, '--out', out, '--size', '320x180', '--frames', '70-70'];
      const { status, stderr } = await here('render', 'tall-hook', ...args);
      expect([status, stderr]).toEqual([0, '']);
      return readFileSync(join(out, picturesIn(out)[0]!)).toString('base64');
    };
    const plain = await frame({ slots: { hook: ['One', 'Two', 'Three', 'Four', 'Five'] } });
    const all = [
      plain,
      await frame({ slots: { hook: 'One\nTwo\nThree\nFour\nFive' }, controls: { first: 2 } }),
      await frame({
        slots: { hook: 'One\nTwo' },
        controls: { size: { keys: [{ at: 0, of: 'in', value: 50 }] } },
      }),
      await frame({
        slots: { hook: 'One\nTwo', kicker: { text: 'Wait', runs: [{ from: 0, to: 4, colour: '#FF0000' }] } },
      }),
      await frame({ slots: { hook: 'One\nTwo' }, texts: { 'line-1': { family: 'Caveat', weight: 700 } } }),
    ];
    expect(new Set(all).size).toBe(all.length);
    const twice = await frame({ slots: { hook: 'One\nTwo\nThree\nFour\nFive' } });
    expect(twice).toBe(plain);
  });

  it('lists the templates, a line each, its id first', async () => {
    const lines = (await here('list')).stdout.trim().split('\n');
    expect(lines.map((l) => l.split(/\s/)[0])).toEqual(allTemplates().map((t) => t.id));
  });
});

it('reads its arguments', () => {
  expect(
    asked('render', ...['x', '--out', 'o', '--rate', '60000/1001', '--size', '1080x1920', '--frames', '7']),
  ).toEqual({
    what: 'x',
    fill: undefined,
    out: 'o',
    size: { width: 1080, height: 1920 },
    rate: { num: 60000, den: 1001 },
    frames: [7, 7],
  });
});

describe('the server', () => {
  let app: ReturnType<typeof createApp> | undefined;
  afterEach(() => app?.close());
  const start = async () => {
    mkdirSync(join(folder, 'app'));
    writeFileSync(join(folder, 'index.html'), '<html>app</html>');
    writeFileSync(join(folder, 'app/a.js'), 'code');
    mkdirSync(join(folder, 'app/0a1b'), { recursive: true });
    writeFileSync(join(folder, 'app/0a1b/unpack.js'), 'self');
    writeFileSync(join(folder, '../outside.txt'), 'not yours');
    app = createApp(folder);
    return app.listen({ port: 0, host: '127.0.0.1' });
  };

  it('gives out files, and the app for its own addresses', async () => {
    const address = await start();
    const page = await fetch(`${address}/reels/abc`, { headers: { accept: 'text/html' } });
    expect([page.status, await page.text()]).toEqual([200, '<html>app</html>']);
    const script = await fetch(`${address}/app/a.js`);
    expect(script.headers.get('cache-control')).toContain('immutable');
    expect(script.headers.get('content-security-policy')).toContain("default-src 'self'");
  });

  it('lets no page make code from text, and the font unpacker alone, which reaches no network', async () => {
    const address = await start();
    const policy = async (url: string) =>
      (await fetch(address + url, { headers: { accept: 'text/html' } })).headers.get(
        'content-security-policy',
      );
    for (const url of ['/', '/reels', '/app/0a1b/page.js']) {
      expect(await policy(url)).not.toContain("'unsafe-eval'");
    }
    const unpacker = await policy('/app/0a1b/unpack.js');
    expect(unpacker).toContain("'unsafe-eval'");
    expect(unpacker).toContain("default-src 'none'");
    expect(unpacker).toContain('connect-src data:');
    expect(await policy('/unpack-me.js')).not.toContain("'unsafe-eval'");
    // The address is only text: what is served is the page.
    for (const url of ['/?/unpack-a.js', '/?/app/0a1b/unpack.js', '/reels/app/0a1b/unpack.js'])
      expect(await policy(url)).not.toContain("'unsafe-eval'");
  });

  it('says plainly what is not there', async () => {
    const address = await start();
    const gone = await fetch(`${address}/fonts/gone.ttf`);
    expect([gone.status, await gone.json()]).toEqual([
      404,
      { error: 'There is nothing at /fonts/gone.ttf.' },
    ]);
    for (const path of ['/../outside.txt', '/%2e%2e/outside.txt', '/..%2foutside.txt']) {
      expect(await (await fetch(address + path)).text()).not.toContain('not yours');
    }
    expect(() => createApp(join(folder, 'none'))).toThrow('The studio is not built');
  });
});
