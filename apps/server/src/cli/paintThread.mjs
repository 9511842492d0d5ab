/** The thread as its source, for tests; what is bundled has it beside itself under the same name. */
import { register } from 'tsx/esm/api';

register();
await import('./paintThread.ts');
