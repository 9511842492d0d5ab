import type { Browser, Page } from 'puppeteer-core';
import { createApp } from '../../apps/server/src/app';
import { id, pause } from '../../e2e/support/browser';

/** What a page keeps of its workers' pictures, while it is measured. */
interface Seen {
  /** When a key was pressed last. */
  key: number;
  /** The surface whose answers to keys are timed. */
  main?: string;
  /** Surfaces that were there before. */
  before: Set<string>;
  tapped: number;
  readonly asked: Map<string, number>;
  /** Milliseconds from a key to the picture with it. */
  readonly latencies: number[];
  /** Surface, frame and time of each picture, since they were thrown away last. */
  readonly frames: [surface: string, number: number, time: number][];
  /** Pictures of each surface. */
  counts(): number[];
}

declare global {
  interface Window {
    seen: Seen;
    pace: { frames: number; begun: number; going: boolean };
    saved: Promise<void>;
  }
}

/** A screen in pixels. */
export interface View {
  readonly width: number;
  readonly height: number;
}
export const LAPTOP: View = { width: 1280, height: 800 };
export const WIDE: View = { width: 1600, height: 900 };
export const PHONE: View = { width: 390, height: 844 };

/** The app as built, in a tab that keeps the times of keys, documents and frames. @param go opens the place */
export async function inApp<T>(
  browser: Browser,
  path: string,
  act: (tab: Page, go: () => Promise<unknown>) => Promise<T>,
  view: View = LAPTOP,
): Promise<T> {
  const app = createApp();
  const address = await app.listen({ port: 0, host: '127.0.0.1' });
  const tab = await browser.newPage();
  await tab.setViewport(view);
  // What runs TypeScript here marks functions with their names by this, also those that are handed to the page.
  await tab.evaluateOnNewDocument('globalThis.__name = (what) => what');
  await tab.evaluateOnNewDocument(() => {
    const seen: Seen = {
      key: 0,
      before: new Set(),
      tapped: 0,
      asked: new Map(),
      latencies: [],
      frames: [],
      counts() {
        const counts = new Map<string, number>();
        for (const [surface] of seen.frames) counts.set(surface, (counts.get(surface) ?? 0) + 1);
        return [...counts.values()];
      },
    };
    window.seen = seen;
    window.addEventListener(
      'keydown',
      () => {
        seen.key = performance.now();
      },
      true,
    );
    const Real = Worker;
    window.Worker = class extends Real {
      constructor(...args: ConstructorParameters<typeof Worker>) {
        super(...args);
        this.addEventListener('message', ({ data }) => {
          if (data.type !== 'frame') return;
          seen.frames.push([data.surface, data.frame.number, performance.now()]);
          const key = `${data.surface}/${data.frame.revision}`;
          const asked = seen.asked.get(key);
          if (asked === undefined) return;
          seen.latencies.push(performance.now() - asked);
          seen.asked.delete(key);
        });
      }
      override postMessage(
        message: { type: string; surface: string; revision: number },
        more?: unknown,
      ): void {
        if (message.type === 'show' && seen.key > 0 && message.surface === seen.main)
          seen.asked.set(`${message.surface}/${message.revision}`, seen.key);
        super.postMessage(message, more as Transferable[]);
      }
    };
  });
  const value = await act(tab, () => tab.goto(address.replace('127.0.0.1', 'localhost') + path));
  await tab.close();
  await app.close();
  return value;
}

/** Pictures a second of the surface that shows the most, while it plays. */
export async function shownWhilePlaying(tab: Page, milliseconds: number): Promise<number> {
  await tab.click(id('play'));
  await pause(1500);
  return tab.evaluate(async (ms) => {
    window.seen.frames.length = 0;
    const begun = performance.now();
    await new Promise((resolve) => setTimeout(resolve, ms));
    const seconds = (performance.now() - begun) / 1000;
    return Math.max(0, ...window.seen.counts()) / seconds;
  }, milliseconds);
}
