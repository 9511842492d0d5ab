import type { FontAxis, HarfBuzz } from './harfbuzz';

/** What a font file says of itself. */
export interface FontFacts {
  readonly family: string;
  /** 1 to 1000; 400 when the file does not say. */
  readonly weight: number;
  /** Axes of a variable font, by tag. */
  readonly axes: Readonly<Record<string, FontAxis>>;
  /** How many characters it has. */
  readonly letters: number;
}

/** Name ids of OpenType's `name` table: the typographic family, and the older family name. */
const TYPOGRAPHIC_FAMILY = 16;
const FAMILY = 1;
/** Place of `usWeightClass` in the `OS/2` table. */
const WEIGHT_CLASS = 4;

/** Whether every table that the directory names lies inside the file (OpenType 1.9, table directory). */
function isWhole(bytes: Uint8Array): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 12) return false;
  const count = view.getUint16(4);
  if (count === 0 || bytes.length < 12 + count * 16) return false;
  return Array.from({ length: count }, (_, i) => 12 + i * 16).every(
    (at) => view.getUint32(at + 8) + view.getUint32(at + 12) <= bytes.length,
  );
}

/**
 * Reads what a TrueType or OpenType file says of itself (OpenType 1.9: `name`, `OS/2`, `fvar`).
 * @throws {Error} when it is broken or has no letters
 */
export function readFontFacts(hb: HarfBuzz, bytes: Uint8Array, fileName: string): FontFacts {
  const tag = String.fromCharCode(...bytes.subarray(0, 4));
  if (!['\0\u0001\0\0', 'OTTO', 'true'].includes(tag)) {
    throw new Error(`"${fileName}" is not a font. Use a TTF, OTF or WOFF2 file.`);
  }
  if (!isWhole(bytes)) {
    throw new Error(
      `"${fileName}" is a damaged font: parts of it lie beyond its end. Fetch it again from where it came.`,
    );
  }
  const blob = hb.createBlob(bytes.slice().buffer as ArrayBuffer);
  const face = hb.createFace(blob, 0);
  try {
    const letters = face.collectUnicodes().length;
    const outlines = ['glyf', 'CFF ', 'CFF2'].some((t) => (face.reference_table(t)?.length ?? 0) > 0);
    if (letters === 0 || !outlines) {
      throw new Error(
        `"${fileName}" is a damaged font: it has no ${letters === 0 ? 'letters' : 'outlines'}. Fetch it again from where it came.`,
      );
    }
    const table = face.reference_table('OS/2');
    const weight = table && table.length > 5 ? (table[WEIGHT_CLASS]! << 8) | table[WEIGHT_CLASS + 1]! : 400;
    const named = (id: number) => face.getName(id, 'en').replaceAll('\0', '').trim();
    const stem = fileName.replace(/\.[^.]+$/, '');
    return {
      family: named(TYPOGRAPHIC_FAMILY) || named(FAMILY) || stem,
      weight: weight >= 1 && weight <= 1000 ? weight : 400,
      axes: face.getAxisInfos(),
      letters,
    };
  } finally {
    face.destroy();
    blob.destroy();
  }
}

/** Place of `fsType` in the `OS/2` table, and its bits that forbid what a package does. */
const FS_TYPE = 8;
const RESTRICTED = 0x0002;
const BITMAPS_ONLY = 0x0200;

/** Whether a font's licence bits let it go along in a file (OpenType 1.9, `OS/2`, fsType); one that does not say may. */
export function mayEmbed(bytes: Uint8Array): boolean {
  if (!isWhole(bytes)) return false;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let i = 0; i < view.getUint16(4); i++) {
    const at = 12 + i * 16;
    if (String.fromCharCode(...bytes.subarray(at, at + 4)) !== 'OS/2') continue;
    if (view.getUint32(at + 12) < FS_TYPE + 2) return true;
    const bits = view.getUint16(view.getUint32(at + 8) + FS_TYPE);
    return (bits & (RESTRICTED | BITMAPS_ONLY)) === 0;
  }
  return true;
}
