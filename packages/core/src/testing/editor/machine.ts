import { appendFileSync } from 'node:fs';
import { isDeepStrictEqual } from 'node:util';
import { createNodePath, createNodeSurface, type NodeStudio } from '@fresh-reel/node-host';
import fc from 'fast-check';
import type { ReelItem } from '../../documents/item';
import { itemFaults, type Reel, reelKind, reelShape } from '../../documents/reel';
import type { Template } from '../../documents/template';
import { change, type History, redo, startHistory, undo } from '../../edit/history';
import { keepable } from '../../edit/keepable';
import { keepMeetings } from '../../edit/markers';
import { EditError } from '../../edit/place';
import { editList } from '../../exchange/editList';
import { subRipOf, webVttOf } from '../../exchange/subtitles';
import { timelineOf } from '../../exchange/timeline';
import { Painter } from '../../paint/painter';
import { lengthOf, reelEnd } from '../../reel/itemLength';
import { ReelScene } from '../../reel/reelScene';
import { OFFERED_RATES } from '../../time/rate';
import { openDocument } from '../../values/load';
import { oddFacts, oddSound } from './media';
import { type Bench, type Dice, STEPS, type Step, type Stepped } from './steps';

/** File into which each step is written before it is taken, for looking for what hangs. */
const TRACE = process.env.FRESH_REEL_TRACE;

/** How often the dearer of the checks are made: in one step of so many. */
const OPENED_WHOLE = 25;
const PAINTED = 8;

/** What a run has come to. */
export interface Run {
  readonly bench: Bench;
  history: History<Reel>;
  taken: number;
}

/** An editor who changes a reel, and looks after each change whether all that has to hold does. */
export class Editor {
  private readonly painter: Painter;
  /** Steps by name that changed something, those that were refused, and those for which there was nothing. */
  readonly tally = new Map<string, [changed: number, refused: number, nothing: number]>();
  /** Every refusal, in words, without what differs from one to the next. */
  readonly refusals = new Map<string, number>();

  constructor(private readonly studio: NodeStudio) {
    const surface = createNodeSurface(8, 6);
    this.painter = new Painter({
      createSurface: (width, height) => {
        if (!(width >= 1 && height >= 1 && width < 20_000 && height < 20_000))
          throw new Error(`A canvas of ${width} × ${height}.`);
        return createNodeSurface(width, height);
      },
      createPath: createNodePath,
      picture: (id) => {
        const facts = oddFacts(id);
        return facts && { image: surface.canvas, width: facts.width, height: facts.height };
      },
    });
  }

  begin(first: Reel, templates: readonly Template[]): Run {
    return { bench: { templates }, history: startHistory(frozen(first)), taken: 0 };
  }

  /** Takes a step as the app does, and looks at what came of it. */
  take(run: Run, step: Step, dice: Dice, drawn: unknown): void {
    // What hangs tells nothing any more: its step is the last in the file.
    if (TRACE) appendFileSync(TRACE, `${step.name} [${dice.join()}] ${fc.stringify(drawn)}\n`);
    const before = run.history.present;
    const tally = this.tally.get(step.name) ?? [0, 0, 0];
    this.tally.set(step.name, tally);
    let stepped: Stepped | undefined;
    let after: Reel;
    try {
      stepped = step.take(before, dice, drawn, run.bench);
      if (!stepped) {
        tally[2]++;
        return;
      }
      after = frozen(keepable(keepMeetings(stepped.reel), before));
    } catch (error) {
      if (!(error instanceof EditError)) throw error;
      // What opens no more is a fault of the edit, though it is not kept; that there is too much of something is none.
      if (error.message.startsWith('That cannot be kept')) throw error;
      tally[1]++;
      const words = `${step.name}: ${error.message.replace(/“[^”]*”|"[^"]*"|\d+/g, '…')}`;
      this.refusals.set(words, (this.refusals.get(words) ?? 0) + 1);
      return;
    }
    tally[0]++;
    run.taken++;
    run.history = change(run.history, after);
    this.look(before, after, stepped, dice, run.taken);
  }

