import { ListError, readListFile } from './listFile';

const file = (content: string | Uint8Array, name: string) => {
  const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
  return { name, size: bytes.length, arrayBuffer: async () => bytes.slice().buffer } as unknown as File;
};

describe('a list from a file', () => {
  it('text, a line each, tabs for columns', async () => {
    expect(await readListFile(file('Ines\r\nTobias\n\nPell\n\n', 'a.txt'))).toEqual({
      text: 'Ines\nTobias\n\nPell',
      lines: 4,
    });
    expect((await readListFile(file('Camera\tInes', 'a.txt'))).text).toBe('Camera | Ines');
    expect((await readListFile(file('\uFEFFÅse', 'a.txt'))).text).toBe('Åse');
  });

  it('CSV with quotes, semicolons and line breaks inside (RFC 4180)', async () => {
    const csv = 'Camera,"Halloran, Ines"\nSound,"the ""quiet"" one"\n"two\nlines",x\n';
    expect((await readListFile(file(csv, 'a.csv'))).text).toBe(
      'Camera | Halloran, Ines\nSound | the "quiet" one\ntwo lines | x',
    );
    expect((await readListFile(file('Camera;Ines\nSound;Pell\n', 'a.csv'))).text).toBe(
      'Camera | Ines\nSound | Pell',
    );
  });

  it('UTF-16 as spreadsheets save it', async () => {
    const bytes = new Uint8Array([0xff, 0xfe, 0x41, 0x00, 0x0a, 0x00, 0x42, 0x00]);
    expect((await readListFile(file(bytes, 'a.txt'))).text).toBe('A\nB');
  });

  it('what is empty, no text, or without end is told', async () => {
    await expect(readListFile(file('\n \n', 'a.txt'))).rejects.toThrow(/has no words/);
    await expect(readListFile(file(new Uint8Array([1, 0, 2]), 'a.txt'))).rejects.toThrow(ListError);
    await expect(readListFile(file('a\n'.repeat(20_001), 'a.txt'))).rejects.toThrow(
      /20001 lines; 20000 is the most/,
    );
  });
});

describe('a row that names the columns', () => {
  const read = (text: string) => readListFile(file(text, 'crew.csv'));
  it('is seen and left out; one that names somebody is not', async () => {
    expect(await read('Role,Name\nCamera,Ines\nSound,Tobias')).toMatchObject({
      header: 'Role | Name',
      lines: 2,
      text: 'Camera | Ines\nSound | Tobias',
    });
    expect(await read('Camera,Ines\nSound,Tobias')).toMatchObject({ header: undefined, lines: 2 });
  });
});
