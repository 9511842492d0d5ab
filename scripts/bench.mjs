/**
 * `npm run bench`: what the app costs on this machine, against its budgets. `--json` prints the figures and nothing
 * else: an array of { id, value, unit, budget, met }. Names of parts run those alone.
 */

import { execFileSync } from 'node:child_process';
import { createHash, randomFillSync } from 'node:crypto';
import {
  closeSync,
  createReadStream,
  createWriteStream,
  existsSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readFileSync,
  rmSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { createServer } from 'node:http';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import {
  firstVisit,
  keptFromTheFirst,
  processorSeconds,
  scriptOfWorkers,
  untilAddress,
} from '../bench/arrival.mjs';
import { build as buildStudio } from './build/build.mjs';
import { ensurePackages, ensurePrograms, output, root } from './setup.mjs';

const json = process.argv.includes('--json');
/** Templates that are measured, where not all of them are. */
const only = process.argv
  .find((a) => a.startsWith('--only='))
  ?.slice('--only='.length)
  .split(',');
// What setting up and building say goes to standard error then.
output.aside = json;
const say = (text) => json || console.log(text);
/** What a frame took at the machine's pace of just now, and costs with all that a draft does without. */
const sayRaw = ({ id, rawP95, final }) =>
  say(`        ${id}: as measured ${rawP95.toFixed(1)} ms; a final frame at 1080p ${final.toFixed(1)} ms`);

const programs = ensurePrograms({ chromium: 'chromium', ffmpeg: 'ffmpeg' });
ensurePackages();
await programs;
await buildStudio();

const { build } = await import('esbuild');
const { default: puppeteer } = await import('puppeteer-core');
const { createCanvas, loadImage } = await import('@napi-rs/canvas');
const { register } = await import('tsx/esm/api');
register();
const { SHIPPED } = await import(new URL('../packages/templates/src/index.ts', import.meta.url).href);
const { createApp } = await import(new URL('../apps/server/src/app.ts', import.meta.url).href);

/** The page that measures: core and the studio's engine in one worker. */
async function serveBench() {
  const { outputFiles } = await build({
    entryPoints: { bench: `${root}bench/page.ts`, paint: `${root}apps/studio/src/render/paint.worker.ts` },
    outdir: '/',
    bundle: true,
    format: 'iife',
    write: false,
    platform: 'browser',
    plugins: [
      {
        name: 'nothing of Node',
        setup(b) {
          b.onResolve({ filter: /^(fs|path|crypto)$/ }, ({ path }) => ({ path, namespace: 'nothing' }));
          b.onLoad({ filter: /.*/, namespace: 'nothing' }, () => ({ contents: 'module.exports = {}' }));
        },
      },
    ],
  });
  const server = createServer(async (request, response) => {
    const path = new URL(request.url, 'http://x').pathname;
    if (path === '/')
      return response
        .setHeader('content-type', 'text/html')
        .end('<!doctype html><link rel="icon" href="data:,"><input type="file">');
    const script = outputFiles.find((f) => f.path === path);
    if (script) return response.setHeader('content-type', 'text/javascript').end(script.text);
    if (path.startsWith('/bench-pictures/')) {
      const asset = `${root}packages/templates/src/${SHIPPED.find(path.replace('/bench-pictures/', ''))}`;
      if (!asset.endsWith('.svg')) return response.end(readFileSync(asset));
      // Vector pictures are drawn by the page in the app; a worker alone gets them drawn.
      const image = await loadImage(asset);
      const canvas = createCanvas(2048, 2048);
      canvas.getContext('2d').drawImage(image, 0, 0, 2048, 2048);
      return response.end(await canvas.encode('png'));
    }
    const file = `${root}apps/studio/dist${path}`;
    if (existsSync(file)) return response.end(readFileSync(file));
    response.statusCode = 404;
    return response.end();
  });
  await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
  return { server, address: `http://localhost:${server.address().port}/` };
}

const browser = await puppeteer.launch({
  executablePath: ['/usr/bin/chromium', '/usr/bin/google-chrome'].find(existsSync),
  headless: true,
  protocolTimeout: 600_000,
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});
const bench = await serveBench();
const page = await browser.newPage();
let tenth = () => undefined;
await page.exposeFunction('tenth', () => tenth());
await page.goto(bench.address);
const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-bench-'));

/**
 * Measures in a worker of the bench page.
 * @param path a file on disk that it is measured on
 * @param onTenth called at each tenth of long work
 * @param painters how many workers that paint it gets ports to
 */
async function inWorker(what, path, onTenth, painters = 0) {
  const input = await page.$('input');
  if (path) await input.uploadFile(path);
  tenth = onTenth ?? (() => undefined);
  const answer = await page.evaluate(
    (name, field, ofFile, count) =>
      new Promise((resolve) => {
        const worker = new Worker('/bench.js');
        const others = Array.from({ length: count }, () => new Worker('/paint.js'));
        const ports = others.map((other) => {
          const { port1, port2 } = new MessageChannel();
          other.postMessage({ type: 'conductor', port: port1 }, [port1]);
          other.onmessage = async ({ data: { needs: id } }) => {
            const response = await fetch(`/bench-pictures/${id}`);
            const bitmap = await createImageBitmap(await response.blob());
            const { width, height } = bitmap;
            other.postMessage({ type: 'picture', id, picture: { bitmap, width, height } }, [bitmap]);
          };
          return port2;
        });
        worker.onmessage = ({ data }) => {
          if (data.tenth) return void window.tenth();
          for (const each of [worker, ...others]) each.terminate();
          resolve(data);
        };
        worker.onerror = (event) => resolve({ fault: event.message });
        worker.postMessage({ what: name, file: ofFile ? field.files[0] : undefined, painters: ports }, ports);
      }),
    what,
    input,
    path !== undefined,
    painters,
  );
  if (answer.fault) throw new Error(answer.fault);
  return answer.value;
}

/** Memory of the browser's processes, in MB, as the system counts it. */
function browserMemory() {
  const rows = execFileSync('ps', ['-e', '-o', 'pid=,ppid=,rss=']).toString().trim().split('\n');
  const all = rows.map((r) => r.trim().split(/\s+/).map(Number));
  const ours = new Set([browser.process().pid]);
  for (const [pid, parent] of all) if (ours.has(parent)) ours.add(pid);
  return all.reduce((sum, [pid, , rss]) => sum + (ours.has(pid) ? rss : 0), 0) / 1000;
}

/** A clip for measuring, from one of the demo's, over and over. */
function clipFile(name, args, source = `${root}packages/templates/src/shared/kites-crossing.mp4`) {
  const path = join(folder, name);
  execFileSync('ffmpeg', ['-nostdin', '-v', 'error', '-stream_loop', '-1', '-i', source, ...args, path]);
  return path;
}

/** Six seconds at 1080p30 that decode like a camera's. */
function hdClip(name, more) {
  return clipFile(name, [
    ...more,
    ...['-vf', 'scale=1920:1080,noise=alls=8:allf=t', '-r', '30', '-t', '6', '-c:v', 'libx264'],
    ...['-preset', 'fast', '-pix_fmt', 'yuv420p', '-b:v', '12M', '-g', '60'],
  ]);
}

/** A package of documents by their names in it. @returns where it is */
async function packageFile(name, documents) {
  const { BlobWriter, TextReader, ZipWriter } = await import('@zip.js/zip.js');
  const zip = new ZipWriter(new BlobWriter());
  for (const [path, document] of Object.entries(documents))
    await zip.add(path, new TextReader(JSON.stringify(document)));
  const file = join(folder, name);
  writeFileSync(file, Buffer.from(await (await zip.close()).arrayBuffer()));
  return file;
}

/** A sound of noise, which nothing makes smaller. @returns where it is, and its SHA-256 */
function noiseSound(path, bytes) {
  const head = Buffer.alloc(44);
  head.write('RIFF', 0);
  head.writeUInt32LE(bytes + 36, 4);
  head.write('WAVEfmt ', 8);
  head.writeUInt32LE(16, 16);
  // PCM, two channels of 16 bits at 48 kHz (RIFF WAVE, Multimedia Programming Interface 1.0).
  for (const [value, at] of [
    [1, 20],
    [2, 22],
    [4, 32],
    [16, 34],
  ])
    head.writeUInt16LE(value, at);
  for (const [value, at] of [
    [48_000, 24],
    [192_000, 28],
    [bytes, 40],
  ])
    head.writeUInt32LE(value, at);
  head.write('data', 36);
  const noise = randomFillSync(Buffer.alloc(1_000_000));
  const hash = createHash('sha256').update(head);
  const file = openSync(path, 'w');
  writeSync(file, head);
  for (let i = 0; i < bytes / noise.length; i++) {
    noise.writeUInt32LE(i, 0);
    writeSync(file, noise);
    hash.update(noise);
  }
  closeSync(file);
  return { path, hash: hash.digest('hex') };
}

/** Copies a file and works its SHA-256 out, and does nothing else. */
async function copyAndHash(from, to) {
  const hash = createHash('sha256');
  const through = new Transform({
    transform(piece, _, done) {
      hash.update(piece);
      done(null, piece);
    },
  });
  await pipeline(createReadStream(from), through, createWriteStream(to));
  return hash.digest('hex');
}

/** Milliseconds in which a page copies a file to the disk that it has and hashes it, and does nothing else. */
async function bareCopy(tab, path) {
  await tab.evaluate(() => {
    const field = Object.assign(document.createElement('input'), { type: 'file', id: 'bare' });
    document.body.append(field);
  });
  await (await tab.$('#bare')).uploadFile(path);
  return tab.evaluate(async () => {
    const file = document.querySelector('#bare').files[0];
    const root = await navigator.storage.getDirectory();
    const begun = performance.now();
    const handle = await root.getFileHandle('bare', { create: true });
    const stream = await handle.createWritable();
    for (let at = 0; at < file.size; at += 786_432) {
      const piece = await file.slice(at, at + 786_432).arrayBuffer();
      await crypto.subtle.digest('SHA-256', piece);
      await stream.write(piece);
    }
    await stream.close();
    const took = performance.now() - begun;
    await root.removeEntry('bare');
    return took;
  });
}

/** A reel file of so many minutes, of the demo's clips: three to a minute, and five titles on two tracks. */
async function reelFile(minutes) {
  const { addTitle, addFile, emptyReel } = await import(
    new URL('../packages/core/src/index.ts', import.meta.url).href
  );
  const { templateById } = await import(new URL('../packages/templates/src/index.ts', import.meta.url).href);
  const { sharedAsset } = await import(new URL('../packages/templates/src/files.ts', import.meta.url).href);
  const clips = ['kites-crossing', 'kite-near', 'crowd-on-the-hill', 'drifting-sky', 'market-at-noon'];
  const made = { id: `long-${minutes}`, name: `${minutes} minutes`, now: new Date().toISOString() };
  let reel = emptyReel({ ...made, frame: { width: 1920, height: 1080 }, rate: { num: 25, den: 1 } });
  for (let i = 0; i < minutes * 3; i++) {
    const media = sharedAsset(`${clips[i % clips.length]}.mp4`);
    ({ reel } = addFile(reel, { kind: 'clip', media, name: `${i}.mp4`, duration: 20 }, i * 500));
  }
  const titles = ['name-strap', 'pointer', 'place-date'];
  for (let i = 0; i < minutes * 5; i++) {
    ({ reel } = addTitle(reel, templateById(titles[i % titles.length]), i * 300 + 5));
  }
  const looped = reel.tracks.map((t) => ({
    ...t,
    items: t.items.map((x) => (x.kind === 'clip' ? { ...x, clip: { end: 'loop' } } : x)),
  }));
  const path = join(folder, `${minutes}-minutes.json`);
  writeFileSync(path, JSON.stringify({ ...reel, tracks: looped }));
  return path;
}

/** Gives the app files by a button that asks for them. */
/** Opens a file of the app's own, and takes in what is in it. */
async function takeIn(tab, id, file) {
  await giveFiles(tab, id, file);
  await tab.waitForSelector('[data-testid="open-take"]');
  await tab.click('[data-testid="open-take"]');
}

async function giveFiles(tab, testID, ...paths) {
  await tab.waitForSelector(`[data-testid="${testID}"]`);
  const [chooser] = await Promise.all([tab.waitForFileChooser(), tab.click(`[data-testid="${testID}"]`)]);
  await chooser.accept(paths);
}

/** Pictures a second of the surface that shows the most, while it plays. */
async function shownWhilePlaying(tab, milliseconds) {
  await tab.click('[data-testid="play"]');
  await pause(1500);
  return tab.evaluate(async (ms) => {
    window.seen.frames.length = 0;
    const begun = performance.now();
    await new Promise((resolve) => setTimeout(resolve, ms));
    const seconds = (performance.now() - begun) / 1000;
    return Math.max(0, ...window.seen.counts()) / seconds;
  }, milliseconds);
}

/** The app as built, with a worker that keeps the times of keys, documents and frames. */
async function inApp(path, act, view = { width: 1280, height: 800 }) {
  const app = createApp();
  const address = await app.listen({ port: 0, host: '127.0.0.1' });
  const tab = await browser.newPage();
  await tab.setViewport(view);
  await tab.evaluateOnNewDocument(() => {
    const seen = { key: 0, asked: new Map(), latencies: [], frames: [] };
    /** Pictures of each surface, since they were thrown away last. */
    seen.counts = () => {
      const counts = new Map();
      for (const [surface] of seen.frames) counts.set(surface, (counts.get(surface) ?? 0) + 1);
      return [...counts.values()];
    };
    window.seen = seen;
    window.addEventListener('keydown', () => (seen.key = performance.now()), true);
    const Real = Worker;
    window.Worker = class extends Real {
      constructor(...args) {
        super(...args);
        this.addEventListener('message', ({ data }) => {
          if (data.type !== 'frame') return;
          seen.frames.push([data.surface, data.frame.number, performance.now()]);
          const key = `${data.surface}/${data.frame.revision}`;
          if (seen.asked.has(key)) {
            seen.latencies.push(performance.now() - seen.asked.get(key));
            seen.asked.delete(key);
          }
        });
      }
      postMessage(message, transfer) {
        if (message.type === 'show' && seen.key > 0 && message.surface === seen.main)
          seen.asked.set(`${message.surface}/${message.revision}`, seen.key);
        super.postMessage(message, transfer);
      }
    };
  });
  const value = await act(tab, () => tab.goto(address.replace('127.0.0.1', 'localhost') + path));
  await tab.close();
  await app.close();
  return value;
}

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const percentile = (list, part) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * part))];

