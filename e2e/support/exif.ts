import { createCanvas } from '@napi-rs/canvas';

/**
 * Where the first row and the first column of the stored picture are seen, by tag 274 (orientation) of Exif 2.32,
 * values 1 to 8.
 */
const SEEN: readonly (readonly [row: string, column: string])[] = [
  ['top', 'left'],
  ['top', 'right'],
  ['bottom', 'right'],
  ['bottom', 'left'],
  ['left', 'top'],
  ['right', 'top'],
  ['right', 'bottom'],
  ['left', 'bottom'],
];
const OPPOSITE: Readonly<Record<string, string>> = {
  top: 'bottom',
  bottom: 'top',
  left: 'right',
  right: 'left',
};

/** Colours of the stored picture's corners: first row, then last; first column, then last. */
const STORED = ['red', 'green', 'blue', 'yellow'] as const;
const FILLS = ['rgb(200,30,30)', 'rgb(30,160,60)', 'rgb(30,60,200)', 'rgb(230,200,40)'];

/** Colours of the corners as they are seen upright, for each orientation: top left, top right, bottom left, bottom right. */
export const UPRIGHT = SEEN.map(([row, column]) => {
  const corners: Record<string, string> = {};
  for (const [i, colour] of STORED.entries()) {
    const sides = [i < 2 ? row : OPPOSITE[row]!, i % 2 === 0 ? column : OPPOSITE[column]!];
    corners[sides.sort().join(' ')] = colour;
  }
  return ['left top', 'right top', 'bottom left', 'bottom right'].map((c) => corners[c]!);
});

/** A JPEG of four coloured quarters that says how its camera was held. */
export function exifJpeg(orientation: number): Buffer {
  const canvas = createCanvas(320, 240);
  const context = canvas.getContext('2d');
  for (const [i, fill] of FILLS.entries()) {
    context.fillStyle = fill;
    context.fillRect((i % 2) * 160, i < 2 ? 0 : 120, 160, 120);
  }
  const jpeg = canvas.toBuffer('image/jpeg', 92);
  // APP1 with a TIFF of one entry: little-endian, tag 0x0112, SHORT, one value (TIFF 6.0 §2).
  const tiff = Buffer.from('49492a00080000000100120103000100000000000000000000000000', 'hex');
  tiff.writeUInt16LE(orientation, 18);
  const body = Buffer.concat([Buffer.from('Exif\0\0', 'latin1'), tiff]);
  const head = Buffer.from([0xff, 0xe1, 0, 0]);
  head.writeUInt16BE(body.length + 2, 2);
  return Buffer.concat([jpeg.subarray(0, 2), head, body, jpeg.subarray(2)]);
}
