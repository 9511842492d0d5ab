import { type DocumentKind, faultText } from '@fresh-reel/core';
import { StorageError } from './store';

/** What is said of a document that was not written. @param reason a sentence */
export function refused<T>({ title }: DocumentKind<T>, reason: string): StorageError {
  return new StorageError(
    `This ${title} could not be saved. ${reason} What was saved before is safe; take back your last step.`,
    false,
  );
}

/** A document as it is written. @throws {StorageError} saying why it would not open again */
export function checkedText<T>(kind: DocumentKind<T>, document: T): string {
  const read = kind.schema.safeParse(document);
  if (!read.success)
    throw refused(kind, `It would not open again (${faultText(read.error).replace(/\.$/, '')}).`);
  return JSON.stringify(document);
}