const rows = [];
const row = (id, value, unit, budget, met) => {
  rows.push({ id, value: Number(value.toFixed(2)), unit, budget, met });
  const ratio = ['ms', 's', 'frames', 'times', 'MB'].includes(unit) ? value / budget : budget / value;
  say(
    `${met ? 'met   ' : 'MISSED'}  ${id.padEnd(34)} ${value.toFixed(2).padStart(9)} ${unit.padEnd(8)} budget ${budget}, ${(ratio * 100).toFixed(0)}% of it used`,
  );
};

/** What is measured, by parts: `npm run bench -- files` runs one of them alone. */
const parts = {
  async render() {
    const { render, canvas, alone } = await inWorker('encode');
    say(
      `        lower third in one worker: ${render.toFixed(1)} frames a second, from the canvas itself ${canvas.toFixed(1)}; encoder alone ${alone.toFixed(1)}`,
    );
    row('render-planes-over-canvas', render / canvas, 'ratio', 0.95, render / canvas >= 0.95);
    const painters = 1 + availableParallelism();
    // Titles over transparency, the first of them the two lines that ffmpeg burns in (`films`), and an opener with
    // pictures: against the encoder alone, which has all cores.
    const wanted = { 'two-lines': 0.95, 'quiet-strap': 0.95, 'name-strap': 0.95, 'drift-wall': 0.7 };
    for (const [id, budget] of only ? only.map((id) => [id, 0.95]) : Object.entries(wanted)) {
      const rounds = [];
      for (let i = 0; i < 3; i++) rounds.push(await inWorker(`crew ${id}`, undefined, undefined, painters));
      // The middle one: the pace of the machine changes between the two that are compared.
      const f = rounds.sort((p, q) => p.all / p.alone - q.all / q.alone)[1];
      // Painting and encoding share the cores: together they take as long as both alone.
      const most = 1 / (1 / f.painting + 1 / f.alone);
      say(
        `        ${id}: one painter ${f.one.toFixed(1)} frames a second, ${f.painters} painters ${f.all.toFixed(1)}; painting alone ${f.painting.toFixed(1)}, encoding alone ${f.alone.toFixed(1)}, so ${most.toFixed(1)} on the same cores`,
      );
      row(`render-${id}-1080p-h264`, f.all / f.alone, 'ratio', budget, f.all / f.alone >= budget);
      row(`render-${id}-all-cores`, f.all / most, 'ratio', 0.9, f.all >= 0.9 * most);
    }
  },
  async templates() {
    for (const f of await inWorker(only ? `templates ${only.join()}` : 'templates')) {
      row(`preview-${f.id}`, f.p95, 'ms', 33, f.p95 <= 33);
      row(`evaluate-${f.id}`, f.evaluateP95, 'ms', 4, f.evaluateP95 <= 4);
      sayRaw(f);
    }
  },
  /** The families of effects, each at its fullest. */
  async families() {
    for (const f of await inWorker('families')) {
      row(`evaluate-${f.id}`, f.evaluateP95, 'ms', 12, f.evaluateP95 <= 12);
      row(`family-${f.id}`, f.p95, 'ms', 33, f.p95 <= 33);
      sayRaw(f);
    }
  },
  async text() {
    const [lines] = await inWorker('four-lines');
    row('four-lines-per-letter', 1000 / lines.p95, 'fps', 30, 1000 / lines.p95 >= 30);

    for (const f of await inWorker('kinds')) row(`motion-${f.id}`, f.p95, 'ms', 33, f.p95 <= 33);
    const blur = await inWorker('motion-blur');
    say(
      `        a frame sharp ${blur.sharp.toFixed(1)} ms, as the mean of 8 moments ${blur.blurred.toFixed(1)} ms`,
    );
    // Eight moments may cost eight frames, and half as much again to add them up.
    row('motion-blur-8-samples', blur.blurred / blur.sharp, 'frames', 12, blur.blurred / blur.sharp <= 12);
  },
  async files() {
    const hd = hdClip('hd.mp4', []);
    const large = clipFile('large.mp4', ['-t', '160', '-c', 'copy'], hd);
    const added = await inWorker('adding', large);
    say(
      `        adding ${added.adding.toFixed(0)} MB/s, reading and hashing alone ${added.hashing.toFixed(0)} MB/s`,
    );
    row('add-file', added.adding / added.hashing, 'ratio', 0.6, added.adding / added.hashing >= 0.6);
    const thumb = await inWorker('first-thumb', hd);
    say(
      `        small picture ${thumb.thumb.toFixed(0)} ms, its frame decoded alone ${thumb.decode.toFixed(0)} ms`,
    );
    row('first-thumb', thumb.thumb, 'ms', 1000, thumb.thumb <= 1000);
    const one = await inWorker('one-clip', hd);
    say(
      `        one clip: 95% of frames within ${one.p95.toFixed(1)} ms, decoding alone ${one.decode.toFixed(0)} frames a second`,
    );
    row(
      'preview-one-clip-1080p',
      1000 / one.mean,
      'fps',
      Math.min(30, one.decode),
      1000 / one.mean >= Math.min(30, one.decode),
    );
    const three = await inWorker('three-clips', hd);
    const reached = 1000 / three.mean;
    say(
      `        three clips: ${reached.toFixed(1)} frames a second, one decoded and drawn alone ${three.drawn.toFixed(1)}`,
    );
    row(
      'preview-three-clips-1080p',
      (3 * reached) / three.drawn,
      'ratio',
      0.8,
      (3 * reached) / three.drawn >= 0.8,
    );
    const film = await inWorker('clip-render', hd);
    say(
      `        decode and encode alone ${film.alone.toFixed(1)} frames a second, render ${film.render.toFixed(1)}`,
    );
    row('render-clip-1080p-h264', film.render / film.alone, 'ratio', 0.8, film.render / film.alone >= 0.8);
    const memory = [];
    const long = clipFile('long.mp4', ['-an', '-t', '150', '-c', 'copy']);
    const { frames } = await inWorker('long-clip', long, () => memory.push(browserMemory()));
    say(
      `        ${frames} frames of a clip, memory in MB by tenths: ${memory.map((m) => m.toFixed(0)).join(' ')}`,
    );
    // After the first three tenths everything that is kept is there.
    const growth = memory.at(-1) / memory[3];
    row('memory-long-clip', growth, 'times', 1.1, growth <= 1.1);
  },
  /** Films by ffmpeg: beside ffmpeg alone, by a table, and on a server that has just begun. */
  async films() {
    const { besideDrawtext, byTable, memoryOfLongFilm, serverToFirstFrame } = await import(
      new URL('../bench/films.ts', import.meta.url).href
    );
    const font = `${root}apps/studio/public/fonts/Figtree_700Bold.ttf`;
    const { ours, theirs, encoder } = await besideDrawtext(font);
    say(
      `        title over footage: ${ours.toFixed(1)} s; ffmpeg with drawtext ${theirs.toFixed(1)} s, without any title ${encoder.toFixed(1)} s`,
    );
    row('film-over-drawtext', ours / theirs, 'times', 1, ours <= theirs);
    for (const whole of [false, true]) {
      const memory = await memoryOfLongFilm(whole);
      const tenths = memory.map((m) => m.toFixed(0)).join(' ');
      say(
        `        ten minutes of 1080p, ${whole ? 'painted whole' : 'over footage'}: memory in MB by tenths ${tenths}`,
      );
      // After the first three tenths everything that is kept is there.
      const growth = memory.at(-1) / memory[3];
      row(`memory-ten-minutes${whole ? '-painted' : ''}`, growth, 'times', 1.1, growth <= 1.1);
    }
    const { table, single } = await byTable(20);
    say(`        20 rows by a table ${table.toFixed(1)} s, one by one ${single.toFixed(1)} s`);
    row('table-over-single', table / single, 'times', 1.1, table / single <= 1.1);
    const { listens, first } = await serverToFirstFrame(root);
    say(`        a server listens after ${listens.toFixed(2)} s`);
    row('server-to-first-frame', first, 's', 2, first <= 2);
  },
  async interface() {
    const latencies = await inApp('/reels/demo-strap', async (tab, go) => {
      await go();
      await tab.waitForSelector('[data-testid="slot-name"]');
      await pause(2500);
      await tab.evaluate(() => (window.seen.main = window.seen.frames[0][0]));
      await tab.click('[data-testid="slot-name"]');
      await pause(300);
      await tab.keyboard.type(' who flies the long line from the hill above Marram', { delay: 70 });
      await pause(600);
      return tab.evaluate(() => window.seen.latencies);
    });
    row('typing-to-picture', percentile(latencies, 0.95), 'ms', 100, percentile(latencies, 0.95) <= 100);

    const first = await inApp('/templates', async (tab, go) => {
      await go();
      await tab.waitForSelector('[data-testid="template-card-four-corners"]');
      await pause(2500);
      await tab.evaluate(() => {
        document
          .querySelector('[data-testid="template-card-four-corners"]')
          .scrollIntoView({ block: 'center' });
        window.seen.before = new Set(window.seen.frames.map(([surface]) => surface));
        window.seen.frames.length = 0;
        window.addEventListener(
          'click',
          () => {
            window.seen.tapped = performance.now();
            // The card that is pointed at began to move before the tap.
            for (const [surface] of window.seen.frames) window.seen.before.add(surface);
          },
          true,
        );
      });
      await tab.click('[data-testid="template-card-four-corners"]');
      return tab.evaluate(
        () =>
          new Promise((resolve) => {
            const look = () => {
              for (const [surface, number, time] of window.seen.frames) {
                // A surface that was not there before the tap, and has moved on from its first frame.
                const moved = !window.seen.before.has(surface) && number > 0;
                if (moved) return resolve((time - window.seen.tapped) / 1000);
              }
              requestAnimationFrame(look);
            };
            look();
          }),
      );
    });
    row('tap-to-first-moving-frame', first, 's', 1.5, first <= 1.5);
  },
  /** From nothing to the first card, as a phone gets it: what goes over the wire, and how long it takes; and a start. */
  async start() {
    const figures = await inApp(
      '/templates',
      async (tab, go) => {
        const begun = performance.now();
        await go();
        await tab.waitForSelector('[data-testid^="template-card-"] img');
        const card = (performance.now() - begun) / 1000;
        await tab.waitForFunction(
          () =>
            new Set(window.seen.frames.map(([s, n]) => `${s}/${n}`)).size >
            window.seen.frames.reduce((all, [s]) => all.add(s), new Set()).size,
        );
        const moving = (performance.now() - begun) / 1000;
        return { card, moving, ...(await firstVisit(browser, new URL(tab.url()).origin)) };
      },
      { width: 390, height: 844 },
    );
    row('wire-until-cards', figures.cards, 'MB', 0.9, figures.cards <= 0.9);
    row('wire-after-all', figures.after, 'MB', 1.3, figures.after <= 1.3);
    row('start-to-first-card', figures.card, 's', 3, figures.card <= 3);
    row('start-to-first-movement', figures.moving, 's', 4, figures.moving <= 4);
    const site = `${root}apps/studio/dist`;
    const kept = keptFromTheFirst(site);
    say(`        kept for times without a network: ${kept.files} files`);
    row('kept-from-the-first', kept.megabytes, 'MB', 6, kept.megabytes <= 6);
    const script = scriptOfWorkers(site);
    row('script-of-workers', script, 'MB', 4, script <= 4);
    const first = processorSeconds(root, 'scripts/build/build.mjs', '--force');
    row('first-start-processor', first, 's', 75, first <= 75);
    const data = mkdtempSync(join(tmpdir(), 'fresh-reel-bench-'));
    const warm = await untilAddress(root, data);
    rmSync(data, { recursive: true, force: true });
    row('warm-start', warm, 's', 2, warm <= 2);
  },
  /** A reel of ten minutes with 30 clips and 50 titles, and following. */
  async place() {
    const { open, step, long, short } = await inWorker('long-reel');
    row('open-long-reel', open, 'ms', 1500, open <= 1500);
    row('step-of-a-drag', step, 'ms', 16, step <= 16);
    say(`        a frame in a long reel ${long.toFixed(2)} ms, in a short one ${short.toFixed(2)} ms`);
    row('evaluation-long-reel', long / short, 'times', 1.5, long / short <= 1.5);
    const frames = await inWorker('follow');
    row('follow-640x360', frames, 'fps', 60, frames >= 60);
  },
  /** A clip of 1080p with two titles over it in the app, its sound on; going through it; and reels of ten minutes and of one. */
  async footage() {
    const hd = hdClip('shot.mp4', [
      '-f',
      'lavfi',
      '-i',
      'sine=frequency=330:duration=6',
      '-map',
      '0:v',
      '-map',
      '1:a',
    ]);
    const one = await inWorker('one-clip', hd);
    const titles = await inWorker('templates name-strap,pointer');
    const painting = titles.reduce((sum, { p95 }) => sum + p95, 0);
    const apart = 1000 / (one.mean + painting);
    const wanted = Math.min(30, 0.9 * apart);
    const view = { width: 1600, height: 900 };
    const { shown, scrubs } = await inApp(
      '/shelf',
      async (tab, go) => {
        await go();
        await giveFiles(tab, 'shelf-add', hd);
        await tab.waitForSelector('[data-testid="media-shot.mp4"]');
        await tab.click('[data-testid="shelf-new-reel"]');
        const card = '[data-testid="new-reel-sheet"] [data-testid="media-shot.mp4"]';
        await tab.waitForSelector(card);
        await tab.click(card);
        await tab.click('[data-testid="new-reel-make"]');
        for (const title of ['name-strap', 'pointer']) {
          await tab.waitForSelector('[data-testid="place-title"]');
          await tab.click('[data-testid="place-title"]');
          await tab.waitForSelector(`[data-testid="title-${title}"]`);
          await tab.click(`[data-testid="title-${title}"]`);
          await tab.waitForSelector(`[data-testid="item-${title}"]`);
        }
        const begun = performance.now();
        await tab.waitForSelector('[data-testid="proxy-making"]');
        await tab.waitForFunction(() => !document.querySelector('[data-testid="proxy-making"]'));
        say(`        its proxy is made in ${((performance.now() - begun) / 1000).toFixed(1)} s`);
        await pause(2000);
        const pictures = await shownWhilePlaying(tab, 3500);
        await tab.click('[data-testid="play"]');
        await pause(800);
        await tab.focus('[data-testid="line-seek"]');
        const times = [];
        let frame = 0;
        const seek = async (key, to) => {
          await tab.evaluate(() => (window.seen.frames.length = 0));
          await tab.keyboard.press(key);
          const took = await tab.evaluate(
            (wanted) =>
              new Promise((resolve) => {
                const look = () => {
                  const shows = window.seen.frames.find(([, number]) => number === wanted);
                  if (shows) resolve(shows[2] - window.seen.key);
                  else setTimeout(look, 5);
                };
                look();
              }),
            to,
          );
          times.push(took);
          frame = to;
          await pause(120);
        };
        await seek('Home', 0);
        for (let i = 0; i < 4; i++) await seek('PageDown', frame + 30);
        for (let i = 0; i < 30; i++) await seek('ArrowLeft', frame - 1);
        for (let i = 0; i < 3; i++) await seek('PageUp', Math.max(0, frame - 30));
        return { shown: pictures, scrubs: times };
      },
      view,
    );
    say(
      `        decoding and painting apart ${apart.toFixed(1)} frames a second; ${scrubs.length} jumps, the middle one ${percentile(scrubs, 0.5).toFixed(0)} ms`,
    );
    row('preview-clip-two-titles', shown, 'fps', Number(wanted.toFixed(1)), shown >= wanted);
    row('scrub-to-picture', percentile(scrubs, 0.95), 'ms', 150, percentile(scrubs, 0.95) <= 150);
    const figures = [];
    for (const minutes of [1, 10]) {
      const file = await reelFile(minutes);
      figures.push(
        await inApp('/reels', async (tab, go) => {
          await go();
          await takeIn(tab, 'open-reel-file', file);
          await tab.waitForSelector('[data-testid="play"]');
          await pause(2500);
          await tab.goBack();
          const card = '[data-testid="reels"] a[href^="/reels/"]';
          await tab.waitForSelector(card);
          await pause(2500);
          await tab.evaluate(() => (window.seen.frames.length = 0));
          const open = await tab.evaluate(
            (selector) =>
              new Promise((resolve) => {
                const before = new Set(window.seen.frames.map(([surface]) => surface));
                const begun = performance.now();
                document.querySelector(selector).click();
                const look = () => {
                  const there = document.querySelector('[data-testid="line"], [data-testid="sheet-fill"]');
                  const frame = window.seen.frames.find(
                    ([surface, , time]) => time > begun && !before.has(surface),
                  );
                  if (there && frame) return resolve((frame[2] - begun) / 1000);
                  requestAnimationFrame(look);
                };
                look();
              }),
            card,
          );
          await pause(1500);
          await shownWhilePlaying(tab, 8000);
          return { open, memory: browserMemory() };
        }),
      );
    }
    const [short, long] = figures;
    row('open-ten-minutes-in-app', long.open, 's', 1.5, long.open <= 1.5);
    say(
      `        memory with a reel of one minute ${short.memory.toFixed(0)} MB, of ten ${long.memory.toFixed(0)} MB`,
    );
    row('memory-ten-minutes', long.memory / short.memory, 'times', 1.15, long.memory / short.memory <= 1.15);
  },
  /** Pictures a second that are shown in the app at 960×540, with the sound on, and the page's own frames. */
  /** The place of templates with a hundred of them, and four side by side. */
  async collection() {
    const { allTemplates } = await import(
      new URL('../packages/templates/src/index.ts', import.meta.url).href
    );
    const TEMPLATES = allTemplates();
    const more = Math.max(0, 100 - TEMPLATES.length);
    const own = [];
    for (let i = 0; i < more; i++) {
      const name = `Own ${String(i).padStart(2, '0')}`;
      const template = { ...TEMPLATES[i], id: `own-${i}`, name };
      const contents = { format: 'freshreel/contents', version: 1, media: [], fonts: [] };
      own.push(
        await packageFile(`own-${i}.freshreel`, { 'template.json': template, 'contents.json': contents }),
      );
    }
    const compared = ['drift-wall', 'kite-tails', 'quiet-title', 'ticket'];
    const figures = await inApp(
      '/templates',
      async (tab, go) => {
        await go();
        for (const path of own) {
          await takeIn(tab, 'open-template-file', path);
          await tab.waitForSelector('[data-testid="use-template"]');
          await tab.goBack();
        }
        await tab.waitForSelector('[data-testid^="template-card-"]');
        await pause(1500);
        // Warm: everything of the app is there already.
        await tab.reload();
        const first = await tab
          .waitForFunction(
            () => {
              const there = (e) => e.complete && e.naturalWidth > 0;
              const shown = [...document.querySelectorAll('[data-testid^="template-card-"] img')].some(there);
              return shown && performance.now();
            },
            { timeout: 30_000 },
          )
          .then((handle) => handle.jsonValue());
        await pause(2500);
        const before = browserMemory();
        const scrolled = await tab.evaluate(async () => {
          const all = [document.scrollingElement, ...document.querySelectorAll('*')];
          const room = (e) => e.scrollHeight - e.clientHeight;
          const scroller = all.reduce((a, b) => (room(b) > room(a) ? b : a));
          let frames = 0;
          const begun = performance.now();
          for (let way = 0; way < 20; way++) {
            const [from, to] = way % 2 === 0 ? [0, room(scroller)] : [room(scroller), 0];
            await new Promise((done) => {
              const start = performance.now();
              const tick = () => {
                frames++;
                const part = Math.min(1, (performance.now() - start) / 2500);
                scroller.scrollTop = from + (to - from) * part;
                if (part < 1) requestAnimationFrame(tick);
                else done();
              };
              requestAnimationFrame(tick);
            });
          }
          return { fps: (frames * 1000) / (performance.now() - begun), room: room(scroller) };
        });
        await pause(2000);
        const after = browserMemory();
        await tab.goto(`${new URL(tab.url()).origin}/templates/compare?ids=${compared.join()}`);
        await tab.waitForFunction(() => window.seen.frames.length > 60, { timeout: 30_000 });
        await pause(2000);
        const slowest = await tab.evaluate(async () => {
          window.seen.frames.length = 0;
          await new Promise((resolve) => setTimeout(resolve, 3000));
          const counts = window.seen.counts();
          return { shown: counts.length, least: Math.min(...counts) / 3 };
        });
        return { first, scrolled, memory: after / before, slowest };
      },
      { width: 1600, height: 900 },
    );
    const { first, scrolled, memory, slowest } = figures;
    say(
      `        ${TEMPLATES.length + more} templates, ${scrolled.room} pixels to scroll; ${slowest.shown} playing side by side`,
    );
    row('templates-first-card-warm', first, 'ms', 1000, first <= 1000);
    row('templates-scrolling', scrolled.fps, 'fps', 50, scrolled.fps >= 50);
    row('templates-memory-after-ten-times', memory, 'times', 1.15, memory <= 1.15);
    row('templates-side-by-side', slowest.least, 'fps', 15, slowest.least >= 15);
  },
  /** A template of 400 layers on the bench of the workshop: choosing, dragging, undoing, and until a change shows. */
  async workshop() {
    const { allTemplates } = await import(
      new URL('../packages/templates/src/index.ts', import.meta.url).href
    );
    const TEMPLATES = allTemplates();
    const strap = TEMPLATES.find((t) => t.id === 'name-strap');
    const dot = (i) => ({
      ...{ id: `dot-${i}`, kind: 'shape', outline: { kind: 'ellipse' }, size: [40, 40] },
      ...{ offset: [30 + (i % 25) * 74, 30 + Math.floor(i / 25) * 64], fill: { colour: '#F2A541' } },
    });
    const layers = Array.from({ length: 396 }, (_, i) => dot(i));
    const template = {
      ...strap,
      id: 'four-hundred',
      name: 'Four hundred',
      layers: [...layers, ...strap.layers.slice(-1)],
    };
    const path = await packageFile('four-hundred.freshreel', { 'template.json': template });
    const figures = await inApp(
      '/templates',
      async (tab, go) => {
        await go();
        await takeIn(tab, 'open-template-file', path);
        await tab.waitForSelector('[data-testid="to-workshop"]');
        await tab.click('[data-testid="to-workshop"]');
        await tab.waitForSelector('[data-testid="part-tree"]');
        // Until the demo's files are on the shelf: that is done once, at the very first start.
        await pause(12_000);
        /** Frames of the page a second while something is done. */
        const paced = async (work) => {
          await tab.evaluate(() => {
            window.pace = { frames: 0, begun: performance.now(), going: true };
            const tick = () => {
              window.pace.frames++;
              if (window.pace.going) requestAnimationFrame(tick);
            };
            requestAnimationFrame(tick);
          });
          await work();
          return tab.evaluate(() => {
            window.pace.going = false;
            return (window.pace.frames * 1000) / (performance.now() - window.pace.begun);
          });
        };
        const ids = await tab.$$eval('[data-testid^="part-dot-"]', (all) => all.map((e) => e.dataset.testid));
        const choosing = await paced(async () => {
          for (const id of ids.slice(0, 10)) {
            await tab.click(`[data-testid="${id}"]`);
            await pause(150);
          }
        });
        const box = await (await tab.$('[data-testid^="part-box-dot-"]')).boundingBox();
        const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
        const dragging = await paced(async () => {
          await tab.mouse.move(x, y);
          await tab.mouse.down();
          for (let i = 0; i < 90; i++) {
            await tab.mouse.move(x + i, y + i / 2);
            await pause(12);
          }
          await tab.mouse.up();
        });
        const undoing = await paced(async () => {
          for (let i = 0; i < 8; i++) {
            await tab.click(`[data-testid="${i % 2 === 0 ? 'undo' : 'redo'}"]`);
            await pause(150);
          }
        });
        const shows = [];
        for (let i = 0; i < 15; i++) {
          await tab.focus('[data-testid^="part-box-dot-"]');
          await tab.evaluate(() => (window.seen.frames.length = 0));
          await tab.keyboard.press('ArrowRight');
          shows.push(
            await tab.evaluate(
              () =>
                new Promise((resolve) => {
                  const look = () => {
                    const main = window.seen.frames[0];
                    if (main) resolve(main[2] - window.seen.key);
                    else setTimeout(look, 4);
                  };
                  look();
                }),
            ),
          );
          await pause(120);
        }
        return { choosing, dragging, undoing, shows };
      },
      { width: 1280, height: 800 },
    );
    for (const what of ['choosing', 'dragging', 'undoing'])
      row(`workshop-400-${what}`, figures[what], 'fps', 50, figures[what] >= 50);
    const shows = percentile(figures.shows, 0.95);
    row('workshop-400-change-shows', shows, 'ms', 100, shows <= 100);
  },
  /** A thousand templates of one's own: from the touch that goes to Templates until they are there. */
  async own() {
    const { allTemplates } = await import(
      new URL('../packages/templates/src/index.ts', import.meta.url).href
    );
    const TEMPLATES = allTemplates();
    const templates = {};
    const documents = [];
    for (let i = 0; i < 1000; i++) {
      const { from: _, ...shipped } = TEMPLATES[i % TEMPLATES.length];
      const template = { ...shipped, id: `own-${i}`, name: `Own ${String(i).padStart(3, '0')}` };
      const path = `templates/own-${i}.json`;
      documents.push({ kind: 'template', name: template.name, path });
      templates[path] = template;
    }
    const contents = { format: 'freshreel/contents', version: 2, documents, media: [], fonts: [] };
    const path = await packageFile('thousand.freshreel', { ...templates, 'contents.json': contents });
    const listed = await inApp(
      '/templates',
      async (tab, go) => {
        await go();
        await takeIn(tab, 'open-template-file', path);
        await tab.waitForSelector('[data-testid^="template-card-own-"]', { timeout: 120_000 });
        const taken = [];
        for (let i = 0; i < 5; i++) {
          await tab.goto(`${new URL(tab.url()).origin}/renders`);
          await tab.waitForSelector('[data-testid="place-templates"]');
          await pause(1500);
          taken.push(
            await tab.evaluate(
              () =>
                new Promise((resolve) => {
                  const begun = performance.now();
                  document.querySelector('[data-testid="place-templates"]').click();
                  const look = () => {
                    const there = document.querySelector('[data-testid^="template-card-own-"]');
                    if (there) resolve(performance.now() - begun);
                    else setTimeout(look, 2);
                  };
                  look();
                }),
            ),
          );
        }
        return percentile(taken, 0.5);
      },
      { width: 1280, height: 800 },
    );
    row('own-thousand-listed', listed, 'ms', 300, listed <= 300);
  },
  /** A package of 500 MB, opened and written by the command line and in the app, against copying and hashing alone. */
  async package() {
    const { addFile, emptyReel } = await import(
      new URL('../packages/core/src/index.ts', import.meta.url).href
    );
    const cli = await import(new URL('../apps/server/src/cli/package.ts', import.meta.url).href);
    const laid = join(folder, 'laid');
    mkdirSync(join(laid, 'media'), { recursive: true });
    const sound = noiseSound(join(folder, 'noise.wav'), 500_000_000);
    const media = `sha256:${sound.hash}`;
    const made = { id: 'large', name: 'Large', now: new Date().toISOString() };
    const empty = emptyReel({ ...made, frame: { width: 1920, height: 1080 }, rate: { num: 25, den: 1 } });
    const { reel } = addFile(empty, { kind: 'sound', media, name: 'noise.wav', duration: 20 }, 0);
    writeFileSync(join(laid, 'reel.json'), JSON.stringify(reel));
    const path = `media/${sound.hash}`;
    const listed = { id: media, path, name: 'noise.wav', type: 'audio/wav' };
    const contents = { format: 'freshreel/contents', version: 2, documents: [], media: [listed], fonts: [] };
    writeFileSync(join(laid, 'contents.json'), JSON.stringify(contents));
    const took = async (work) => {
      const begun = performance.now();
      await work();
      return performance.now() - begun;
    };
    const packed = join(folder, 'large.freshreel');
    const alone = await took(() => copyAndHash(sound.path, join(laid, path)));
    const before = process.memoryUsage.rss();
    const packing = await took(() => cli.pack([laid, '--out', packed]));
    const unpacking = await took(() => cli.unpack([packed, '--out', join(folder, 'unpacked')]));
    const grown = (process.memoryUsage.rss() - before) / 1e6;
    for (const [what, ms] of [
      ['pack', packing],
      ['unpack', unpacking],
    ])
      row(`package-500mb-${what}`, alone / ms, 'of copying and hashing', 0.6, alone / ms >= 0.6);
    row('package-500mb-memory', grown, 'MB', 100, grown <= 100);
    const app = await inApp(
      '/reels',
      async (tab, go) => {
        await go();
        const bare = await bareCopy(tab, sound.path);
        await giveFiles(tab, 'open-reel-file', packed);
        await tab.waitForSelector('[data-testid="open-take"]');
        const start = browserMemory();
        let most = start;
        const watching = setInterval(() => {
          most = Math.max(most, browserMemory());
        }, 250);
        const opening = await took(async () => {
          await tab.click('[data-testid="open-take"]');
          await tab.waitForSelector('[data-testid="step-render"]', { timeout: 120_000 });
        });
        const opened = most - start;
        // With no reel open, so that nothing but the file is worked on.
        await tab.goto(`${new URL(tab.url()).origin}/shelf`);
        await tab.waitForSelector('[data-testid="save-everything"]');
        await pause(3000);
        const rest = browserMemory();
        most = rest;
        await tab.evaluate(() => {
          window.saved = new Promise((resolve) => {
            HTMLAnchorElement.prototype.click = () => resolve();
          });
        });
        const saving = await took(async () => {
          await tab.click('[data-testid="save-everything"]');
          await tab.evaluate(() => window.saved);
        });
        clearInterval(watching);
        say(
          `        memory grows by ${opened.toFixed(0)} MB while it is opened, by ${(most - rest).toFixed(0)} MB while it is written`,
        );
        return { bare, opening, saving, grown: Math.max(opened, most - rest) };
      },
      { width: 1280, height: 800 },
    );
    for (const [what, ms] of [
      ['open', app.opening],
      ['save', app.saving],
    ])
      row(`package-500mb-${what}-in-app`, app.bare / ms, 'of copying and hashing', 0.6, app.bare / ms >= 0.6);
    row('package-500mb-memory-in-app', app.grown, 'MB', 250, app.grown <= 250);
  },
  async playing() {
    const { allTemplates } = await import(
      new URL('../packages/templates/src/index.ts', import.meta.url).href
    );
    const TEMPLATES = allTemplates();
    for (const { id } of TEMPLATES.filter((t) => !only || only.includes(t.id))) {
      const { shown, page: own } = await inApp(
        `/templates/${id}`,
        async (tab, go) => {
          await go();
          await tab.waitForSelector('[data-testid="use-template"]');
          // Wide, whatever it was made for: that is what the budget is about.
          await tab.click('[data-testid="frame-shape-wide"]');
          await tab.click('[data-testid="use-template"]');
          await tab.waitForSelector('[data-testid="play"]');
          await pause(2500);
          await tab.click('[data-testid="play"]');
          await pause(1500);
          return tab.evaluate(async () => {
            window.seen.frames.length = 0;
            let [page, going] = [0, true];
            const tick = () => {
              page++;
              if (going) requestAnimationFrame(tick);
            };
            const begun = performance.now();
            tick();
            await new Promise((resolve) => setTimeout(resolve, 4000));
            going = false;
            const seconds = (performance.now() - begun) / 1000;
            return { shown: Math.max(0, ...window.seen.counts()) / seconds, page: page / seconds };
          });
        },
        { width: 1600, height: 900 },
      );
      row(`shown-${id}`, shown, 'fps', 30, shown >= 30);
      row(`page-${id}`, own, 'fps', 50, own >= 50);
    }
  },
};
const chosen = process.argv.slice(2).filter((a) => a in parts);
for (const [name, run] of Object.entries(parts))
  if (chosen.length === 0 || chosen.includes(name)) await run();

await browser.close();
bench.server.close();
rmSync(folder, { recursive: true, force: true });
if (json) console.log(JSON.stringify(rows));
process.exit(0);
