/** A clip or sound cannot be used; the message says why and what to do. */
export class MediaError extends Error {
  override readonly name = 'MediaError';
}
