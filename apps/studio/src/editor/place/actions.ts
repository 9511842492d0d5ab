import {
  addMarker,
  centreOnCut,
  copiedSchema,
  copyItems,
  copyToMarker,
  cutItem,
  cutsOf,
  EditError,
  framesIn,
  freezeItem,
  itemOf,
  moveItems,
  pasteItems,
  type Reel,
  reelEnd,
  removeItems,
  secondsAt,
  slipItem,
  spanOf,
  splitSound,
  takeAlong,
} from '@fresh-reel/core';
import { useDesk } from '../../editing/session/desk';
import { useAttempt } from '../../editing/session/useAttempt';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { useDuration } from '../../media/useMediaFacts';
import { readCopied, writeCopied } from '../../storage/clipboard';
import type { IconName } from '../../ui/Icon';
import { useToast } from '../../ui/Toast';

/** A key with what is held beside it. `mod` is Ctrl, or Cmd on a Mac. */
export interface KeySpec {
  readonly key: string;
  readonly mod?: boolean;
  readonly shift?: boolean;
  readonly alt?: boolean;
}

/** Something that can be done in Place, by a button, a key, or both. */
export interface PlaceAction {
  readonly id: string;
  readonly label: string;
  /** A word below its picture in the row of tools; only by key, when absent. */
  readonly caption?: string;
  readonly icon?: IconName;
  readonly keys: readonly KeySpec[];
  readonly able: boolean;
  run(): void;
}

/** Seconds that a frozen frame stands, until it is trimmed. */
const FROZEN = 2;

