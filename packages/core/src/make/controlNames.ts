import type { Template } from '../documents/template';

/** Letters of a name at most. */
export const LONGEST_NAME = 80;

/**
 * Names that say what kind of thing is set, and not which: two of them in one list cannot be told apart. A list of ours
 * (common practice: a control is named for what the user sees).
 */
const BARE = new Set(
  `amount angle blur choice colour color control corner corners direction distance duration effect fill font gap
  height hold length level look margin mode motion move movement number offset on off opacity option options origin
  path place point position property radius rotation row scale seed setting settings shadow shape show size slider
  spacing speed start strength stroke style switch text thickness tie time timing turn type value visible weight width
  x y z`.split(/\s+/),
);

/** What is wrong with a name, and one that would do. */
export interface NameFault {
  readonly text: string;
  readonly proposal: string;
}

/**
 * What is wrong with the name of a control: it is empty, too long, says only what kind of thing it is, or another has it.
 * @param what the part and the property it is of, such as `Left kite` and `position`, from which a better one is made
 * @param own id of the control that has it, if it is there already
 */
export function faultOfControlName(
  template: Template,
  name: string,
  what: { readonly part: string; readonly property: string },
  own?: string,
): NameFault | undefined {
  const proposal = proposedName(template, what, own);
  const words = name.trim();
  if (words === '') return { text: 'Give it a name that says what is seen to change.', proposal };
  if (words.length > LONGEST_NAME)
    return { text: `A name has ${LONGEST_NAME} letters at most; this one has ${words.length}.`, proposal };
  if (BARE.has(words.toLowerCase()))
    return { text: `“${words}” does not say of what. Call it “${proposal}”, for example.`, proposal };
  if (template.controls.some((c) => c.id !== own && c.name.toLowerCase() === words.toLowerCase()))
    return { text: `There is a control called “${words}” already. Call this one “${proposal}”.`, proposal };
  return undefined;
}

/** A name made of a part and its property: “Left kite position”, with a number where that is taken. */
export function proposedName(
  { controls }: Template,
  { part, property }: { readonly part: string; readonly property: string },
  own?: string,
): string {
  const taken = new Set(controls.filter((c) => c.id !== own).map((c) => c.name.toLowerCase()));
  const words = `${part.charAt(0).toUpperCase()}${part.slice(1)} ${property.toLowerCase()}`.slice(
    0,
    LONGEST_NAME - 4,
  );
  let name = words;
  for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${words} ${n}`;
  return name;
}
