import { writeFile } from 'node:fs/promises';
import {
  EMPTY_FILL,
  FRAMES,
  type GraphicScene,
  layoutFrame,
  type Surface,
  type Template,
} from '@fresh-reel/core';
import { createNodeSurface, type NodeStudio, pngOf } from '@fresh-reel/node-host';

/** Pixels between the pictures of a sheet. */
const GAP = 8;

export interface Size {
  readonly width: number;
  readonly height: number;
}

/** The size of a picture of a frame that is so many pixels wide. */
export const sizeAt = (width: number, frame: Size): Size => ({
  width: Math.round(width),
  height: Math.round((width * frame.height) / frame.width),
});

/** A frame of a scene as a picture of its own, with whatever clips show decoded. */
export async function pictureOf(
  studio: NodeStudio,
  scene: GraphicScene,
  time: number,
  size: Size,
): Promise<Surface> {
  const frame = scene.evaluate(time);
  await studio.framesReady([frame.ops]);
  return studio.paint(frame, layoutFrame(scene.frame), size);
}

/** A template's still as it comes, so many pixels wide. */
export async function stillOf(
  studio: NodeStudio,
  template: Template,
  width: number,
  shape = template.shape,
): Promise<Surface> {
  const scene = await studio.scene(template, EMPTY_FILL, FRAMES[shape]);
  return pictureOf(studio, scene, scene.timeOf(template.still), sizeAt(width, FRAMES[shape]));
}

/** Rows of pictures on grey, each row as high as its highest; what is behind a picture shows through it. */
export async function writeSheet(
  rows: readonly (readonly Surface[])[],
  path: string,
  behind: (context: Surface['context'], row: number, column: number) => void = () => {},
): Promise<void> {
  const widthOf = (row: readonly Surface[]) => row.reduce((sum, { canvas }) => sum + canvas.width + GAP, GAP);
  const heightOf = (row: readonly Surface[]) => Math.max(0, ...row.map(({ canvas }) => canvas.height)) + GAP;
  const sheet = createNodeSurface(
    Math.max(...rows.map(widthOf)),
    rows.reduce((sum, row) => sum + heightOf(row), GAP),
  );
  const { context } = sheet;
  context.fillStyle = '#8A9299';
  context.fillRect(0, 0, sheet.canvas.width, sheet.canvas.height);
  let y = GAP;
  for (const [r, row] of rows.entries()) {
    let x = GAP;
    for (const [c, { canvas }] of row.entries()) {
      context.save();
      context.beginPath();
      context.rect(x, y, canvas.width, canvas.height);
      context.clip();
      context.setTransform(canvas.width, 0, 0, canvas.height, x, y);
      behind(context, r, c);
      context.restore();
      context.drawImage(canvas, x, y);
      x += canvas.width + GAP;
    }
    y += heightOf(row);
  }
  await writeFile(path, await pngOf(sheet));
}
