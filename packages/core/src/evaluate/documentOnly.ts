import { Memo } from '../memo';
import { LayoutCache } from '../text/cache';
import type { Resources } from './graphicScene';

/**
 * Resources for scenes that are asked about times, controls and names alone. They set and paint nothing, so there are
 * no fonts and no pictures.
 */
export const documentOnly = (): Resources => ({
  layouts: new LayoutCache({ version: 0 } as never),
  memo: new Memo(),
  mediaFacts: () => undefined,
});
