#!/usr/bin/env node
import { bundled } from '../../../scripts/build/server.mjs';

const { main } = await import(await bundled('cli'));
process.exitCode = await main(process.argv.slice(2));
