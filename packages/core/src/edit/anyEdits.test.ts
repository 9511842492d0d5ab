import { TEMPLATE_IDS, templateById } from '@fresh-reel/templates';
import fc from 'fast-check';
import type { ReelItemOf } from '../documents/item';
import type { Template } from '../documents/template';
import { anyEdits, Editor } from '../testing/editor/machine';
import { ODD_FILES } from '../testing/editor/media';
import { testStudio } from '../testing/studio';
import { OFFERED_RATES } from '../time/rate';
import { addMarker } from './markers';
import { addFiles, addTitle } from './newItems';
import { emptyReel } from './reel';
import { addWay } from './ways';

/** Steps that are taken in all: more of them by hand, `FRESH_REEL_STEPS=1000000`, where a find is told as it was found. */
const STEPS = Number(process.env.FRESH_REEL_STEPS ?? 1000);
const isByHand = process.env.FRESH_REEL_STEPS !== undefined;
const MOST_IN_A_RUN = 60;

/** Of each that is tried something is there from the first: pictures and a point to put something on. */
const WITH_PICTURES = templateById('freeze-print');
const WITH_A_POINT = templateById('speech-bubble');

const begin = fc.record({
  rate: fc.constantFrom(...OFFERED_RATES),
  templates: fc.shuffledSubarray([...TEMPLATE_IDS], { minLength: 1, maxLength: 3 }),
  files: fc
    .subarray(ODD_FILES.slice(1), { minLength: 1, maxLength: 4 })
    .map((more) => [ODD_FILES[0]!, ...more]),
});

it('whatever an editor does, in any order, comes back as it was, shows, and touches nothing else', async () => {
  const editor = new Editor(await testStudio());
  let taken = 0;
  for (let round = 0; taken < STEPS; round++)
    fc.assert(
      fc.property(begin, anyEdits(MOST_IN_A_RUN), ({ rate, templates, files }, edits) => {
        const frame = { width: 1920, height: 1080 };
        const empty = emptyReel({ id: 'r', name: 'R', now: '2026-06-20T09:00:00Z', frame, rate });
        // Of one there is another edition.
        const [twice, ...others] = templates.map(templateById) as [Template, ...Template[]];
        const edition = { ...twice, name: 'Another edition', looks: [], guide: ['Anew.'] };
        const offered = [WITH_PICTURES, WITH_A_POINT, twice, ...others, edition];
        const filmed = addFiles(
          empty,
          files.map((f) => f.file),
          0,
        ).reel;
        const clip = filmed.tracks.flatMap((t) => t.items).find((i) => i.kind === 'clip')!;
        const way = addWay(filmed, clip as ReelItemOf<'clip'>, 0, { x: 100, y: 80, a: 1, b: 0 }, 20);
        const marked = [200, 600, 2000].reduce((r, at) => addMarker(r, at, 'beat').reel, way.reel);
        const first = offered.slice(0, -1).reduce((r, t, i) => addTitle(r, t, 40 * i).reel, marked);
        const run = editor.begin(first, offered);
        fc.modelRun(() => ({ model: editor, real: run }), edits);
        editor.end(run, first);
        taken += run.taken;
      }),
      {
        numRuns: 5,
        endOnFailure: isByHand,
        ...(round > 0 ? { seed: fc.readConfigureGlobal().seed! + round } : {}),
      },
    );
  if (process.env.FRESH_REEL_TALLY) console.log([...editor.tally], [...editor.refusals]);
  // Each kind of step has changed something, but where it has to go by other dice.
  if (!process.env.FRESH_REEL_SEED)
    expect([...editor.tally].filter(([, [changed]]) => changed === 0).map(([name]) => name)).toEqual([]);
});
