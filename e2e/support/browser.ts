import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Browser, type LaunchOptions, type Page } from 'puppeteer-core';
import { createApp } from '../../apps/server/src/app';
import { RenderDesk } from '../../apps/server/src/renders/desk';
import { LocalCrew } from '../../apps/server/src/renders/localCrew';
import { Metrics } from '../../apps/server/src/renders/metrics';
import { putEntry } from './entries';

/** Milliseconds after which something hangs: a busy machine takes its time, and no test is about that. */
export const HANGS = 120_000;

export const PHONE = { width: 390, height: 844, isMobile: true, hasTouch: true };
export const LAPTOP = { width: 1280, height: 800 };

/** Starts Chromium as it is on this machine, without a screen. @param args more than all need */
export function chromium({ args = [], ...more }: LaunchOptions): Promise<Browser> {
  const executablePath = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'].find(
    existsSync,
  );
  return puppeteer.launch({
    ...(executablePath ? { executablePath } : {}),
    headless: true,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      ...args,
    ],
    ...more,
  });
}

/** A name of this machine for tests that browsers do not call secure. */
export const PLAIN = 'plain.test';

export function launch(userDataDir?: string): Promise<Browser> {
  return chromium({
    ...(userDataDir ? { userDataDir } : {}),
    protocolTimeout: 240_000,
    args: [
      // A page that is left is gone, and nothing of it holds the database.
      '--disable-back-forward-cache',
      // An address that browsers do not call secure, as one in a home network is.
      `--host-resolver-rules=MAP ${PLAIN} 127.0.0.1`,
    ],
  });
}

/** The app served and a browser on it, with downloads in a folder of their own. */
export class Session {
  /**
   * @param offline whether pages keep the app for times without a network
   * @param moving whether previews move by themselves, as they do unless the user asks the system for less motion: a
   * test that is about something else waits while they are painted
   */
  constructor(
    private readonly offline = false,
    private readonly moving = false,
  ) {}

  /** Errors pages reported: there should be none. */
  readonly faults: string[] = [];
  readonly downloads = mkdtempSync(join(tmpdir(), 'fresh-reel-'));

  app = createApp(undefined, { names: [PLAIN] });

  /** Has the server render, too. */
  async withRenders(): Promise<void> {
    const metrics = new Metrics();
    const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-desk-'));
    const crew = ({ folder: store }: { folder: string }) => new LocalCrew(store);
    const desk = await RenderDesk.open({ folder, crew, version: 'test', metrics });
    await this.app.close();
    this.app = createApp(undefined, { renders: { desk, metrics }, names: [PLAIN] });
    this.app.addHook('onClose', async () => rmSync(folder, { recursive: true, force: true }));
    desk.start();
  }
  browser!: Browser;
  address!: string;

  async start(): Promise<void> {
    this.address = (await this.app.listen({ port: 0, host: '127.0.0.1' })).replace('127.0.0.1', 'localhost');
    this.browser = await launch();
  }

  /** A browser of its own, which keeps what it has in a folder, so that it can be killed and started again. */
  another(folder: string): Promise<Browser> {
    return launch(folder);
  }

  /** Tells the app that the demo's files were put on the shelf before: taking them in is seconds of work. */
  async withoutDemoShelf(): Promise<void> {
    const page = await this.browser.newPage();
    await page.goto(`${this.address}/favicon.ico`);
    await putEntry(page, 'shelf-started', '1');
    await page.close();
  }

  async close(): Promise<void> {
    await this.browser.close();
    await this.app.close();
    rmSync(this.downloads, { recursive: true, force: true });
  }

  /** Tabs that tests are through with, which are in no place of the app. */
  private readonly idle: Page[] = [];
  /** Tabs that are in use, the last one in front. */
  private readonly open: Page[] = [];

  /**
   * A page of the app.
   * @param prepare does something to a tab of its own before the app is there; without it a tab may be one that a test
   * is through with: in that the app is there in two thirds of the time
   */
  async page(
    view: typeof LAPTOP | typeof PHONE,
    path = '/',
    prepare?: (page: Page) => Promise<void>,
  ): Promise<Page> {
    const page = (prepare ? undefined : this.idle.pop()) ?? (await this.tab());
    await page.setViewport({ isMobile: false, hasTouch: false, ...view, deviceScaleFactor: 1 });
    if (prepare) await prepare(page);
    else this.keepOnClose(page);
    this.open.push(page);
    await page.bringToFront();
    await page.goto(this.address + path);
    return page;
  }

