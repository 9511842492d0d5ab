/** A thread that makes pieces of films: TypeScript is read as the command line reads it. */
import { register } from 'tsx/esm/api';

register();
const { makeRanges } = await import('./rangeThread.ts');
makeRanges();
