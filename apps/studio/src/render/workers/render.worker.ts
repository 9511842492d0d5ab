import '../../workers/alive';
import {
  browserFilm,
  groupLength,
  groupsOf,
  heldBack,
  type MixFacts,
  MixRender,
  messageOf,
  movingPicture,
  NEVER_OVER,
  ReelScene,
  type RenderPlan,
  type SoundCodec,
  type Stereo,
  secondsAt,
} from '@fresh-reel/core';
import { openSounds } from '../../decode/soundReader';
import { DOCUMENT_ONLY } from '../../engine/documentOnly';
import { type Journal, openJournal, type WrittenGroup } from '../../storage/journal';
import { type GrowingFile, growFile, inMemory } from '../../storage/storeFile';
import { soundCodec } from './canEncode';
import { CodedMeter } from './codedPeak';
import { typeOf } from './fileTypes';
import { filmSink, type GroupMaker, type GroupSink, pictureSink, soundSink } from './groupSink';
import type { FromRender, ToRender } from './messages';
import { movingSink } from './movingSink';
import { PaintCrew } from './paintCrew';

const tell = (message: FromRender) => postMessage(message);
let stopped = false;

class Stopped extends Error {}

const isFilm = ({ format }: RenderPlan) => browserFilm(format) !== undefined;

/** Pictures that stand for themselves are written down a few at a time, since each is large. */
const FEW = 8;

type Start = Extract<ToRender, { type: 'start' }>;

async function render({ job, painters, journal: name }: Start): Promise<void> {
  const { reel, plan } = job;
  const scene = new ReelScene(reel, DOCUMENT_ONLY);
  const count = job.sample?.length ?? plan.count;
  // Sound alone is mixed in no time.
  const journal = name && plan.format !== 'wav' ? await openJournal(name.id, name.identity) : undefined;
  const pictures = plan.format === 'png' || plan.format === 'png-sequence';
  const groups = groupsOf(count, pictures ? FEW : groupLength(plan.rate));
  const written = groups.slice(0, journal?.groups ?? 0);
  const left = groups.slice(written.length);
  const first = left[0]?.first ?? count;
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
    sink = sinkOf(plan, file, scene.transparent, codec);
    const into = sink;
    const mixed: Mixed = (write, ceiling) =>
      new MixRender(
        plays,
        secondsAt(plan.from, plan.rate),
        secondsAt(plan.count, plan.rate),
        (media) => opened.get(media),
        write,
        ceiling,
      );
    const isCoded = codec !== undefined && codec !== 'wav' && !job.sample;
    const coded = isCoded ? await tried(mixed, codec as Coder) : undefined;
    const mix = codec && mixed((block) => into.hear(block), coded?.ceiling);
    // The sound goes along, so that neither track waits long for the other.
    let bytes = 0;
    const put: Put = async (group, { first: from, count: frames }) => {
      for (const { data, alpha } of group.frames) bytes += data.byteLength + (alpha?.byteLength ?? 0);
      await into.put(group);
      await mix?.until(secondsAt(from + frames, plan.rate));
    };
    for (const [i, span] of written.entries()) {
      if (stopped) throw new Stopped();
      await put(journal!.read(i), span);
    }
    if (crew) await writeGroups(crew, into, left, journal, put);
    else await writeSound(left, put);
    if (job.sample) {
      // What is still being compressed counts, too.
      await sink.finish();
      await file.discard();
      return tell({ type: 'sampled', bytes, painting: crew?.waited ?? 0 });
    }
    heard = mix && { ...(await mix.end()), ...(coded && { peak: coded.peak }) };
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
  const finished = await file.finish(typeOf(plan.format));
  tell({
    type: 'done',
    frames: plan.count,
    ...finished,
    ...(codec && heard ? { sound: { codec, ...heard } } : {}),
  });
}

type Coder = Exclude<SoundCodec, 'wav'>;
/** The mix of a render, whose blocks go somewhere. */
type Mixed = (write: (block: Stereo) => Promise<void> | void, ceiling?: number) => MixRender;

/** Tries how a mix comes out of a codec. @returns the ceiling that holds its peaks, and the peak that it has then */
async function tried(mixed: Mixed, codec: Coder): Promise<{ peak: number; ceiling?: number }> {
  const unlessStopped = () => {
    if (stopped) throw new Stopped();
  };
  const { peak } = await mixed(unlessStopped).end();
  if (peak < NEVER_OVER) return { peak };
  return heldBack(async (ceiling) => {
    const meter = new CodedMeter(codec);
    const mix = mixed((block) => {
      unlessStopped();
      return meter.push(block);
    }, ceiling);
    await mix.end();
    return { ceiling, peak: await meter.end() };
  });
}

function sinkOf(
  plan: RenderPlan,
  file: GrowingFile,
  transparent: boolean,
  codec: SoundCodec | undefined,
): GroupSink {
  const moving = movingPicture(plan.format);
  if (moving) return movingSink(moving, plan, file, transparent);
  if (isFilm(plan)) return filmSink(plan, file, transparent, codec);
  return plan.format === 'wav' ? soundSink(plan, file) : pictureSink(plan, file, codec !== undefined);
}

/** Frames of a group: the first, and how many. */
type Span = ReturnType<typeof groupsOf>[number];
/** Takes a group into the file, and its sound. */
type Put = (group: WrittenGroup, span: Span) => Promise<void>;

/** Paints and compresses what the journal does not hold. A group is written while the next one is painted. */
async function writeGroups(
  crew: PaintCrew,
  sink: GroupSink,
  spans: readonly Span[],
  journal: Journal | undefined,
  put: Put,
): Promise<void> {
  let before: Promise<void> = Promise.resolve();
  const write = async (maker: GroupMaker, span: Span) => {
    const group = await maker.end();
    journal?.append(group);
    await put(group, span);
  };
  for (const span of spans) {
    const maker = sink.make();
    try {
      for (let i = span.first; i < span.first + span.count; i++) {
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
    before = write(maker, span);
    // Told when it is waited for.
    before.catch(() => undefined);
  }
  await before;
}

/** Writes what is heard, a group of frames after the other, with no picture in any. */
async function writeSound(spans: readonly Span[], put: Put): Promise<void> {
  for (const span of spans) {
    if (stopped) throw new Stopped();
    await put({ frames: [] }, span);
    tell({ type: 'progress', frames: span.first + span.count });
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