  /** Has closing a tab leave the app and keep the tab. */
  private keepOnClose(page: Page): void {
    const close = Object.getPrototypeOf(page).close as Page['close'];
    page.close = async (...how) => {
      page.close = close;
      this.open.splice(this.open.indexOf(page), 1);
      try {
        await page.emulateCPUThrottling(null);
        await page.evaluate(() => {
          sessionStorage.clear();
          // A tab that is closed is not asked whether it may be.
          window.addEventListener('beforeunload', (event) => event.stopImmediatePropagation(), true);
        });
        await page.goto(`${this.address}/favicon.ico`);
        // As when a tab is really closed: one that lies behind another stands still.
        await this.open.findLast((other) => !other.isClosed())?.bringToFront();
        this.idle.push(page);
      } catch {
        // The server is gone, or the page is.
        await page.close(...how);
      }
    };
  }

  /** A new tab, in no place yet. */
  private async tab(): Promise<Page> {
    const page = await this.browser.newPage();
    page.on('pageerror', (error) => this.faults.push((error as Error).message));
    page.on('console', (message) => {
      if (message.type() === 'error' && !/favicon/.test(message.text()))
        this.faults.push(`${message.text()} ${message.location().url ?? ''}`.trim());
    });
    const cdp = await page.createCDPSession();
    await cdp.send('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: this.downloads });
    page.setDefaultTimeout(HANGS);
    if (!this.moving) await page.emulateMediaFeatures([{ name: 'prefers-reduced-motion', value: 'reduce' }]);
    // What lies behind transparent titles moves; pictures of the stage are of the title alone.
    await page.evaluateOnNewDocument(() => {
      document.addEventListener('DOMContentLoaded', () => {
        const style = document.createElement('style');
        style.textContent = 'video{visibility:hidden}';
        document.head.append(style);
      });
    });
    // Keeping the app for times without a network is seconds of work, and has tests of its own.
    if (!this.offline)
      await page.evaluateOnNewDocument(() =>
        Object.defineProperty(Navigator.prototype, 'serviceWorker', { value: undefined }),
      );
    return page;
  }

  /** Waits for a download to be whole and gives its path; the folder is emptied of it by the caller or at the end. */
  async downloaded(ending: string): Promise<string> {
    const found = () => readdirSync(this.downloads).find((f) => f.endsWith(ending));
    // What is being written has another name until it is whole, and its own may be taken already, by nothing.
    const isWhole = () => {
      const name = found();
      const onTheWay = readdirSync(this.downloads).some((f) => f.endsWith('.crdownload'));
      return name !== undefined && !onTheWay && statSync(join(this.downloads, name)).size > 0;
    };
    await until(isWhole, `A file ending in ${ending} was downloaded`);
    return join(this.downloads, found()!);
  }

  /** Takes what was downloaded, and makes room for the next. */
  async take(ending: string): Promise<Buffer> {
    const path = await this.downloaded(ending);
    const bytes = readFileSync(path);
    rmSync(path);
    return bytes;
  }
}

/**
 * A session for the tests of a file: it begins before them, and at the end no page may have complained.
 * @param demoShelf whether the app is to put the demo's files on the shelf
 * @param offline whether it is kept for times without a network
 * @param renders whether the server renders
 * @param moving whether previews move by themselves
 */
export function serve({ demoShelf = false, offline = false, renders = false, moving = false } = {}): Session {
  const session = new Session(offline, moving);
  beforeAll(async () => {
    if (renders) await session.withRenders();
    await session.start();
    if (!demoShelf) await session.withoutDemoShelf();
  });
  afterAll(async () => {
    await session.close();
    expect(session.faults).toEqual([]);
  });
  return session;
}

export const id = (testID: string) => `[data-testid="${testID}"]`;
export const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Waits until a page has drawn what it was told before. */
export const drawn = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        requestAnimationFrame(() => requestAnimationFrame(() => resolve()));
      }),
  );

