import { execFileSync } from 'node:child_process';
import type { Browser } from 'puppeteer-core';

/** Memory of a browser's processes, in MB, as the system counts it. */
export function memoryOf(browser: Browser): number {
  const rows = execFileSync('ps', ['-e', '-o', 'pid=,ppid=,rss=']).toString().trim().split('\n');
  const all = rows.map(
    (r) => r.trim().split(/\s+/).map(Number) as [pid: number, parent: number, rss: number],
  );
  const ours = new Set([browser.process()!.pid!]);
  for (const [pid, parent] of all) if (ours.has(parent)) ours.add(pid);
  return all.reduce((sum, [pid, , rss]) => sum + (ours.has(pid) ? rss : 0), 0) / 1000;
}