  private look(before: Reel, after: Reel, { on, alike }: Stepped, dice: Dice, taken: number): void {
    opens(after, taken % OPENED_WHOLE === 0);
    const scene = new ReelScene(after, this.resources());
    const end = reelEnd(after);
    const named = after.tracks.flatMap((t) => t.items).find((i) => on !== 'all' && on.includes(i.id));
    const [from, length] = named ? [named.start, lengthOf(after, named)] : [0, end];
    const frame = from + ((dice[5] ?? 0) % Math.max(1, length));
    const moments = scene.subFrames(frame, after.rate);
    for (const { ops, regions } of moments) {
      finite(ops, 'ops');
      finite(regions, 'regions');
    }
    finite(scene.plays(oddSound), 'plays');
    if (taken % PAINTED === 0) {
      const size = {
        width: Math.max(8, Math.round(after.frame.width / 16)),
        height: Math.max(8, Math.round(after.frame.height / 16)),
      };
      this.painter.paint(moments[0]!.ops, createNodeSurface(size.width, size.height), scene.frame);
    }
    if (on !== 'all') this.othersStay(before, after, on, dice);
    if (alike && after !== before)
      for (const at of [frame, (dice[4] ?? 0) % end, (dice[3] ?? 0) % end])
        this.looksAlike(before, after, at);
  }

  private looksAlike(before: Reel, after: Reel, frame: number): void {
    const [was, is] = [before, after].map(
      (r) => new ReelScene(r, this.resources()).frameAt(frame, r.rate).ops,
    );
    const found = firstDifference(was, is);
    if (found) throw new Error(`Frame ${frame} looks otherwise: ${found}`);
  }

  /** What a step did not name stays as it is, and looks as it did. */
  private othersStay(before: Reel, after: Reel, on: readonly string[], dice: Dice): void {
    const own = new Set(on);
    const now = new Map(after.tracks.flatMap((t) => t.items.map((i) => [i.id, i])));
    const stood = before.tracks.flatMap((t) => t.items);
    for (const item of stood) {
      if (own.has(item.id) || meets(item)) continue;
      const other = now.get(item.id);
      if (!other) throw new Error(`"${item.id}" is gone, though the step was for [${on.join()}].`);
      if (other !== item && !isDeepStrictEqual(plain(other), plain(item)))
        throw new Error(`"${item.id}" changed, though the step was for [${on.join()}].`);
      if (item.kind === 'graphic' && other.kind === 'graphic') {
        const [was, is] = [before.templates[item.template], after.templates[other.template]];
        if (was !== is && !isDeepStrictEqual(was, is)) throw new Error(`"${item.id}" has another template.`);
      }
    }
    // A moment at which nothing of what was named shows, nor what is new or goes along.
    const ids = new Set(stood.map((i) => i.id));
    const away = (i: ReelItem) => own.has(i.id) || meets(i) || !ids.has(i.id) || follows(i);
    const frame = (dice[4] ?? 0) % reelEnd(before);
    const shows = (reel: Reel, i: ReelItem) => frame >= i.start - 1 && frame <= i.start + lengthOf(reel, i);
    const showsAway = (reel: Reel) => reel.tracks.some((t) => t.items.some((i) => away(i) && shows(reel, i)));
    if (showsAway(before) || showsAway(after)) return;
    this.looksAlike(before, after, frame);
  }

  /** Ends a run: all of it is taken back and done again. */
  end(run: Run, first: Reel): void {
    const last = run.history.present;
    opens(last, true);
    for (const rate of [last.rate, OFFERED_RATES[run.taken % OFFERED_RATES.length]!])
      new ReelScene(last, this.resources()).frameAt(0, rate);
    for (const write of [editList, webVttOf, subRipOf, timelineOf]) write(last);
    let history = run.history;
    while (history.past.length > 0) history = undo(history);
    if (history.present !== first) throw new Error('Undoing all does not give the first.');
    while (history.future.length > 0) history = redo(history);
    if (history.present !== last) throw new Error('Doing all again does not give the last.');
  }