/**
 * Waits until a page is at rest: for ten of its own frames in a row nothing of it came, went, changed, scrolled or moved,
 * and no picture that is seen is still being painted. That nothing happened is told by this.
 */
export const quiet = (page: Page) =>
  page.evaluate(
    (hangs) =>
      new Promise<void>((resolve, reject) => {
        const begun = performance.now();
        let still = 0;
        const moved = () => {
          still = 0;
        };
        const observer = new MutationObserver(moved);
        observer.observe(document, { subtree: true, childList: true, attributes: true, characterData: true });
        document.addEventListener('scroll', moved, true);
        const end = (settle: () => void) => {
          observer.disconnect();
          document.removeEventListener('scroll', moved, true);
          settle();
        };
        const isSeen = (element: Element) => element.getBoundingClientRect().width > 0;
        const step = () => {
          const busy = [...document.querySelectorAll('[aria-busy="true"]')].filter(isSeen);
          const moving = document
            .getAnimations()
            .filter((a) => a.playState === 'running' && a.effect?.getComputedTiming().endTime !== Infinity);
          still = busy.length + moving.length > 0 ? 0 : still + 1;
          if (still > 10) end(resolve);
          else if (performance.now() - begun < hangs) requestAnimationFrame(step);
          else {
            const what = busy.map((e) => e.parentElement?.outerHTML.slice(0, 200)).join(', ');
            end(() => reject(new Error(`${location.pathname} is never at rest: ${what || 'it changes'}.`)));
          }
        };
        requestAnimationFrame(step);
      }),
    HANGS,
  );

/** Waits until something is so that a page cannot be told to wait for: files, entries of the store, what is seen. */
export async function until(holds: () => boolean | Promise<boolean>, what: string): Promise<void> {
  for (const end = Date.now() + HANGS; Date.now() < end; await pause(50)) if (await holds()) return;
  throw new Error(`${what}: that did not come to be.`);
}

/** Waits until an element stands still: what loads above it may push it down, what lies on the picture goes with it. */
export async function atRest(element: Element): Promise<void> {
  let last = '';
  for (let i = 0, same = 0; i < 60 && same < 3; i++) {
    await new Promise((resolve) => setTimeout(resolve, 16));
    const { x, y, width, height } = element.getBoundingClientRect();
    const now = `${x} ${y} ${width} ${height}`;
    same = now === last ? same + 1 : 0;
    last = now;
  }
}

/** What a page shows instead of what was waited for; a machine nobody watches can tell by it what went wrong. */
async function tell(page: Page, wanted: string, cause: unknown): Promise<never> {
  const told = await page
    // What is seen: not the words of scripts and styles.
    // biome-ignore lint/performance/useDomNodeTextContent: hidden words are not what is seen
    .evaluate(() => `${location.pathname}: ${document.body.innerText.replace(/\s+/g, ' ').slice(0, 600)}`)
    .catch((error: Error) => `nothing (${error.message})`);
  throw new Error(`${wanted} did not come. The page shows ${told}`, { cause });
}

/** Waits for something that can be used: what stands in a part that is about to be another one cannot. */
async function there(page: Page, testID: string, selector = id(testID)): Promise<void> {
  const ready = `${selector}:not([aria-busy="true"] *)`;
  await page.waitForSelector(ready).catch((cause: unknown) => tell(page, testID, cause));
}

export async function tap(page: Page, testID: string): Promise<void> {
  await there(page, testID);
  for (let tries = 1; ; tries++) {
    try {
      await page.$eval(id(testID), (e) => e.scrollIntoView({ block: 'center' }));
      await page.$eval(id(testID), atRest);
      await page.click(id(testID));
      return;
    } catch (error) {
      // A screen that is just being laid out moves under the finger; a person would try again.
      if (tries === 5) throw error;
      await drawn(page);
    }
  }
}

/** Waits until where something lies, or how large it is, is so many pixels. */
export async function waitForBox(
  page: Page,
  testID: string,
  side: 'x' | 'width',
  pixels: number,
  within = 0.5,
): Promise<void> {
  await page.waitForFunction(
    (selector: string, of: 'x' | 'width', wanted: number, off: number) =>
      Math.abs(document.querySelector(selector)!.getBoundingClientRect()[of] - wanted) < off,
    {},
    id(testID),
    side,
    pixels,
    within,
  );
}

