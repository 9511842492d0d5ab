import { parentPort, workerData } from 'node:worker_threads';
import { ReelScene } from '@fresh-reel/core';
import { NodeStudio } from '@fresh-reel/node-host';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import { FrameWriter, type PaintJob, paintedFrames, pixelsOf } from './frameWriter';
import type { FromThread, ToThread } from './threads';

/** A thread that paints what the render asks of it, until it is ended. */
const job = workerData as PaintJob;
const studio = await NodeStudio.start(SHIPPED_PATHS, { paintsOnly: true });
for (const { family, weight, bytes } of job.fonts) studio.addFont(family, weight, bytes);
for (const [id, path] of job.files) await studio.addFile(id, path);
const scene = new ReelScene(job.reel, studio);
await studio.prepare(scene);
const writer = new FrameWriter(studio, scene, job);
const tell = (message: FromThread) => parentPort?.postMessage(message);
const raw = async (first: number, count: number) => {
  for await (const { index, surface } of paintedFrames(studio, scene, job, first, count)) {
    const pixels = pixelsOf(surface, studio, job.over);
    parentPort?.postMessage({ type: 'frame', index, pixels } satisfies FromThread, [
      pixels.buffer as ArrayBuffer,
    ]);
  }
};
const written = (first: number, count: number) =>
  writer.write(first, count, (index) => tell({ type: 'frame', index }));
parentPort?.on('message', ({ first, count }: ToThread) => {
  (job.raw ? raw : written)(first, count)
    .then(() => tell({ type: 'ready' }))
    .catch((error: unknown) => {
      // Thrown where nothing holds it, it ends the thread and is told as its error.
      setImmediate(() => {
        throw error;
      });
    });
});
tell({ type: 'ready' });
