/** What a file is by its first bytes, whatever its name says. */
export type PictureType =
  | 'image/png'
  | 'image/jpeg'
  | 'image/webp'
  | 'image/gif'
  | 'image/avif'
  | 'image/svg+xml';

export function sniffPicture(bytes: Uint8Array): PictureType | undefined {
  const text = (from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to));
  // PNG: ISO/IEC 15948 §5.2. JPEG: SOI and the next marker. WebP: RIFF container. GIF: its version. AVIF: ISO BMFF brand.
  if (text(0, 8) === '\x89PNG\r\n\x1a\n') return 'image/png';
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return 'image/jpeg';
  if (text(0, 4) === 'RIFF' && text(8, 12) === 'WEBP') return 'image/webp';
  if (/^GIF8[79]a/.test(text(0, 6))) return 'image/gif';
  if (text(4, 8) === 'ftyp' && /^avi[fs]/.test(text(8, 12))) return 'image/avif';
  const start = new TextDecoder().decode(bytes.subarray(0, 4096)).replace(/^\uFEFF/, '');
  return /^\s*(<\?xml[^>]*\?>\s*)?(<!--[\s\S]*?-->\s*|<!DOCTYPE[^>]*>\s*)*<svg[\s>]/i.test(start)
    ? 'image/svg+xml'
    : undefined;
}

/** Width and height from a PNG's header, before anything is decoded. */
export function pngSize(bytes: Uint8Array): { width: number; height: number } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return bytes.length >= 24
    ? { width: view.getUint32(16), height: view.getUint32(20) }
    : { width: 0, height: 0 };
}

/** What a file is, as far as its first bytes tell: pictures by their type, clips and sounds by their container. */
export function sniffMedia(bytes: Uint8Array): 'picture' | 'stream' | 'font' | 'zip' | undefined {
  if (sniffPicture(bytes)) return 'picture';
  const text = (from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to));
  // ISO BMFF and QuickTime; Matroska and WebM (EBML); WAVE; Ogg; FLAC; MP3 with tags or a bare frame; AAC in ADTS.
  if (/^(ftyp|moov|mdat|wide|free|skip)$/.test(text(4, 8))) return 'stream';
  if (text(0, 4) === '\x1a\x45\xdf\xa3') return 'stream';
  if (text(0, 4) === 'RIFF' && text(8, 12) === 'WAVE') return 'stream';
  if (/^(OggS|fLaC|ID3)/.test(text(0, 4))) return 'stream';
  if (bytes[0] === 0xff && (bytes[1]! & 0xe0) === 0xe0) return 'stream';
  if (/^(wOFF|wOF2|OTTO|true)$/.test(text(0, 4)) || text(0, 4) === '\0\x01\0\0') return 'font';
  // ZIP: the local file header it begins with (APPNOTE 4.3.7).
  if (text(0, 4) === 'PK\x03\x04') return 'zip';
  return undefined;
}