/** All that is done with what is chosen, and with the playhead: the row of tools and the keys are made of it. */
export function usePlaceActions(): readonly PlaceAction[] {
  const { reel, mayEdit } = useReelEditor();
  const { surface, seek, chosen: ids, chooseItem, chooseItems } = useDesk();
  const attempt = useAttempt();
  const toast = useToast();
  const chosen = ids.flatMap((id) => itemOf(reel, id)?.item ?? []);
  const [one] = chosen.length === 1 ? chosen : [];
  const some = mayEdit && chosen.length > 0;
  const playhead = () => surface.position;
  const duration = useDuration(one?.kind === 'clip' ? one.media : undefined);

  /** Changes the reel, and chooses what was made. */
  const making = (make: (reel: Reel) => { reel: Reel; ids: readonly string[] }) => {
    let made: readonly string[] = [];
    if (
      attempt((r) => {
        const result = make(r);
        made = result.ids;
        return result.reel;
      })
    )
      chooseItems(made);
  };
  const remove = (close: boolean) => () => {
    if (attempt((r) => removeItems(r, ids, close))) chooseItem(undefined);
  };
  const move = (by: number) => () => attempt((r) => moveItems(r, ids, by));
  const otherTrack = (way: 1 | -1) => () =>
    attempt((r) => {
      const at = r.tracks.findIndex((t) => t.items.some((i) => i.id === ids[0]));
      const to = r.tracks[at + way];
      return to ? moveItems(r, ids, 0, to.id) : r;
    });
  const slip = (frames: number) => () => attempt((r) => slipItem(r, ids[0]!, secondsAt(frames, r.rate)));
  const copy = async () => {
    const taken = takeAlong(reel, ids);
    if (taken) await writeCopied(taken);
    toast({
      text:
        ids.length === 1
          ? 'Copied. Paste it at the playhead, here or in another reel.'
          : `${ids.length} copied.`,
    });
  };
  const paste = async () => {
    const read = copiedSchema.safeParse(await readCopied());
    if (!read.success) return toast({ text: 'Nothing was copied yet.' });
    let rounded = 0;
    making((r) => {
      const pasted = pasteItems(r, read.data, playhead());
      ({ rounded } = pasted);
      return pasted;
    });
    if (rounded > 0)
      toast({
        text: `${rounded === 1 ? 'One time of it is' : `${rounded} of its times are`} no whole frames at this rate, and went to the nearest.`,
      });
  };
  const jump = (way: 1 | -1) => () => {
    const places = [0, reelEnd(reel) - 1, ...cutsOf(reel), ...reel.markers.map((m) => m.frame)].sort(
      (a, b) => a - b,
    );
    const next = way === 1 ? places.find((f) => f > playhead()) : places.findLast((f) => f < playhead());
    if (next !== undefined) seek(Math.min(next, reelEnd(reel) - 1));
  };
  const within = (id: string) => {
    const [from, to] = spanOf(reel, itemOf(reel, id)!.item);
    return playhead() > from && playhead() < to;
  };
  return [
    {
      ...{ id: 'marker', label: 'Set a marker at the playhead', keys: [{ key: '.' }], able: mayEdit },
      run: () => attempt((r) => addMarker(r, playhead()).reel),
    },
    {
      ...{ id: 'cut', label: 'Cut at the playhead', caption: 'Cut', icon: 'scissors', keys: [{ key: '/' }] },
      able: some && chosen.some((i) => i.kind !== 'graphic'),
      run: () =>
        attempt((r) => {
          const parts = chosen.filter((i) => i.kind !== 'graphic');
          const there = parts.filter((i) => parts.length === 1 || within(i.id));
          if (there.length === 0)
            throw new EditError('The playhead is in none of them. Take it there first.');
          return there.reduce((sum, i) => cutItem(sum, i.id, playhead()), r);
        }),
    },
    {
      ...{
        id: 'copy',
        label: 'Put a copy at the playhead',
        caption: 'Copy',
        icon: 'copy',
        keys: [{ key: 'c' }],
      },
      able: some,
      run: () => making((r) => copyItems(r, ids, playhead())),
    },
    {
      ...{
        id: 'to-marker',
        label: 'To marker: put a copy at the next one',
        caption: 'To marker',
        icon: 'flag',
      },
      keys: [{ key: 'n' }],
      able: some && one !== undefined,
      run: () =>
        making((r) => {
          const made = copyToMarker(r, one!.id);
          return { reel: made.reel, ids: [made.id] };
        }),
    },
    {
      ...{
        id: 'centre',
        label: 'On the cut: centre it on the nearest one',
        caption: 'On the cut',
        icon: 'fold-horizontal',
      },
      keys: [{ key: 'o' }],
      able: some && one !== undefined && one.kind !== 'sound',
      run: () => attempt((r) => centreOnCut(r, one!.id, playhead())),
    },
    {
      ...{
        id: 'freeze',
        label: `Freeze it at the playhead for ${FROZEN} seconds`,
        caption: 'Freeze',
        icon: 'snowflake',
      },
      keys: [{ key: 'f' }],
      able: some && one?.kind === 'clip',
      run: () =>
        making((r) => {
          const made = freezeItem(r, one!.id, playhead(), framesIn(FROZEN, r.rate), duration);
          return { reel: made.reel, ids: [made.id] };
        }),
    },
    {
      ...{
        id: 'sound-apart',
        label: 'Take its sound as an item of its own',
        caption: 'Sound',
        icon: 'volume-2',
      },
      keys: [{ key: 'u' }],
      able: some && one?.kind === 'clip' && one.clip.silent !== true && one.clip.freeze === undefined,
      run: () => attempt((r) => splitSound(r, one!.id, duration)),
    },
    {
      ...{ id: 'remove', label: 'Take out, leaving a gap', caption: 'Take out', icon: 'trash' },
      keys: [{ key: 'Delete' }, { key: 'Backspace' }],
      able: some,
      run: remove(false),
    },
    {
      ...{
        id: 'remove-close',
        label: 'Close gap: take it out, and what follows moves up',
        caption: 'Close gap',
        icon: 'circle-minus',
      },
      keys: [
        { key: 'Delete', shift: true },
        { key: 'Backspace', shift: true },
      ],
      able: some,
      run: remove(true),
    },
    {
      ...{
        id: 'take-along',
        label: 'Take along: copy, to paste it here or in another reel',
        caption: 'Take along',
        icon: 'archive',
      },
      keys: [{ key: 'c', mod: true }],
      able: chosen.length > 0,
      run: () => void copy(),
    },
    {
      ...{ id: 'paste', label: 'Paste at the playhead', keys: [{ key: 'v', mod: true }], able: mayEdit },
      run: () => void paste(),
    },
    {
      ...{ id: 'all', label: 'Choose everything', keys: [{ key: 'a', mod: true }], able: true },
      run: () => chooseItems(reel.tracks.flatMap((t) => t.items.map((i) => i.id))),
    },
    {
      ...{ id: 'none', label: 'Choose nothing', keys: [{ key: 'Escape' }], able: chosen.length > 0 },
      run: () => chooseItem(undefined),
    },
    ...(
      [
        ['earlier', 'Move by a frame to the left', 'ArrowLeft', false, move(-1)],
        ['later', 'Move by a frame to the right', 'ArrowRight', false, move(1)],
        ['much-earlier', 'Move by ten frames to the left', 'ArrowLeft', true, move(-10)],
        ['much-later', 'Move by ten frames to the right', 'ArrowRight', true, move(10)],
        ['track-up', 'To the track above', 'ArrowUp', false, otherTrack(1)],
        ['track-down', 'To the track below', 'ArrowDown', false, otherTrack(-1)],
      ] as const
    ).map(([id, label, key, shift, run]) => ({
      ...{ id, label, keys: [{ key, alt: true, ...(shift ? { shift } : {}) }], able: some, run },
    })),
    ...(
      [
        ['slip-earlier', 'Show what comes a frame earlier in its file', 'PageUp', slip(-1)],
        ['slip-later', 'Show what comes a frame later in its file', 'PageDown', slip(1)],
      ] as const
    ).map(([id, label, key, run]) => ({
      ...{ id, label, keys: [{ key, alt: true }], run },
      able: some && (one?.kind === 'clip' || one?.kind === 'sound'),
    })),
    {
      ...{
        id: 'before',
        label: 'Playhead to the cut or marker before',
        keys: [{ key: 'PageUp', shift: true }],
      },
      able: true,
      run: jump(-1),
    },
    {
      ...{
        id: 'after',
        label: 'Playhead to the cut or marker after',
        keys: [{ key: 'PageDown', shift: true }],
      },
      able: true,
      run: jump(1),
    },
  ];
}

/** What of a key press a spec asks for. */
interface Pressed {
  readonly key: string;
  readonly shiftKey: boolean;
  readonly altKey: boolean;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
}

/** Whether a key press is what a spec says. Signs need no word of Shift: where they lie differs between keyboards. */
export function isKey({ key, mod = false, shift = false, alt = false }: KeySpec, press: Pressed): boolean {
  if (press.key.toLowerCase() !== key.toLowerCase()) return false;
  if ((press.ctrlKey || press.metaKey) !== mod || press.altKey !== alt) return false;
  const isSign = key.length === 1 && !/[a-z]/i.test(key);
  return isSign || press.shiftKey === shift;
}

const NAMES: Readonly<Record<string, string>> = {
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  PageUp: 'Page up',
  PageDown: 'Page down',
  Escape: 'Esc',
  ' ': 'Space',
};

/** How a key is told. */
export function keyText({ key, mod, shift, alt }: KeySpec): string {
  const named = NAMES[key] ?? (key.length === 1 ? key.toUpperCase() : key);
  return [mod && 'Ctrl', shift && 'Shift', alt && 'Alt', named].filter(Boolean).join(' + ');
}
