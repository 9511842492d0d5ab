import { type Reel, SHEET, type SheetEntry, sheetEntries, sheetLayout } from '@fresh-reel/core';
import { DOCUMENT_ONLY } from '../../engine/documentOnly';
import { stillsOf } from '../../render/measure/stills';
import { colour, family } from '../../ui/theme';

/** Pixels to an inch: sharp enough on paper, small enough to send. */
const PER_INCH = 150;
/** Points to an inch, as a PDF measures. */
const POINTS = 72;

/** Sizes of letters, in inches. */
const LETTERS = { title: 0.24, name: 0.13, words: 0.12, times: 0.11 } as const;

/**
 * A contact sheet of a reel's titles: A4 pages with a picture of each, its name, its place and its words.
 * @param ending of the files that the titles are rendered to
 * @returns one PDF, or a PNG of all pages below each other
 * @throws {Error} when a title cannot be painted
 */
export async function contactSheet(reel: Reel, kind: 'pdf' | 'png', ending: string): Promise<Blob> {
  const entries = sheetEntries(reel, DOCUMENT_ONLY, { ending });
  const { columns, rows, width, height } = sheetLayout(reel.frame);
  const size = { width: Math.round(width * PER_INCH), height: Math.round(height * PER_INCH) };
  const [pictures] = await Promise.all([
    stillsOf(
      reel,
      size,
      entries.map((e) => e.frame),
    ),
    ...Object.values(family).map((name) => document.fonts.load(`16px "${name}"`)),
  ]);
  const each = columns * rows;
  const count = Math.max(1, Math.ceil(entries.length / each));
  const pages = Array.from({ length: count }, (_, n) => {
    const page = new OffscreenCanvas(Math.round(SHEET.width * PER_INCH), Math.round(SHEET.height * PER_INCH));
    const context = page.getContext('2d')!;
    context.scale(PER_INCH, PER_INCH);
    context.fillStyle = colour.card;
    context.fillRect(0, 0, SHEET.width, SHEET.height);
    drawHead(context, reel, entries.length, n + 1, count);
    entries.slice(n * each, (n + 1) * each).forEach((entry, i) => {
      const x = SHEET.margin + (i % columns) * (width + SHEET.gap);
      const y = SHEET.margin + SHEET.head + Math.floor(i / columns) * (height + SHEET.words + SHEET.gap);
      drawEntry(context, entry, pictures[n * each + i]!, { x, y, width, height });
    });
    return page;
  });
  for (const picture of pictures) picture.close();
  return kind === 'pdf' ? pdfOf(pages) : pngOf(pages);
}

type Context = OffscreenCanvasRenderingContext2D;

function write(
  context: Context,
  text: string,
  at: { x: number; y: number; width: number },
  letters: { size: number; font: string; tint: string },
): void {
  context.font = `${letters.size}px "${letters.font}", sans-serif`;
  context.fillStyle = letters.tint;
  context.textBaseline = 'top';
  let shown = text;
  while (shown.length > 1 && context.measureText(shown).width > at.width)
    shown = `${shown.slice(0, -2).trimEnd()}…`;
  context.fillText(shown, at.x, at.y);
}

function drawHead(context: Context, reel: Reel, titles: number, page: number, pages: number): void {
  const at = { x: SHEET.margin, y: SHEET.margin, width: SHEET.width - 2 * SHEET.margin - 2 };
  write(context, reel.name, at, { size: LETTERS.title, font: family.heading, tint: colour.ink });
  const facts = `${titles} ${titles === 1 ? 'title' : 'titles'}${pages > 1 ? `, page ${page} of ${pages}` : ''}`;
  context.textAlign = 'right';
  write(
    context,
    facts,
    { x: SHEET.width - SHEET.margin, y: SHEET.margin + 0.08, width: 2 },
    { size: LETTERS.name, font: family.text, tint: colour.quiet },
  );
  context.textAlign = 'left';
}

function drawEntry(
  context: Context,
  { name, words, from, to }: SheetEntry,
  picture: ImageBitmap,
  { x, y, width, height }: { x: number; y: number; width: number; height: number },
): void {
  context.fillStyle = colour.surround;
  context.fillRect(x, y, width, height);
  context.drawImage(picture, x, y, width, height);
  const below = (inches: number) => ({ x, y: y + height + inches, width });
  write(context, name, below(0.06), { size: LETTERS.name, font: family.medium, tint: colour.ink });
  write(context, words.join(' / '), below(0.25), {
    ...{ size: LETTERS.words, font: family.text, tint: colour.ink },
  });
  write(context, `${from} to ${to}`, below(0.43), {
    ...{ size: LETTERS.times, font: family.text, tint: colour.quiet },
  });
}

async function pdfOf(pages: readonly OffscreenCanvas[]): Promise<Blob> {
  // What writes PDFs is loaded when one is asked for.
  const { PDFDocument } = await import('pdf-lib');
  const made = await PDFDocument.create();
  for (const page of pages) {
    const jpeg = await page.convertToBlob({ type: 'image/jpeg', quality: 0.92 });
    const image = await made.embedJpg(await jpeg.arrayBuffer());
    const [width, height] = [SHEET.width * POINTS, SHEET.height * POINTS];
    made.addPage([width, height]).drawImage(image, { x: 0, y: 0, width, height });
  }
  return new Blob([(await made.save()) as BlobPart], { type: 'application/pdf' });
}

function pngOf(pages: readonly OffscreenCanvas[]): Promise<Blob> {
  const [{ width, height } = { width: 1, height: 1 }] = pages;
  const all = new OffscreenCanvas(width, height * pages.length);
  const context = all.getContext('2d')!;
  for (const [i, page] of pages.entries()) context.drawImage(page, 0, i * height);
  return all.convertToBlob({ type: 'image/png' });
}
