import type { Page } from 'puppeteer-core';

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
