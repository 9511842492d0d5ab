import type { Page } from 'puppeteer-core';
import { id, quiet, waitForText } from './browser';

/** Where each item of the reel stands, as the list of Place says: when it begins, and how long it lasts. */
export async function itemTimes(page: Page): Promise<Record<string, string>> {
  return Object.fromEntries(
    await page.$$eval('[data-testid^="begins-"]', (fields) =>
      fields.map((f) => {
        const id = (f as HTMLElement).dataset.testid!.slice('begins-'.length);
        const lasts = document.querySelector(`[data-testid="lasts-${id}"]`) as HTMLInputElement;
        return [id, `${(f as HTMLInputElement).value} ${lasts.value}`] as const;
      }),
    ),
  );
}

/** Takes the playhead to a frame of a reel of 25 a second, by the keys of the line. */
export async function goTo(page: Page, frame: number): Promise<void> {
  await page.focus(id('line-seek'));
  await page.keyboard.press('Home');
  for (let i = 0; i < Math.floor(frame / 25); i++) await page.keyboard.press('PageDown');
  for (let i = 0; i < frame % 25; i++) await page.keyboard.press('ArrowRight');
  const [s, f] = [Math.floor(frame / 25), frame % 25].map((n) => String(n).padStart(2, '0'));
  await waitForText(page, 'timecode', `00:00:${s}:${f}`);
  await quiet(page);
}
