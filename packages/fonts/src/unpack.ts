import decompress from 'woff2-encoder/decompress';

const tagOf = (bytes: Uint8Array) => String.fromCharCode(...bytes.subarray(0, 4));

/**
 * A font file as TrueType or OpenType. WOFF2 (W3C, WOFF File Format 2.0) is unpacked; others are given back as they are.
 * @throws {Error} when a WOFF2 file is broken, or when it is the older WOFF.
 */
export async function unpackFont(bytes: Uint8Array): Promise<Uint8Array> {
  const tag = tagOf(bytes);
  if (tag === 'wOFF') {
    throw new Error('This is a WOFF file of the first kind. Give its TTF, OTF or WOFF2 instead.');
  }
  if (tag !== 'wOF2') return bytes;
  let unpacked: Uint8Array;
  try {
    unpacked = await decompress(bytes);
  } catch {
    throw new Error('This WOFF2 file is broken: it does not unpack. Fetch it again from where it came.');
  }
  return unpacked;
}
