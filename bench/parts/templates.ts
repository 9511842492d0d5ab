import type { Part } from '../harness/bench';
import { sayRaw } from '../harness/previews';

/** Previews of all templates, a frame each. */
export const templates: Part = async ({ only, report, measure }) => {
  for (const f of await measure('templates', { of: only })) {
    report.row(`preview-${f.id}`, f.p95, 'ms', 33);
    report.row(`evaluate-${f.id}`, f.evaluateP95, 'ms', 4);
    sayRaw(report, f);
  }
};
