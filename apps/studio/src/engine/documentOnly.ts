import { LayoutCache, Memo, type Resources } from '@fresh-reel/core';

/**
 * Resources for scenes on the page, which are asked about times, controls and names alone: the page never sets or
 * paints anything, so it loads no fonts and decodes no pictures.
 */
export const DOCUMENT_ONLY: Resources = {
  layouts: new LayoutCache({ version: 0 } as never),
  memo: new Memo(),
  mediaFacts: () => undefined,
};
