/** Says plainly that this Node.js is too old, before anything runs that it does not know. */
import { readFileSync } from 'node:fs';

const { engines } = JSON.parse(readFileSync(new URL('../package.json', import.meta.url), 'utf8'));
const [major, minor, patch] = process.versions.node.split('.').map(Number);
const reaches = (range) => {
  const [least, from, fix = 0] = range.replace(/^\D+/, '').split('.').map(Number);
  const newer = minor > from || (minor === from && patch >= fix);
  return major === least ? newer : major > least && range.startsWith('>=');
};
if (!engines.node.split('||').some((range) => reaches(range.trim()))) {
  console.error(
    `Fresh Reel needs Node.js ${engines.node.replace('^', '').replace(' || >=', ' or ')} or newer; this is ${process.versions.node}. Install a newer one, and start again.`,
  );
  process.exit(1);
}
