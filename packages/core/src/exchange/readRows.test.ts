import { EMPTY_FILL } from '../documents/fill';
import type { Reel } from '../documents/reel';
import { addTitle } from '../edit/newItems';
import { emptyReel } from '../edit/reel';
import { frameOfText, matchReel, timesOfRows } from '../tables/reelTable';
import { TableError } from '../tables/table';
import { templateOf, textLayer, textSlot } from '../testing/studio';
import { editList } from './editList';
import { readRows } from './readRows';
import { subRipOf, webVttOf } from './subtitles';
import { timelineOf } from './timeline';

const template = templateOf([textLayer('name'), textLayer('role')], {
  slots: [textSlot('name', 'Ida'), textSlot('role', 'Pilot')],
});
const RATE = { num: 25, den: 1 };
/** Two titles, three seconds each, at 2 s and at 10 s. */
const reel = ((): Reel => {
  const made = emptyReel({
    id: 'r',
    name: 'Kites',
    now: '',
    frame: { width: 1920, height: 1080 },
    rate: RATE,
  });
  const one = addTitle(made, template, 50, { ...EMPTY_FILL, slots: { name: 'Ida & Åse', role: 'Pilots' } });
  return addTitle(one.reel, template, 250, { ...EMPTY_FILL, slots: { name: 'Bram', role: '' } }).reel;
})();

/** Where rows begin and end, in frames of the reel. */
const placed = (text: string) => {
  const table = readRows(text);
  const { times, hours } = timesOfRows(matchReel(table.columns, reel), table.rows, RATE);
  return { columns: table.columns, times, hours, words: table.rows.map((row) => row[2]) };
};
const WHERE = [
  { from: 50, to: 125 },
  { from: 250, to: 325 },
];

describe('what was written is read back', () => {
  it('from a timeline', () => {
    const read = placed(JSON.stringify(timelineOf(reel, { ending: 'mov' })));
    expect(read).toMatchObject({ times: WHERE, words: ['Ida & Åse Pilots', 'Bram'] });
    expect(read.columns).toEqual(['From', 'To', 'Words', 'Line 1', 'Line 2', 'File']);
  });

  it('from an edit list, whose first hour counts as the beginning', () => {
    expect(placed(editList(reel, { start: 90_000 }))).toMatchObject({ times: WHERE, hours: 1 });
    expect(placed(editList(reel))).toMatchObject({ times: WHERE, hours: 0, words: ['Test', 'Test'] });
  });

  it('from subtitles of both kinds', () => {
    for (const write of [webVttOf, subRipOf])
      expect(placed(write(reel))).toMatchObject({ times: WHERE, words: ['Ida & Åse Pilots', 'Bram'] });
  });
});

it('an edit list written by hand is read: sound left out, dissolves and drop-frame with it', () => {
  // By the published description of the 3600 form: event, reel, track, transition, source in and out, record in and out.
  const list = [
    'TITLE: KITES',
    'FCM: DROP FRAME',
    '',
    '001  TAPE01   V     C        00:00:10;00 00:00:12;00 01:00:00;00 01:00:02;00',
    '* FROM CLIP NAME: HILL.MOV',
    '002  TAPE01   A     C        00:00:10;00 00:00:12;00 01:00:00;00 01:00:02;00',
    '* COMMENT: WIND',
    '003  TAPE02   V     D    025 00:01:00;00 00:01:05;00 01:00:02;00 01:00:07;00',
    '',
  ].join('\r\n');
  const table = readRows(list);
  expect(table.rows).toEqual([
    ['01:00:00;00', '01:00:02;00', 'HILL.MOV'],
    ['01:00:02;00', '01:00:07;00', 'TAPE02'],
  ]);
  const rate = { num: 30000, den: 1001 };
  expect(timesOfRows([{ of: 'from' }, { of: 'to' }], table.rows, rate)).toEqual({
    hours: 1,
    times: [
      { from: 0, to: 60 },
      { from: 60, to: 210 },
    ],
  });
});

it('WebVTT with settings, tags, notes and hours left out is read (W3C WebVTT, 4.1)', () => {
  const { rows } = readRows(
    'WEBVTT - kites\n\nNOTE of the crew\n\nintro\n00:01.000 --> 00:02.500 line:0 align:start\n<v Ida>Here &amp; now</v>\n<i>two</i> lines\n',
  );
  expect(rows).toEqual([['00:01.000', '00:02.500', 'Here & now two lines', 'Here & now', 'two lines']]);
});

it('times are read as people write them', () => {
  const read = (text: string) => frameOfText(text, RATE);
  expect(['00:00:02:12', '0:02.48', '00:00:02,48', '2.48', '2,48 s', '1:00:00', '90'].map(read)).toEqual([
    62, 62, 62, 62, 62, 90_000, 2250,
  ]);
  for (const text of ['soon', '00:00:02:25', '1:2:3:4:5', '-1'])
    expect(() => read(text)).toThrow(/Write it as|past what/);
  expect(() => timesOfRows([{ of: 'from' }], [['1'], ['later']], RATE)).toThrow('Row 3: "later" is no time.');
});

it.each([
  ['{"OTIO_SCHEMA": "Clip.2"}', /no OpenTimelineIO timeline/],
  ['{"OTIO_SCHEMA": "Timeline.1", "tracks": {"children": []}}', /nothing with a time/],
  ['{ cut', /no OpenTimelineIO timeline/],
  ['WEBVTT\n\nNOTE nothing', /nothing with a time/],
  ['', /empty/],
])('%j is refused with a reason', (text, why) => {
  expect(() => readRows(text)).toThrow(TableError);
  expect(() => readRows(text)).toThrow(why);
});
