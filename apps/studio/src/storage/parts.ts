/** Plain data of a document: lists and nothing are values, not parts. */
type Plain = Readonly<Record<string, unknown>>;

const isPlain = (value: unknown): value is Plain =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Levels of a document whose parts are told apart: its fields, and what is in them. */
const LEVELS = 2;

/** The parts of a document that are not as they were; what is in them counts one by one, down to so many levels. */
export function changedParts(now: Plain, before: Plain, levels = LEVELS): Plain {
  return Object.fromEntries(
    Object.entries(now).flatMap(([key, value]) => {
      const was = before[key];
      if (JSON.stringify(value) === JSON.stringify(was)) return [];
      const inside = levels > 1 && isPlain(value) && isPlain(was);
      return [[key, inside ? changedParts(value, was, levels - 1) : value]];
    }),
  );
}

/** A document with some parts as {@link changedParts} tells them; all others stay as they are. */
export function withParts(document: Plain, parts: Plain, levels = LEVELS): Plain {
  const put = Object.entries(parts).map(([key, value]) => {
    const held = document[key];
    return [key, levels > 1 && isPlain(value) && isPlain(held) ? withParts(held, value, levels - 1) : value];
  });
  return { ...document, ...Object.fromEntries(put) };
}
