/** What sets columns apart for certain. */
const HARD = /\s*\|\s*|\t+/;

/** Ways people write two columns in one line: dot leaders, a dash or a colon with room around it. */
const SOFT: readonly RegExp[] = [/\s*(?:\.\s?){3,}\s*|\s*…+\s*/u, /\s+[-–—]+\s+/u, /\s*:\s+/u];

/**
 * A line of a list as its columns. `|` and tabs set them apart; where there are none, dot leaders, a dash or a colon
 * do once (`Role ..... Name`, `Role - Name`, `Role: Name`).
 */
export function splitColumns(line: string): string[] {
  if (HARD.test(line)) return line.split(HARD);
  for (const soft of SOFT) {
    const found = soft.exec(line);
    if (!found || found.index === 0) continue;
    const rest = line.slice(found.index + found[0].length).trim();
    if (rest !== '') return [line.slice(0, found.index).trim(), rest];
  }
  return [line];
}

/** Lines of a list with columns that do not split, and so stand in the first column alone. */
export function unsplitLines(text: string): string[] {
  return text
    .split('\n')
    .map((l) => l.trim())
    .filter((l) => l !== '' && splitColumns(l).length === 1);
}
