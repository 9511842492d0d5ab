import '../workers/alive';
import { LimitedMix, ReelScene, SOUND_RATE, type SoundPlay } from '@fresh-reel/core';
import { SoundReader } from '../decode/soundReader';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { onStored } from '../storage/changes';
import type { FromMix, PlayerBlock, PlayerHeard, ToMix } from './messages';

/**
 * Mixes the sound of the reel that is open, as a render mixes it, a little ahead of what is heard. The blocks go
 * straight to the player; the page takes no part.
 */

/** Seconds mixed ahead of what is heard. */
const AHEAD = 1.5;

interface Heard {
  readonly plays: readonly SoundPlay[];
  readonly length: number;
}

/** The sounds of the reel, and what turned out to have none. */
const sounds = new Map<string, Promise<SoundReader | null>>();
const open = new Map<string, SoundReader>();
let heard: Heard | undefined;
let player: MessagePort | undefined;
let run: { readonly id: number; heard: number; wake: () => void } | undefined;

const tell = (message: FromMix) => postMessage(message);

async function openSound(media: string): Promise<void> {
  let opening = sounds.get(media);
  if (!opening) {
    opening = SoundReader.open(media).catch(() => null);
    sounds.set(media, opening);
  }
  const reader = await opening;
  if (reader && sounds.get(media) === opening) open.set(media, reader);
}

function forget(media: string): void {
  sounds.delete(media);
  open.get(media)?.close();
  open.delete(media);
}

async function show({ reel, request }: Extract<ToMix, { type: 'show' }>): Promise<void> {
  const scene = new ReelScene(reel, DOCUMENT_ONLY);
  const media = new Set([...scene.sounds(), ...scene.media()]);
  for (const id of [...sounds.keys()]) if (!media.has(id)) forget(id);
  await Promise.all([...media].map(openSound));
  const plays = scene.plays((id) => open.get(id)?.facts);
  const length = scene.frameCount(reel.rate) * (reel.rate.den / reel.rate.num);
  const changed = length !== heard?.length || JSON.stringify(plays) !== JSON.stringify(heard.plays);
  heard = { plays, length };
  tell({ type: 'shown', request, heard: plays.length > 0, changed, length });
}

async function play({ run: id, from, loop }: Extract<ToMix, { type: 'play' }>): Promise<void> {
  stop();
  const what = heard;
  if (!what || !player) return;
  const mine: NonNullable<typeof run> = { id, heard: 0, wake: () => undefined };
  run = mine;
  let first = 0;
  let mix = new LimitedMix(what.plays, from, what.length - from, (media) => open.get(media));
  while (run === mine) {
    const planes = await mix.next();
    if (run !== mine) return;
    if (!planes) {
      if (!loop) return;
      mix = new LimitedMix(what.plays, 0, what.length, (media) => open.get(media));
      continue;
    }
    // What is handed over is here no more.
    const { length } = planes[0];
    player.postMessage(
      { run: id, first, planes } satisfies PlayerBlock,
      planes.map((p) => p.buffer as ArrayBuffer),
    );
    first += length;
    while (run === mine && first - mine.heard > AHEAD * SOUND_RATE)
      await new Promise<void>((resolve) => {
        mine.wake = resolve;
      });
  }
}

function stop(): void {
  run?.wake();
  run = undefined;
}

function listen(port: MessagePort): void {
  player = port;
  port.onmessage = ({ data }: MessageEvent<PlayerHeard>) => {
    if (run?.id !== data.run) return;
    run.heard = data.heard;
    run.wake();
  };
}

// What was not there may be there now.
onStored(({ kind, id }) => kind === 'media' && forget(`sha256:${id}`));

self.onmessage = ({ data }: MessageEvent<ToMix>) => {
  switch (data.type) {
    case 'show':
      // A sound that cannot be opened is silent, which the checks tell.
      show(data).catch(() =>
        tell({ type: 'shown', request: data.request, heard: false, changed: true, length: 0 }),
      );
      return;
    case 'play':
      // A sound that breaks off in the middle is silent from there on.
      play(data).catch(stop);
      return;
    case 'stop':
      stop();
      return;
    case 'player':
      listen(data.port);
      return;
    case 'leave':
      stop();
      heard = undefined;
      for (const media of [...sounds.keys()]) forget(media);
  }
};
