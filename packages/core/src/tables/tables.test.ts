import fc from 'fast-check';
import Papa from 'papaparse';
import { pictureSlot, templateOf, textLayer, textSlot } from '../testing/studio';
import { decodeText } from './decodeText';
import { matchColumns, rowFill, rowNames } from './rowFill';
import { MOST_ROWS, plainName, readTable, TableError } from './table';

const template = templateOf([textLayer('name'), textLayer('role')], {
  slots: [{ ...textSlot('name'), name: 'Full name' }, textSlot('role'), pictureSlot('logo')],
  controls: [
    { id: 'hold', kind: 'duration', name: 'Hold', default: 60, min: 30, max: 600 },
    { id: 'size', kind: 'number', name: 'Size', default: 60, min: 10, max: 200, step: 1 },
    { id: 'ink', kind: 'colour', name: 'Ink', default: '#FFFFFF' },
    { id: 'line', kind: 'switch', name: 'Line below', default: true },
    {
      id: 'side',
      kind: 'choice',
      name: 'Side',
      default: 'left',
      options: [
        { id: 'left', name: 'On the left' },
        { id: 'right', name: 'On the right' },
      ],
    },
    { id: 'at', kind: 'point', name: 'Place', default: [0.1, 0.8] },
  ],
  looks: [{ id: 'dusk', name: 'Dusk', controls: {} }],
});

const filled = (columns: string[], row: string[]) =>
  rowFill(template, matchColumns(columns, template), row, (file) => `file:${file}`);

describe('a table', () => {
  it('is what was written, whatever its separator, quotes and lines within cells', () => {
    const cell = fc.string({
      unit: fc.constantFrom('a', 'ß', '\u0635', '"', ',', ';', '\t', '\n', '|', ' ', '1'),
    });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 8 }),
        fc.constantFrom(',', ';', '\t', '|'),
        fc.constantFrom('\n', '\r\n'),
        (cells, delimiter, newline) => {
          // A row of blanks alone is none.
          const rows = cells.map((row, i) => [`row ${i}`, ...row]);
          const text = Papa.unparse([['Name', 'Role', 'Town', 'Note'], ...rows], {
            delimiter,
            newline,
            quotes: true,
          });
          const table = readTable(text);
          expect(table.columns).toEqual(['Name', 'Role', 'Town', 'Note']);
          expect(table.rows).toEqual(rows.map((row) => row.map((c) => c.trim())));
        },
      ),
    );
  });

  it('may lack cells at the ends of its rows, and rows between them', () => {
    expect(readTable('Name,Role\nIda\n\n , \nBram,Rigger,\n').rows).toEqual([
      ['Ida', ''],
      ['Bram', 'Rigger'],
    ]);
    // A first column without a name keeps its place.
    expect(readTable('\n\tName\n1\tIda\n')).toEqual({ columns: ['', 'Name'], rows: [['1', 'Ida']] });
  });

  it.each([
    ['', /empty/],
    ['Name,Role', /one row alone/],
    ['Name,NAME \nIda,Bram', /Columns 1 and 2 are both named "NAME"/],
    ['Name,Role\nIda,Pilot,of kites', /Row 2 has 3 cells, and there are 2 columns/],
    [`Name\n${'Ida\n'.repeat(MOST_ROWS + 1)}`, /has 2001 rows; 2000 is the most/],
    [Array.from({ length: 300 }, (_, i) => `c${i}`).join(','), /300 columns/],
  ])('%j is refused with a reason', (text, why) => {
    expect(() => readTable(text)).toThrow(TableError);
    expect(() => readTable(text)).toThrow(why);
  });

  it('is read in the encodings that spreadsheets save in', () => {
    const words = 'Zoë;Ærø\r\nÅse;é';
    const utf16 = new Uint8Array([
      0xff,
      0xfe,
      ...new Uint8Array(new Uint16Array([...words].map((c) => c.charCodeAt(0))).buffer),
    ]);
    const latin = Uint8Array.from([...words].map((c) => c.charCodeAt(0)));
    const plain = words.replace('\r\n', '\n');
    for (const bytes of [
      new TextEncoder().encode(words),
      new TextEncoder().encode(`\uFEFF${words}`),
      utf16,
      latin,
    ])
      expect(decodeText(bytes)).toBe(plain);
    expect(decodeText(Uint8Array.from([80, 75, 3, 4, 0, 0]))).toBeUndefined();
  });
});

describe('columns', () => {
  it('are matched by name or id, whatever their case, accents and signs; the first of two takes it', () => {
    const uses = matchColumns(['NAME', 'full-name', 'Rôle', 'Line below', 'Look', 'Town', ''], template);
    expect(uses).toEqual([
      { of: 'slot', id: 'name' },
      undefined,
      { of: 'slot', id: 'role' },
      { of: 'control', id: 'line' },
      { of: 'look' },
      undefined,
      undefined,
    ]);
    expect(plainName(' Fulł Náme! ')).toBe('fulłname');
  });

  it('give each row its fill: words, files, values as people write them; an empty cell empties a slot alone', () => {
    const columns = ['name', 'role', 'logo', 'hold', 'size', 'ink', 'line', 'side', 'at', 'look'];
    const all = filled(columns, [
      'Ida',
      '',
      'ida.png',
      '4,5 s',
      '72.5',
      'c8431c',
      'no',
      'on the right',
      '0.5 0,25',
      'dusk',
    ]);
    expect(all.faults).toEqual([]);
    expect([...all.files]).toEqual([['logo', 'ida.png']]);
    expect(all.fill).toMatchObject({
      slots: { name: 'Ida', role: '', logo: { media: 'file:ida.png' } },
      controls: { hold: 270, size: 72.5, ink: '#c8431c', line: false, side: 'right', at: [0.5, 0.25] },
      look: 'dusk',
    });
    const empty = filled(
      columns,
      columns.map(() => ''),
    );
    expect(empty).toMatchObject({
      fill: { slots: { name: '', role: '', logo: null }, controls: {} },
      faults: [],
    });
  });

  it('say what cannot be read, each by its name', () => {
    const columns = ['hold', 'size', 'ink', 'line', 'side', 'at', 'look'];
    const { faults, fill } = filled(columns, ['99', 'big', 'red', 'maybe', 'up', 'here', 'Noon']);
    expect(fill.controls).toEqual({});
    expect(faults.join('\n')).toMatch(
      /"hold" takes seconds from 0\.5 to 10\.0, not "99"[\s\S]*"size" takes a number[\s\S]*"ink" takes a colour[\s\S]*"line" takes true or false[\s\S]*"side" takes one of[\s\S]*"at" takes a point[\s\S]*no look "Noon"/,
    );
  });
});

describe('names of files', () => {
  const table = {
    columns: ['Full name', 'Town'],
    rows: [
      ['Ida Brandvik', 'Marram'],
      ['Ida  Brandvik', 'Hill'],
      ['', ''],
      ['ida-brandvik-2', ''],
    ],
  };

  it('come of a pattern; two alike are numbered, also where that is taken', () => {
    expect(rowNames('{full name}', table)).toEqual([
      'ida-brandvik',
      'ida-brandvik-2',
      'untitled',
      'ida-brandvik-2-2',
    ]);
    expect(rowNames('{#}-{Town}', table)).toEqual(['1-marram', '2-hill', '3', '4']);
    expect(() => rowNames('{Role}', table)).toThrow(
      '"{Role}" is no column of the table; they are Full name, Town, and {#}.',
    );
  });
});
