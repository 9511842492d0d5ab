import { mkdir, mkdtemp } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';

/** A hidden folder beside where something is to be: it is made there and moved in, so that nothing final is half. */
export async function beside(out: string): Promise<string> {
  await mkdir(dirname(out), { recursive: true });
  return mkdtemp(join(dirname(out), `.${basename(out)}-`));
}
