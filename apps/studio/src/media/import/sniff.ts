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
  // MPEG transport stream: packets of 188 bytes, each with a sync byte (ISO/IEC 13818-1, 2.4.3.2).
  if (bytes[0] === 0x47 && bytes[188] === 0x47 && bytes[376] === 0x47) return 'stream';
  if (bytes[0] === 0xff && (bytes[1]! & 0xe0) === 0xe0) return 'stream';
  if (/^(wOFF|wOF2|OTTO|true)$/.test(text(0, 4)) || text(0, 4) === '\0\x01\0\0') return 'font';
  // ZIP: the local file header it begins with (APPNOTE 4.3.7).
  if (text(0, 4) === 'PK\x03\x04') return 'zip';
  return undefined;
}

const TO_MP4 = 'Convert it to H.264 in MP4.';
const TO_MP4_OR_WAV = 'Convert it to H.264 in MP4, or its sound to WAV.';
const TO_PNG = 'Export it as PNG.';
const UNPACK = 'Unpack it, and add what is in it.';

/** Files that people have and browsers cannot use: where their sign lies, what it can be, what each is, what to do. */
const FOREIGN: readonly (readonly [at: number, signs: readonly string[], what: string, advice: string])[] = [
  [0, ['\0\0\x01\xba'], 'an MPEG-1 or MPEG-2 programme stream', TO_MP4],
  [0, ['\0\0\x01\xb3'], 'MPEG-1 or MPEG-2 video', TO_MP4],
  [8, ['AVI '], 'an AVI', TO_MP4],
  [0, ['\x30\x26\xb2\x75'], 'Windows Media', TO_MP4_OR_WAV],
  [0, ['FLV\x01'], 'Flash video', TO_MP4],
  [0, ['\x06\x0e\x2b\x34'], 'an MXF', TO_MP4],
  [
    8,
    ['heic', 'heix', 'hevc', 'hevx', 'heim', 'heis', 'mif1', 'msf1'],
    'a HEIF picture',
    'Export it as JPEG or PNG.',
  ],
  [0, ['II*\0', 'MM\0*'], 'a TIFF or camera raw picture', 'Export it as PNG or JPEG.'],
  [0, ['8BPS'], 'a layered picture (PSD)', 'Export it as PNG, which keeps what is transparent.'],
  [0, ['BM'], 'a BMP', TO_PNG],
  [0, ['SDPX', 'XPDS'], 'a DPX frame', TO_PNG],
  [0, ['\x76\x2f\x31\x01'], 'an OpenEXR frame', TO_PNG],
  [8, ['AIFF', 'AIFC'], 'an AIFF', 'Convert it to WAV or FLAC.'],
  [0, ['%PDF', '%!PS'], 'a PDF or PostScript document', 'Export its picture as SVG or PNG.'],
  [0, ['\x1f\x8b'], 'a compressed file (gzip)', UNPACK],
  [0, ['Rar!'], 'a RAR', UNPACK],
  [0, ['7z\xbc\xaf'], 'a 7z', UNPACK],
];

/** What a file is that the app cannot use, what to do, and whether it is footage; nothing of one that is not known. */
export function foreignFile(
  bytes: Uint8Array,
): { what: string; advice: string; footage: boolean } | undefined {
  const start = String.fromCharCode(...bytes.subarray(0, 16));
  const found = FOREIGN.find(([at, signs]) => signs.some((sign) => start.startsWith(sign, at)));
  return (
    found && { what: found[2], advice: found[3], footage: found[3] === TO_MP4 || found[3] === TO_MP4_OR_WAV }
  );
}
