import { EMPTY_FILL } from '../documents/fill';
import { addTitle } from '../edit/newItems';
import { emptyReel } from '../edit/reel';
import { documentOnly } from '../evaluate/documentOnly';
import { templateOf, textLayer, textSlot } from '../testing/studio';
import { FRAMES } from '../values/frame';
import { SHEET, sheetEntries, sheetLayout } from './contactSheet';

it('a contact sheet shows each title where it is best seen, with its place and words', () => {
  const template = templateOf([textLayer('t')], { slots: [textSlot('t', 'Marram')] });
  const made = emptyReel({
    ...{ id: 'r', name: 'Kites', now: '', frame: FRAMES.wide },
    rate: { num: 25, den: 1 },
  });
  const later = addTitle(made, template, 250, { ...EMPTY_FILL, slots: { t: 'Hill\nTown' } }).reel;
  const reel = addTitle(later, template, 25).reel;
  expect(sheetEntries(reel, documentOnly(), { start: 90_000, ending: 'mov' })).toEqual([
    {
      ...{ name: 'Test', words: ['Marram'], from: '01:00:01:00', to: '01:00:04:00', frame: 50 },
      file: expect.stringMatching(/\.mov$/),
    },
    {
      ...{ name: 'Test', words: ['Hill', 'Town'], from: '01:00:10:00', to: '01:00:13:00', frame: 275 },
      file: expect.stringMatching(/\.mov$/),
    },
  ]);
});

it.each(Object.entries(FRAMES))(
  'six or more pictures of %s frames lie on a page, and none leaves it',
  (_, frame) => {
    const { columns, rows, width, height } = sheetLayout(frame);
    expect(columns * rows).toBeGreaterThanOrEqual(6);
    expect(columns * width + (columns - 1) * SHEET.gap).toBeLessThanOrEqual(
      SHEET.width - 2 * SHEET.margin + 1e-9,
    );
    expect(rows * (height + SHEET.words) + (rows - 1) * SHEET.gap).toBeLessThanOrEqual(
      SHEET.height - 2 * SHEET.margin - SHEET.head + 1e-9,
    );
    expect(height / width).toBeCloseTo(frame.height / frame.width, 6);
  },
);
