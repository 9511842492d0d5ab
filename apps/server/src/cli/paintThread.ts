import { parentPort, workerData } from 'node:worker_threads';
import { ReelScene } from '@fresh-reel/core';
import { NodeStudio } from '@fresh-reel/node-host';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import { FrameWriter, type PaintJob } from './frameWriter';
import type { FromThread, ToThread } from './threads';

/** Paints what the render asks of this thread, until it is ended. */
export async function paint(): Promise<void> {
  const job = workerData as PaintJob;
  const studio = await NodeStudio.start(SHIPPED_PATHS);
  for (const { family, weight, bytes } of job.fonts) studio.addFont(family, weight, bytes);
  for (const [id, path] of job.files) await studio.addFile(id, path);
  const scene = new ReelScene(job.reel, studio);
  await studio.prepare(scene);
  const writer = new FrameWriter(studio, scene, job);
  const tell = (message: FromThread) => parentPort?.postMessage(message);
  parentPort?.on('message', ({ first, count }: ToThread) => {
    writer
      .write(first, count, () => tell({ type: 'frame' }))
      .then(() => tell({ type: 'ready' }))
      .catch((error: unknown) => {
        // Thrown where nothing holds it, it ends the thread and is told as its error.
        setImmediate(() => {
          throw error;
        });
      });
  });
  tell({ type: 'ready' });
}
