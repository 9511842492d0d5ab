import type { Part } from '../harness/bench';
import { sayRaw } from '../harness/previews';

/** The families of effects, each at its fullest. */
export const families: Part = async ({ report, measure }) => {
  for (const f of await measure('families')) {
    report.row(`evaluate-${f.id}`, f.evaluateP95, 'ms', 12);
    report.row(`family-${f.id}`, f.p95, 'ms', 33);
    sayRaw(report, f);
  }
};
