import { forgetRenderRecord, listRenders, type RenderRecord, saveRender } from '../../storage/renders';
import { storedRender } from '../../storage/storeFile';
import type { RenderJob } from './queue';

/** Keeps a finished render for later visits. One that is in memory alone goes with the tab. */
export async function keepRender(job: RenderJob): Promise<void> {
  const { id, stored, file, plan, reelId, reelName, frames, seconds, sound } = job;
  if (stored === undefined || !file) return;
  await saveRender({
    ...{ stored, reelId, reelName, plan, frames, type: file.type },
    ...(seconds === undefined ? {} : { seconds }),
    ...(sound ? { sound } : {}),
    finished: new Date().toISOString(),
    job: id,
  });
}

/** The finished renders of every visit, the newest first. */
export async function keptRenders(): Promise<RenderJob[]> {
  const records = await listRenders();
  const jobs = await Promise.all(records.map(jobOf));
  return jobs.flatMap((job) => job ?? []);
}

async function jobOf(record: RenderRecord): Promise<RenderJob | undefined> {
  const { stored, type, plan, reelId, reelName, frames } = record;
  const file = await storedRender(stored);
  if (!file) {
    await forgetRenderRecord(stored);
    return undefined;
  }
  return {
    ...{ id: record.job ?? stored, reelId, reelName, plan, frames, stored },
    ...{ state: 'done', startedAt: undefined, from: 0, seconds: record.seconds, message: undefined },
    file: new File([file], plan.fileName, { type }),
    sound: record.sound,
  };
}
