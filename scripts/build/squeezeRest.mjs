/** Squeezes what the first page does not wait for, once the app is served, while nothing else needs the machine. */
import { constants, setPriority } from 'node:os';
import { DIST } from './build.mjs';
import { squeezeRest } from './squeeze.mjs';

setPriority(constants.priority.PRIORITY_LOW);
await squeezeRest(DIST);
