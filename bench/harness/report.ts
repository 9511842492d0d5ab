/** One figure, beside its budget. */
export interface Row {
  readonly id: string;
  readonly value: number;
  readonly unit: string;
  readonly budget: number;
  readonly met: boolean;
}

/** Units of which less is better. */
const COSTS = ['ms', 's', 'frames', 'times', 'MB'];

/** What was measured, told as it comes. */
export class Report {
  readonly rows: Row[] = [];

  /** @param quiet whether nothing is printed but what is asked for at the end */
  constructor(private readonly quiet: boolean) {}

  /** A line that helps to understand the figures beside it. */
  say(text: string): void {
    if (!this.quiet) console.log(`        ${text}`);
  }

  /** A figure that should be at most, or, where more is better, at least its budget. */
  row(id: string, value: number, unit: string, budget: number): void {
    const cost = COSTS.includes(unit);
    const met = cost ? value <= budget : value >= budget;
    this.rows.push({ id, value: Number(value.toFixed(2)), unit, budget, met });
    const used = (cost ? value / budget : budget / value) * 100;
    const figure = `${id.padEnd(34)} ${value.toFixed(2).padStart(9)} ${unit.padEnd(8)}`;
    if (!this.quiet)
      console.log(
        `${met ? 'met   ' : 'MISSED'}  ${figure} budget ${Number(budget.toFixed(1))}, ${used.toFixed(0)}% of it used`,
      );
  }
}
