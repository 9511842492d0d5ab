import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import kernel from '../kernel.json';

it('was compiled from the sources that lie beside it (npm run kernel)', () => {
  const folder = join(__dirname, '../assembly');
  const hash = createHash('sha256');
  for (const name of readdirSync(folder).sort()) hash.update(name).update(readFileSync(join(folder, name)));
  expect(hash.digest('hex')).toBe(kernel.sources);
});
