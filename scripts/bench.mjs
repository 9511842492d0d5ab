/**
 * `npm run bench`: what the app costs on this machine, against its budgets. `--json` prints the figures and nothing
 * else: an array of { id, value, unit, budget, met }.
 */

import { existsSync, readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { build as buildStudio } from './build.mjs';
import { ensurePackages, ensurePrograms, root } from './setup.mjs';

const json = process.argv.includes('--json');
const say = (text) => json || console.log(text);

ensurePackages();
ensurePrograms({ chromium: 'chromium' });
if (!json || !existsSync(`${root}apps/studio/dist/index.html`)) await buildStudio();

const { build } = await import('esbuild');
const { default: puppeteer } = await import('puppeteer-core');
const { createCanvas, loadImage } = await import('@napi-rs/canvas');
const { register } = await import('tsx/esm/api');
register();
const { createApp } = await import(new URL('../apps/server/src/app.ts', import.meta.url).href);

/** The page that measures: core and the studio's engine in one worker. */
async function serveBench() {
  const { outputFiles } = await build({
    entryPoints: [`${root}bench/page.ts`],
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
        .end('<!doctype html><link rel="icon" href="data:,">');
    if (path === '/bench.js')
      return response.setHeader('content-type', 'text/javascript').end(outputFiles[0].text);
    const asset = `${root}packages/templates/src/${path.replace('/bench-pictures/', '')}`;
    if (path.startsWith('/bench-pictures/')) {
      if (existsSync(asset)) return response.end(readFileSync(asset));
      // Vector pictures are drawn by the page in the app; a worker alone gets them drawn.
      const image = await loadImage(asset.replace(/\.png$/, '.svg'));
      const canvas = createCanvas(2048, 2048);
      canvas.getContext('2d').drawImage(image, 0, 0, 2048, 2048);
      return response.end(await canvas.encode('png'));
    }
    const file = `${root}apps/studio/public${path}`;
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
await page.goto(bench.address);

const inWorker = async (what) => {
  const answer = await page.evaluate(
    (name) =>
      new Promise((resolve) => {
        const worker = new Worker('/bench.js');
        worker.onmessage = ({ data }) => {
          worker.terminate();
          resolve(data);
        };
        worker.onerror = (event) => resolve({ fault: event.message });
        worker.postMessage(name);
      }),
    what,
  );
  if (answer.fault) throw new Error(answer.fault);
  return answer.value;
};

/** The app as built, with a worker that keeps the times of keys, documents and frames. */
async function inApp(path, act) {
  const app = createApp();
  const address = await app.listen({ port: 0, host: '127.0.0.1' });
  const tab = await browser.newPage();
  await tab.setViewport({ width: 1280, height: 800 });
  await tab.evaluateOnNewDocument(() => {
    const seen = { key: 0, asked: new Map(), latencies: [], frames: [] };
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
  await tab.goto(address.replace('127.0.0.1', 'localhost') + path);
  const value = await act(tab);
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
  const ratio = unit === 'ms' || unit === 's' || unit === 'frames' ? value / budget : budget / value;
  say(
    `${met ? 'met   ' : 'MISSED'}  ${id.padEnd(34)} ${value.toFixed(2).padStart(9)} ${unit.padEnd(8)} budget ${budget}, ${(ratio * 100).toFixed(0)}% of it used`,
  );
};

const { render, alone } = await inWorker('encode');
say(`        encoder alone ${alone.toFixed(1)} frames a second, whole render ${render.toFixed(1)}`);
row('render-name-strap-1080p-h264', render / alone, 'ratio', 0.8, render / alone >= 0.8);

for (const f of await inWorker('templates')) {
  row(`preview-${f.id}`, f.p95, 'ms', 33, f.p95 <= 33);
  row(`evaluate-${f.id}`, f.evaluateP95, 'ms', 4, f.evaluateP95 <= 4);
}
const [lines] = await inWorker('four-lines');
row('four-lines-per-letter', 1000 / lines.p95, 'fps', 30, 1000 / lines.p95 >= 30);

for (const f of await inWorker('kinds')) row(`motion-${f.id}`, f.p95, 'ms', 33, f.p95 <= 33);
const blur = await inWorker('motion-blur');
say(
  `        a frame sharp ${blur.sharp.toFixed(1)} ms, as the mean of 8 moments ${blur.blurred.toFixed(1)} ms`,
);
// Eight moments may cost eight frames, and half as much again to add them up.
row('motion-blur-8-samples', blur.blurred / blur.sharp, 'frames', 12, blur.blurred / blur.sharp <= 12);

const latencies = await inApp('/reels/demo-strap', async (tab) => {
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

const first = await inApp('/templates', async (tab) => {
  await tab.waitForSelector('[data-testid="template-card-four-corners"]');
  await pause(2500);
  await tab.evaluate(() => {
    document.querySelector('[data-testid="template-card-four-corners"]').scrollIntoView({ block: 'center' });
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

await browser.close();
bench.server.close();
if (json) console.log(JSON.stringify(rows));
process.exit(0);
