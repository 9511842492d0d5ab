import { findMissing } from './findMissing';

const file = (name: string, hash: string) => ({ name, hash });
const hash = async (f: { hash: string }) => f.hash;
const found = async (missing: [string, string?][], files: { name: string; hash: string }[]) =>
  (
    await findMissing(
      missing.map(([media, name]) => ({ media: `sha256:${media}`, name })),
      files,
      hash,
    )
  ).map((m) => [m.missing.media.slice(7), m.file.name]);

describe('missing files are found among others', () => {
  it('by what is in them, whatever they are called now', async () => {
    expect(await found([['a', 'old.jpg'], ['b']], [file('x.jpg', 'b'), file('new.jpg', 'a')])).toEqual([
      ['b', 'x.jpg'],
      ['a', 'new.jpg'],
    ]);
  });
  it('else by their name, whatever its case', async () => {
    expect(await found([['a', 'Kite.JPG']], [file('other.jpg', 'z'), file('kite.jpg', 'y')])).toEqual([
      ['a', 'kite.jpg'],
    ]);
  });
  it('the very same file goes before one of the same name', async () => {
    expect(await found([['a', 'k.jpg']], [file('k.jpg', 'y'), file('moved.jpg', 'a')])).toEqual([
      ['a', 'moved.jpg'],
    ]);
  });
  it('what is not there stays missing', async () => {
    expect(await found([['a', 'k.jpg']], [file('l.jpg', 'z')])).toEqual([]);
  });
});
