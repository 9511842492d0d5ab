/** The icons of the installed app. */
import { writeFileSync } from 'node:fs';
import { createCanvas } from '@napi-rs/canvas';

/** Paints the icons that the manifest names, into a folder. */
export function writeIcons(folder) {
  writeFileSync(`${folder}/kite-192.png`, icon(192, false));
  writeFileSync(`${folder}/kite-512.png`, icon(512, false));
  writeFileSync(`${folder}/kite-whole-512.png`, icon(512, true));
}

/**
 * The kite. @param whole whether its ground fills the square, for systems that cut a shape of their own out of it: what
 * is drawn then stays in the middle four fifths (W3C Web App Manifest, maskable icons)
 */
function icon(size, whole) {
  const canvas = createCanvas(size, size);
  const c = canvas.getContext('2d');
  c.scale(size / 64, size / 64);
  c.fillStyle = '#1F5C43';
  if (whole) c.fillRect(0, 0, 64, 64);
  else {
    c.beginPath();
    c.arc(32, 32, 32, 0, Math.PI * 2);
    c.fill();
  }
  c.translate(32, 32);
  if (whole) c.scale(0.8, 0.8);
  const quarter = (colour, x, y, cross) => {
    c.fillStyle = colour;
    c.beginPath();
    c.moveTo(0, y);
    c.lineTo(x, cross);
    c.lineTo(0, cross);
    c.fill();
  };
  quarter('#F28C38', -14, -24, -6);
  quarter('#F6A552', 14, -24, -6);
  quarter('#D9592B', -14, 14, -6);
  quarter('#E8703A', 14, 14, -6);
  c.strokeStyle = '#F6D9A8';
  c.lineWidth = 1.4;
  c.beginPath();
  c.moveTo(0, 14);
  c.quadraticCurveTo(5, 18, 1, 22);
  c.quadraticCurveTo(-2, 25, 2, 28);
  c.stroke();
  for (const [x, y] of [
    [2.5, 18.5],
    [0.5, 24],
  ]) {
    c.fillStyle = '#F28C38';
    c.beginPath();
    c.moveTo(x - 3, y - 2);
    c.lineTo(x + 3, y + 2);
    c.lineTo(x + 3, y - 2);
    c.lineTo(x - 3, y + 2);
    c.fill();
  }
  return canvas.toBuffer('image/png');
}
