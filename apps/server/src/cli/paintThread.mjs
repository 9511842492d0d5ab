/** A thread that paints: TypeScript is read as the command line reads it. */
import { register } from 'tsx/esm/api';

register();
const { paint } = await import('./paintThread.ts');
await paint();
