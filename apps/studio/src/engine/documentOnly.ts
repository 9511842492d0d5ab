import { documentOnly } from '@fresh-reel/core';

/** Resources for scenes on the page, which never sets or paints anything. */
export const DOCUMENT_ONLY = documentOnly();
