import {
  groupLength,
  type MixFacts,
  MixRender,
  messageOf,
  ReelScene,
  type RenderPlan,
  type SoundCodec,
  secondsAt,
} from '@fresh-reel/core';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { openSounds } from '../media/decode/soundReader';
import { soundCodec } from './canEncode';
import { filmSink, type GroupMaker, type GroupSink, pictureSink, soundSink } from './groupSink';
import { type Journal, openJournal, type WrittenGroup } from './journal';
import type { FromRender, ToRender } from './messages';
import { PaintCrew } from './paintCrew';
import { growFile, inMemory } from './storeFile';

const tell = (message: FromRender) => postMessage(message);
let stopped = false;

class Stopped extends Error {}

const MIME = {
  mp4: 'video/mp4',
  webm: 'video/webm',
  'png-sequence': 'application/zip',
  png: 'image/png',
  wav: 'audio/wav',
} as const;

const isFilm = ({ format }: RenderPlan) => format === 'mp4' || format === 'webm';

/** Pictures that stand for themselves are written down a few at a time, since each is large. */
const FEW = 8;

type Start = Extract<ToRender, { type: 'start' }>;

async function render({ job, painters, journal: name }: Start): Promise<void> {
  const { reel, plan } = job;
  const scene = new ReelScene(reel, DOCUMENT_ONLY);
  const count = job.sample?.length ?? plan.count;
  const length = isFilm(plan) ? groupLength(plan.rate) : FEW;
  // Sound alone is mixed in no time.
  const journal = name && plan.format !== 'wav' ? await openJournal(name.id, name.identity) : undefined;
  const first = Math.min(count, (journal?.groups ?? 0) * length);
  if (first > 0) tell({ type: 'resumed', frames: first });
  // A sample is thrown away, whatever becomes of it: it leaves nothing on disk.
  const file = job.sample ? inMemory(plan.fileName) : await growFile(plan.fileName);
  const crew = plan.format === 'wav' ? undefined : new PaintCrew({ ...job, first }, count, painters);
  let heard: MixFacts | undefined;
  let codec: SoundCodec | undefined;
  let sink: GroupSink | undefined;
  let sounds: Awaited<ReturnType<typeof openSounds>> | undefined;
  try {
    sounds = await openSounds([...scene.sounds(), ...scene.media()]);
    const opened = sounds;
    const plays = plan.format === 'png' ? [] : scene.plays((media) => opened.get(media)?.facts);
    codec = plays.length > 0 ? await soundCodec(plan.format) : undefined;
    sink = isFilm(plan)
      ? filmSink(plan, file, scene.transparent, codec)
      : crew
        ? pictureSink(plan, file, codec !== undefined)
        : soundSink(plan, file);
    const into = sink;
    const mix =
      codec &&
      new MixRender(
        plays,
        secondsAt(plan.from, plan.rate),
        secondsAt(plan.count, plan.rate),
        (media) => opened.get(media),
        (block) => into.hear(block),
      );
    // The sound goes along, so that neither track waits long for the other.
    let bytes = 0;
    const put = async (group: WrittenGroup, end: number) => {
      for (const { data, alpha } of group.frames) bytes += data.byteLength + (alpha?.byteLength ?? 0);
      await into.put(group);
      await mix?.until(secondsAt(end, plan.rate));
    };
    for (let i = 0; i * length < first; i++) {
      if (stopped) throw new Stopped();
      await put(journal!.read(i), Math.min(count, (i + 1) * length));
    }
    if (crew) await writeGroups(crew, into, { first, count, length }, journal, put);
    else await writeSound({ count, length: groupLength(plan.rate) }, put);
    if (job.sample) {
      // What is still being compressed counts, too.
      await sink.finish();
      await file.discard();
      return tell({ type: 'sampled', bytes });
    }
    heard = await mix?.end();
    await sink.finish();
  } catch (error) {
    // The first fault is the one to tell.
    await sink?.abandon().catch(() => undefined);
    await file.discard().catch(() => undefined);
    throw error;
  } finally {
    journal?.close();
    for (const sound of sounds?.values() ?? []) sound.close();
  }
  const finished = await file.finish(MIME[plan.format]);
  tell({
    type: 'done',
    frames: plan.count,
    ...finished,
    ...(codec && heard ? { sound: { codec, ...heard } } : {}),
  });
}

/**
 * Paints and compresses what the journal does not hold. A group is written while the next one is painted.
 * @param span frames in all, the first to be painted, and frames of a group
 */
async function writeGroups(
  crew: PaintCrew,
  sink: GroupSink,
  { first, count, length }: { first: number; count: number; length: number },
  journal: Journal | undefined,
  put: (group: WrittenGroup, end: number) => Promise<void>,
): Promise<void> {
  let before: Promise<void> = Promise.resolve();
  const write = async (maker: GroupMaker, end: number) => {
    const group = await maker.end();
    journal?.append(group);
    await put(group, end);
  };
  for (let at = first; at < count; at += length) {
    const end = Math.min(count, at + length);
    const maker = sink.make();
    try {
      for (let i = at; i < end; i++) {
        if (stopped) throw new Stopped();
        await maker.add(i, await crew.take());
        tell({ type: 'progress', frames: i + 1 });
      }
    } catch (error) {
      await maker.abandon().catch(() => undefined);
      // What is on its way to the journal gets there.
      await before.catch(() => undefined);
      throw error;
    }
    await before;
    before = write(maker, end);
    // Told when it is waited for.
    before.catch(() => undefined);
  }
  await before;
}

/** Writes what is heard, a group of frames after the other, with no picture in any. */
async function writeSound(
  { count, length }: { count: number; length: number },
  put: (group: WrittenGroup, end: number) => Promise<void>,
): Promise<void> {
  for (let at = 0; at < count; at += length) {
    if (stopped) throw new Stopped();
    const end = Math.min(count, at + length);
    await put({ frames: [] }, end);
    tell({ type: 'progress', frames: end });
  }
}

self.onmessage = ({ data }: MessageEvent<ToRender>) => {
  if (data.type === 'stop') {
    stopped = true;
    return;
  }
  render(data).catch((error: unknown) => {
    if (error instanceof Stopped) tell({ type: 'stopped' });
    else tell({ type: 'fault', message: messageOf(error) });
  });
};
