import type { Browser } from 'puppeteer-core';
import { chromium } from '../../e2e/support/browser';
import { BenchFiles } from './files';
import { workerBench } from './inWorker';
import { Report } from './report';

/** What a part measures with. */
export interface Bench {
  /** The project's folder, with a slash at its end. */
  readonly root: string;
  readonly browser: Browser;
  readonly files: BenchFiles;
  /** Templates that are measured, where not all of them are. */
  readonly only: readonly string[] | undefined;
  readonly report: Report;
  readonly measure: Awaited<ReturnType<typeof workerBench>>['measure'];
  close(): Promise<void>;
}

/** A part of what is measured. */
export type Part = (bench: Bench) => Promise<void>;

export async function openBench(
  root: string,
  { quiet, only }: { quiet: boolean; only: readonly string[] | undefined },
): Promise<Bench> {
  const browser = await chromium({ protocolTimeout: 600_000 });
  const files = new BenchFiles(root);
  const worker = await workerBench(root, browser);
  return {
    ...{ root, browser, files, only },
    report: new Report(quiet),
    measure: worker.measure,
    async close() {
      await browser.close();
      worker.close();
      files.close();
    },
  };
}
