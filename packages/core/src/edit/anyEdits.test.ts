import { TEMPLATE_IDS, templateById } from '@fresh-reel/templates';
import fc from 'fast-check';
import type { Template } from '../documents/template';
import { anyEdits, Editor } from '../testing/editor/machine';
import { ODD_FILES } from '../testing/editor/media';
import { testStudio } from '../testing/studio';
import { OFFERED_RATES } from '../time/rate';
import { addFiles, addTitle } from './newItems';
import { emptyReel } from './reel';

/** Steps that are taken in all: more of them by hand, `FRESH_REEL_STEPS=1000000`, where a find is told as it was found. */
const STEPS = Number(process.env.FRESH_REEL_STEPS ?? 1000);
const isByHand = process.env.FRESH_REEL_STEPS !== undefined;
const MOST_IN_A_RUN = 60;

const begin = fc.record({
  rate: fc.constantFrom(...OFFERED_RATES),
  templates: fc.shuffledSubarray([...TEMPLATE_IDS], { minLength: 3, maxLength: 5 }),
  files: fc.subarray([...ODD_FILES], { minLength: 2, maxLength: 5 }),
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
        const offered = [
          twice,
          ...others,
          { ...twice, name: 'Another edition', looks: [], guide: ['Anew.'] },
        ];
        const filmed = addFiles(
          empty,
          files.map((f) => f.file),
          0,
        ).reel;
        const first = offered.slice(1).reduce((r, t, i) => addTitle(r, t, 40 * i).reel, filmed);
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
  // Each kind of step has changed something.
  expect([...editor.tally].filter(([, [changed]]) => changed === 0).map(([name]) => name)).toEqual([]);
});
