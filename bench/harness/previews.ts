import type { PreviewFigures } from '../page/page';
import type { Report } from './report';

/** What a frame took at the machine's pace of just now, and costs with all that a draft does without. */
export function sayRaw(report: Report, { id, rawP95, final }: PreviewFigures): void {
  report.say(`${id}: as measured ${rawP95.toFixed(1)} ms; a final frame at 1080p ${final.toFixed(1)} ms`);
}
