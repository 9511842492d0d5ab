/**
 * Bytes of a text file as text: by its byte order mark, else as UTF-8 where it is valid, else as Windows-1252, in which
 * spreadsheets of western Europe still save (WHATWG Encoding names it the label of last resort). Line ends are "\n".
 * @returns nothing when it is no text: it has zero bytes, and no mark that says why
 */
export function decodeText(bytes: Uint8Array): string | undefined {
  const [a, b] = bytes;
  const marked = a === 0xff && b === 0xfe ? 'utf-16le' : a === 0xfe && b === 0xff ? 'utf-16be' : undefined;
  if (!marked && bytes.includes(0)) return undefined;
  return (marked ? new TextDecoder(marked).decode(bytes) : utf8Or1252(bytes))
    .replace(/^\uFEFF/, '')
    .replace(/\r\n?/g, '\n');
}

function utf8Or1252(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    // Bytes that no UTF-8 has.
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
