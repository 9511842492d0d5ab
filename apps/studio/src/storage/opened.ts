import { DocumentError, type DocumentKind, openDocument, parseJson } from '@fresh-reel/core';

/** A stored text as a document; nothing of one that is not there or does not open any more, which stays as it is. */
export function openedText<T>(kind: DocumentKind<T>, text: string | null): T | undefined {
  try {
    return text === null ? undefined : openDocument(kind, parseJson(text, kind.title));
  } catch (error) {
    if (error instanceof DocumentError) return undefined;
    throw error;
  }
}
