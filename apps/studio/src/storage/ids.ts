/** An id nobody else has made (UUID version 4, RFC 9562); also at addresses where browsers offer none. */
export function newId(): string {
  if (crypto.randomUUID) return crypto.randomUUID();
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = (bytes[6]! & 0x0f) | 0x40;
  bytes[8] = (bytes[8]! & 0x3f) | 0x80;
  const hex = [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('');
  return [8, 12, 16, 20, 32].map((end, i, ends) => hex.slice(ends[i - 1] ?? 0, end)).join('-');
}
