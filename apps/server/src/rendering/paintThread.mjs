/** The thread, for tests, bundled from the sources as they are; what is bundled itself has it beside itself. */
import { bundled } from '../../../../scripts/build/server.mjs';

await import(await bundled('paintThread'));