export async function textOf(page: Page, testID: string): Promise<string> {
  await there(page, testID);
  return page.$eval(id(testID), (e) => e.textContent ?? '');
}

export async function fieldValue(page: Page, testID: string): Promise<string> {
  await there(page, testID);
  return page.$eval(id(testID), (e) => (e as HTMLInputElement).value);
}

/** Replaces what a field holds, once it takes typing. */
export async function fill(page: Page, testID: string, text: string): Promise<void> {
  await there(page, testID, `${id(testID)}:not([readonly])`);
  await tap(page, testID);
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  // A few words are typed key by key; more come at once, as they do when they are pasted or spoken.
  if (text.length <= 12) await page.keyboard.type(text);
  else await page.keyboard.sendCharacter(text);
}

export async function waitForText(page: Page, testID: string, pattern: RegExp | string): Promise<string> {
  const source = typeof pattern === 'string' ? pattern : pattern.source;
  await page
    .waitForFunction(
      (selector: string, re: string) =>
        new RegExp(re).test(document.querySelector(selector)?.textContent ?? ''),
      {},
      id(testID),
      source,
    )
    .catch((cause: unknown) => tell(page, `${testID} with ${source}`, cause));
  return textOf(page, testID);
}

/** Waits until a field holds something. */
export async function waitForValue(page: Page, testID: string, value: string): Promise<void> {
  await page.waitForFunction(
    (selector: string, wanted: string) =>
      document.querySelector<HTMLInputElement | HTMLTextAreaElement>(selector)?.value === wanted,
    {},
    id(testID),
    value,
  );
}

/** Gives files to the chooser that a tap opens. */
export async function choose(page: Page, testID: string, ...paths: readonly string[]): Promise<void> {
  const [chooser] = await Promise.all([page.waitForFileChooser(), tap(page, testID)]);
  await chooser.accept([...paths]);
}

/** Opens a reel or template file, looks at what is in it, and takes it in. @returns what is said to be in it */
export async function takeIn(page: Page, testID: string, path: string): Promise<string> {
  await choose(page, testID, path);
  const what = `${await textOf(page, 'open-what')} ${await textOf(page, 'open-brings')}`;
  await tap(page, 'open-take');
  return what;
}

/** A PNG of an element as it is seen, as base64: for comparing before and after. */
export async function look(page: Page, testID: string): Promise<string> {
  const element = await page.waitForSelector(id(testID));
  return element!.screenshot({ encoding: 'base64', optimizeForSpeed: true, captureBeyondViewport: false });
}

/** Waits until an element looks different from before. */
export async function waitForChange(page: Page, testID: string, before: string): Promise<string> {
  let now = before;
  await until(async () => {
    now = await look(page, testID);
    return now !== before;
  }, `${testID} changed`);
  return now;
}

/** What an element looks like once the page is at rest. */
export async function lookAtRest(page: Page, testID: string): Promise<string> {
  let now = '';
  await until(async () => {
    await quiet(page);
    const before = now;
    now = await look(page, testID);
    // What a worker has painted is on the screen a moment after it says so.
    return now === before;
  }, `${testID} is at rest`);
  return now;
}

/** Waits until everything is written, as the header says. */
export async function saved(page: Page): Promise<void> {
  await drawn(page);
  await waitForText(page, 'save-state', /^saved$/);
}

/** Renders in the Render step and waits for the end. @returns what the finished row says */
export async function renderNow(page: Page, format: string, size: string, rate?: string): Promise<string> {
  await tap(page, 'step-render');
  await tap(page, `output-format-${format}`);
  await tap(page, `output-size-${size}`);
  if (rate) await tap(page, `output-rate-${rate.replaceAll('/', '\\/')}`);
  await page.waitForFunction(
    (s: string) => document.querySelector(s)?.getAttribute('aria-disabled') !== 'true',
    {},
    id('render-start'),
  );
  await tap(page, 'render-start');
  await page.waitForSelector(id('render-done'), { timeout: 2 * HANGS });
  return textOf(page, 'render-done');
}
