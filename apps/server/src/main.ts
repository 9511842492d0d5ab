import { hasFfmpeg, INSTALL_FFMPEG, writableFilms } from '@fresh-reel/node-host';
import { z } from 'zod';
import { createApp } from './app';
import { builtVersion } from './built';
import { RenderDesk } from './renders/desk';
import { LocalCrew } from './renders/localCrew';
import { Metrics } from './renders/metrics';
import { readSettings, type Settings } from './settings';

let settings: Settings;
try {
  settings = readSettings(process.argv.slice(2), process.env);
} catch (error) {
  const told = error instanceof z.ZodError ? z.prettifyError(error) : (error as Error).message;
  console.error(told);
  process.exit(1);
}
const { port, host, token, data, redis, limits, names } = settings;

const metrics = new Metrics();
const version = await builtVersion();
/** Where machines in a row reach this one. */
let reached = settings.address;
const crew = redis
  ? (await import('./renders/queueCrew')).crewOn(redis, version, () => reached!, token)
  : ({ folder }: { folder: string }) => new LocalCrew(folder).readyAhead();
const desk = await RenderDesk.open({ folder: data, crew, version, limits, metrics }).catch((error: Error) => {
  console.error(error.message);
  process.exit(1);
});
metrics.watch(() => {
  const counts: Record<string, number> = { waiting: 0, running: 0, done: 0, failed: 0 };
  for (const { state } of desk.list()) counts[state] = (counts[state] ?? 0) + 1;
  return counts;
});
const app = createApp(undefined, { renders: { desk, metrics }, token, names, footageBytes: limits.footage });
try {
  const address = await app.listen({ port, host });
  reached ??= address;
  desk.start();
  console.log(
    `\nFresh Reel is running at ${address.replace('127.0.0.1', 'localhost')}${token ? `/?token=${token}` : ''}\n`,
  );
  // Asked before the first render waits for it; all that a browser does by itself needs none.
  if (await hasFfmpeg()) void writableFilms();
  else
    console.log(
      `There is no ffmpeg here: films for editing, working copies of footage, and clips and sounds on the command line need it. ${INSTALL_FFMPEG}\n`,
    );
} catch (error) {
  const busy = (error as { code?: string }).code === 'EADDRINUSE';
  console.error(
    busy ? `Port ${port} is taken. Try npm start -- --port ${port + 1}.` : (error as Error).message,
  );
  process.exit(1);
}
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => void app.close().then(() => process.exit(0)));
