/** What a first visit brings over the wire, and what a first start takes. */
import { execFileSync, spawn } from 'node:child_process';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import type { Browser, CDPSession, Page } from 'puppeteer-core';

const MEGA = 1e6;

/** A count of what comes over the wire into a tab and its workers, in bytes. */
async function counted(tab: Page) {
  let bytes = 0;
  let last = Date.now();
  const count = async (session: CDPSession) => {
    await session.send('Network.enable');
    session.on('Network.loadingFinished', ({ encodedDataLength }) => {
      bytes += encodedDataLength;
      last = Date.now();
    });
  };
  await count(await tab.createCDPSession());
  tab.on('workercreated', (worker) => void count(worker.client).catch(() => undefined));
  return {
    get megabytes() {
      return bytes / MEGA;
    },
    /** Waits until nothing has come for so long. */
    async quiet(milliseconds: number) {
      while (Date.now() - last < milliseconds) await new Promise((resolve) => setTimeout(resolve, 200));
    },
  };
}

/**
 * A first visit by phone, in a browser that has nothing.
 * @returns megabytes until the cards of Templates show, and after all that follows by itself; and those that the service
 * worker keeps, as they go over the wire
 */
export async function firstVisit(
  browser: Browser,
  address: string,
): Promise<{ cards: number; after: number }> {
  const context = await browser.createBrowserContext();
  const tab = await context.newPage();
  await tab.setViewport({ width: 390, height: 844, isMobile: true, hasTouch: true });
  // Without it, what follows by itself is told apart from what is kept for later.
  await tab.evaluateOnNewDocument(() =>
    Object.defineProperty(Navigator.prototype, 'serviceWorker', { value: undefined }),
  );
  const wire = await counted(tab);
  await tab.goto(`${address}/templates`);
  await tab.waitForSelector('[data-testid^="template-card-"] img');
  const cards = wire.megabytes;
  await wire.quiet(4000);
  const after = wire.megabytes;
  await context.close();
  return { cards, after };
}

/** Megabytes on the wire of what the service worker of a built site keeps from the first, and how many files. */
export function keptFromTheFirst(site: string): { megabytes: number; files: number } {
  const urls = [...readFileSync(`${site}/sw.js`, 'utf8').matchAll(/\{url:"([^"]+)",revision:/g)].map(
    ([, url]) => url,
  );
  const sizes = urls.map((url) => {
    try {
      return statSync(`${site}${url}.br`).size;
    } catch {
      return statSync(site + url).size;
    }
  });
  return { megabytes: sizes.reduce((sum, size) => sum + size, 0) / MEGA, files: urls.length };
}

/** Megabytes of script as built that workers use, each file once. */
export function scriptOfWorkers(site: string): number {
  const [name] = readdirSync(`${site}/app`);
  const folder = `${site}/app/${name}`;
  const seen = new Set<string>();
  const follow = (file: string) => {
    if (seen.has(file)) return;
    seen.add(file);
    const text = readFileSync(`${folder}/${file}`, 'utf8');
    for (const [, next] of text.matchAll(/(?:from|import\(?)\s*"\.\/([^"]+\.js)"/g)) follow(next!);
  };
  for (const worker of [
    'follow',
    'import',
    'mix',
    'paint',
    'preview',
    'proxies',
    'render',
    'strips',
    'suggest',
    'survey',
    'unpack',
  ])
    follow(`${worker}.js`);
  return [...seen].reduce((sum, file) => sum + statSync(`${folder}/${file}`).size, 0) / MEGA;
}

/** Seconds of all processors, of a program and of all that it starts, as the shell's `times` tells them. */
export function processorSeconds(root: string, ...args: string[]): number {
  const told = execFileSync('sh', ['-c', '"$@" >/dev/null 2>&1; times', 'sh', process.execPath, ...args], {
    cwd: root,
    encoding: 'utf8',
  });
  const [user, system] = told.trim().split('\n').at(-1)!.split(/\s+/);
  const seconds = (text: string) => {
    const [, minutes, rest] = /(\d+)m([\d.]+)s/.exec(text)!;
    return Number(minutes) * 60 + Number(rest);
  };
  return seconds(user!) + seconds(system!);
}

/** Seconds until a start prints its address. */
export function untilAddress(root: string, data: string): Promise<number> {
  const begun = performance.now();
  const child = spawn(process.execPath, ['scripts/start.mjs', '--port', '4177', '--data', data], {
    cwd: root,
  });
  return new Promise((resolve, reject) => {
    child.stdout.on('data', (bytes) => {
      if (!bytes.toString().includes('running at')) return;
      resolve((performance.now() - begun) / 1000);
      child.kill();
    });
    child.on('exit', () => reject(new Error('It ended before it printed its address.')));
  });
}