  private resources() {
    const { layouts, memo } = this.studio;
    return { layouts, memo, mediaFacts: oddFacts };
  }
}

const meets = (i: ReelItem) => i.kind === 'graphic' && i.meets !== undefined;
const follows = (i: ReelItem) => i.follow !== undefined || (i.kind === 'graphic' && i.points !== undefined);
/** Which of a reel's templates it is goes by name, and the name may be another. */
const plain = (item: ReelItem) => (item.kind === 'graphic' ? { ...item, template: '' } : item);

const withoutTemplates = reelShape.omit({ templates: true });

/**
 * @param whole whether its templates are opened too, which takes long, and not only what is made of them
 * @throws {Error} when a reel that is written does not open as what it is
 */
function opens(reel: Reel, whole: boolean): void {
  const { templates, ...rest } = reel;
  const written = JSON.parse(JSON.stringify(whole ? reel : rest));
  const opened = whole ? openDocument(reelKind, structuredClone(written)) : withoutTemplates.parse(written);
  const found = firstDifference(written, JSON.parse(JSON.stringify(opened)));
  if (found) throw new Error(`It opens as something else: ${found}`);
  for (const item of opened.tracks.flatMap((t) => t.items)) {
    const [fault] = itemFaults(item, templates);
    if (fault) throw new Error(`"${item.id}" does not open: ${fault.message}.`);
  }
}

/** Sums of times and places may be off by as much. */
const OFF = 1e-6;

/** Where two things first differ, and how; '' where they do not. */
function firstDifference(a: unknown, b: unknown, path = ''): string {
  if (a === b || (typeof a === 'number' && typeof b === 'number' && Math.abs(a - b) < OFF)) return '';
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null)
    return `${path} was ${JSON.stringify(a)}, and is ${JSON.stringify(b)}.`;
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
  for (const key of keys) {
    const found = firstDifference(a[key as never], b[key as never], `${path}/${key}`);
    if (found) return found;
  }
  return '';
}

/** @throws {Error} naming the first number that is none */
function finite(value: object, name: string): void {
  if (!isFiniteAll(value)) throw new Error(`${name}${whereNone(value)} is no number.`);
}

function isFiniteAll(value: unknown): boolean {
  if (typeof value === 'number') return Number.isFinite(value);
  if (typeof value !== 'object' || value === null) return true;
  if (Array.isArray(value) || ArrayBuffer.isView(value)) {
    const list = value as unknown as readonly unknown[];
    for (let i = 0; i < list.length; i++) if (!isFiniteAll(list[i])) return false;
    return true;
  }
  for (const key in value) if (!isFiniteAll(value[key as never])) return false;
  return true;
}

function whereNone(value: unknown): string {
  if (typeof value !== 'object' || value === null) return '';
  const [key, part] = Object.entries(value).find(([, p]) => !isFiniteAll(p)) ?? ['', null];
  return `.${key}${whereNone(part)}`;
}

const FROZEN = new WeakSet<object>();

/** What was made is never changed: a step that tried to would be found out. */
function frozen<T>(value: T): T {
  if (typeof value !== 'object' || value === null || FROZEN.has(value)) return value;
  FROZEN.add(value);
  for (const part of Object.values(value)) frozen(part);
  return Object.freeze(value);
}

class Edit implements fc.Command<Editor, Run> {
  constructor(
    private readonly step: Step,
    private readonly dice: Dice,
    private readonly drawn: unknown,
  ) {}

  check(): boolean {
    return true;
  }

  run(editor: Editor, run: Run): void {
    editor.take(run, this.step, this.dice, this.drawn);
  }

  toString(): string {
    return `${this.step.name} [${this.dice.join()}] ${fc.stringify(this.drawn)}`;
  }
}

const die = fc.nat(10_000);
const dice = fc.tuple(die, die, die, die, die, die);

/** Steps in any order. @param most of one run, fewer than a history keeps */
export const anyEdits = (most: number) =>
  fc.commands(
    STEPS.map((step) => fc.tuple(dice, step.draws).map(([d, drawn]) => new Edit(step, d, drawn))),
    { maxCommands: most, size: 'max' },
  );
