import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';

const ROOT = join(__dirname, '../..');

/** Every folder below another, itself first, but for what is built or installed. */
function foldersBelow(folder: string): string[] {
  const below = readdirSync(folder, { withFileTypes: true }).filter(
    (entry) => entry.isDirectory() && !/^(\.|node_modules$|dist$)/.test(entry.name),
  );
  return [folder, ...below.flatMap((entry) => foldersBelow(join(folder, entry.name)))];
}

const documents = foldersBelow(ROOT).flatMap((folder) =>
  readdirSync(folder).flatMap((name) => (name.endsWith('.md') ? [relative(ROOT, join(folder, name))] : [])),
);
const textOf = (document: string) => readFileSync(join(ROOT, document), 'utf8');

/** What a reader takes in at once: paragraphs, and points of a list each by itself; no tables, no code. */
const paragraphsOf = (text: string): string[] =>
  text
    .replace(/```[\s\S]*?```/g, '')
    .split(/\n\s*\n/)
    .filter((part) => !part.trimStart().startsWith('|'))
    .flatMap((part) => part.split(/\n(?=\s*(?:[-*]|\d+\.)\s)/));

it.each(documents)('%s has no paragraph over 600 letters, and its links lead somewhere', (document) => {
  const text = textOf(document);
  expect(paragraphsOf(text).filter((part) => part.length > 600)).toEqual([]);
  const links = [...text.matchAll(/\]\(([^)#]+)[^)]*\)/g)].map(([, to]) => to!);
  const lost = links.filter(
    (to) => !/^https?:/.test(to) && !existsSync(join(ROOT, dirname(document), decodeURI(to))),
  );
  expect(lost).toEqual([]);
});

const rooms = ['packages/core/src', 'apps/studio/src', 'apps/server/src'].flatMap((home) =>
  readdirSync(join(ROOT, home), { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory() ? [join(home, entry.name)] : [],
  ),
);

it('each room has a README of a screen at most', () => {
  const missing = rooms.filter((room) => !existsSync(join(ROOT, room, 'README.md')));
  expect(missing).toEqual([]);
  const long = documents.filter(
    (d) => /README\.md$/.test(d) && d !== 'README.md' && textOf(d).split('\n').length > 50,
  );
  expect(long).toEqual([]);
  // A map of two screens.
  expect(textOf('docs/architecture.md').split('\n').length).toBeLessThanOrEqual(100);
});

it('files that a README of a room names are in it, or beside it', () => {
  const gone = rooms.flatMap((room) => {
    const named = [...textOf(join(room, 'README.md')).matchAll(/`([\w./-]+\.(?:ts|tsx|json))`/g)].map(
      ([, file]) => file!,
    );
    const home = dirname(room);
    const near = [room, ...foldersBelow(join(ROOT, room)).map((folder) => relative(ROOT, folder)), home];
    return named
      .filter(
        (file) =>
          !near.some((folder) => existsSync(join(ROOT, folder, file))) && !existsSync(join(ROOT, file)),
      )
      .map((file) => `${room}: ${file}`);
  });
  // Names of files within packages of the user's are none of ours.
  expect(gone.filter((line) => !/: (sequence|reel|template|contents)\.json$/.test(line))).toEqual([]);
});
