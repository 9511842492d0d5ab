import {
  type ClipFrame,
  clipFramesOf,
  type Op,
  type Reel,
  ReelScene,
  type Surface,
  sameMoments,
  type TextOfItem,
} from '@fresh-reel/core';
import { BrowserStudio, surfaceOf } from '../engine/browserStudio';
import type { FromPreview, ToPreview } from './messages';

/** Milliseconds a playing frame may cost before the resolution goes down, and below which it may go up again. */
const TOO_SLOW = 24;
const QUICK = 9;
/** Decoded pictures kept; the oldest that no surface shows go first. */
const MOST_PICTURES = 24;
const QUALITIES = [1, 0.75, 0.5, 0.35] as const;

interface Showing {
  readonly surface: Surface;
  full: { width: number; height: number };
  scene: ReelScene | undefined;
  revision: number;
  frame: number;
  playing: { startedAt: number; from: number; loop: boolean } | undefined;
  /** The text whose letters' places go with each frame. */
  lettersOf: TextOfItem | undefined;
  /** Index into QUALITIES while playing. */
  quality: number;
  /** Running mean of the cost of a frame. */
  cost: number;
  painted: { ops: readonly (readonly Op[])[]; width: number; pictures: number } | undefined;
  /** Frames of clips that the last moment painted lacks. */
  wanted: readonly ClipFrame[];
  fetching: boolean;
}

const showings = new Map<string, Showing>();
const asked = new Set<string>();
const askedFonts = new Set<string>();
const studio = BrowserStudio.start();
/** Counts pictures that arrived, so that a frame is painted again when one it needs comes. */
let pictures = 0;

const tell = (message: FromPreview) => postMessage(message);

studio.catch((error: unknown) => fail(undefined, error));

/**
 * Documents to show, the newest of each surface. They wait for one turn of the event loop, so that of a burst (a word
 * typed fast, a drag) only what is still wanted is laid out and painted.
 */
const waiting = new Map<string, { reel: Reel; revision: number }>();
let showing = false;

function showSoon(): void {
  if (showing) return;
  showing = true;
  setTimeout(async () => {
    const [next] = waiting;
    if (next) {
      const [id, { reel, revision }] = next;
      waiting.delete(id);
      await show(id, reel, revision).catch((error: unknown) => fail(id, error));
    }
    showing = false;
    if (waiting.size > 0) showSoon();
  }, 0);
}

function fail(surface: string | undefined, error: unknown): void {
  tell({ type: 'fault', surface, message: error instanceof Error ? error.message : String(error) });
}

async function show(id: string, reel: Reel, revision: number): Promise<void> {
  const showing = showings.get(id);
  if (!showing) return;
  const engine = await studio;
  const scene = new ReelScene(reel, engine);
  if (!engine.hasFonts(scene)) await engine.loadFonts(scene);
  const unknown = engine.missingFamilies(scene).filter((f) => !askedFonts.has(f));
  if (unknown.length > 0) {
    for (const family of unknown) askedFonts.add(family);
    tell({ type: 'needs-fonts', families: unknown });
  }
  // A newer document may have come while fonts were loading.
  if (showing.revision > revision || showings.get(id) !== showing) return;
  showing.scene = scene;
  showing.revision = revision;
  const missing = engine.missingMedia(scene).filter((media) => !asked.has(media));
  for (const media of missing) {
    asked.add(media);
    void fetchMedia(media, engine);
  }
  paint(id, showing, engine);
}

/** Clips are opened here; pictures are decoded by the page, which alone can draw vectors. */
async function fetchMedia(media: string, engine: BrowserStudio): Promise<void> {
  if (await engine.openClip(media)) {
    const inUse = new Set([media, ...mediaInUse()]);
    for (const id of engine.dropClips(inUse)) asked.delete(id);
    repaint(media, engine);
  } else tell({ type: 'needs-picture', id: media });
}

const mediaInUse = () => [...showings.values()].flatMap((s) => s.scene?.media() ?? []);

/** Paints again what shows some media, now that there is more of it. */
function repaint(media: string, engine: BrowserStudio): void {
  pictures++;
  for (const [id, showing] of showings) {
    if (!showing.playing && showing.scene?.media().includes(media)) paint(id, showing, engine);
  }
}

/**
 * Decodes the frames of clips that a surface wants. While it plays, those of moments gone by are passed over; at rest,
 * the picture is painted again with the right ones.
 */
async function fetchFrames(id: string, showing: Showing, engine: BrowserStudio): Promise<void> {
  if (showing.fetching) return;
  showing.fetching = true;
  try {
    while (showing.wanted.length > 0) {
      const frames = showing.wanted;
      showing.wanted = [];
      await engine.framesReady(frames);
      pictures++;
      if (!showing.playing && showings.get(id) === showing) paint(id, showing, engine);
    }
  } catch (error) {
    fail(id, error);
  } finally {
    showing.fetching = false;
  }
}

function paint(id: string, showing: Showing, engine: BrowserStudio): void {
  const { scene, surface, full } = showing;
  if (!scene || full.width === 0) return;
  const started = performance.now();
  const count = scene.frameCount(scene.reel.rate);
  const number = Math.min(Math.max(showing.frame, 0), count - 1);
  // Motion blur is for the final and for a picture that stands; while playing, only if it keeps up.
  const still = !showing.playing || showing.quality === 0;
  const frame = scene.frameAt(number, scene.reel.rate, showing.lettersOf);
  const blurred = still && scene.reel.motionBlur.samples > 1;
  const ops = blurred ? scene.subFrames(number, scene.reel.rate).map((m) => m.ops) : [frame.ops];
  const quality = showing.playing ? QUALITIES[showing.quality]! : 1;
  const width = Math.max(1, Math.round(full.width * quality));
  const height = Math.max(1, Math.round(full.height * quality));
  engine.keepClipsTo(longestSide());
  // All frames of the moment, so that those at hand stay while the others come.
  showing.wanted = engine.framesMissing(ops).length > 0 ? clipFramesOf(ops) : [];
  if (showing.wanted.length > 0) void fetchFrames(id, showing, engine);
  const last = showing.painted;
  const same = last && last.width === width && last.pictures === pictures && sameMoments(last.ops, ops);
  if (!same) {
    if (surface.canvas.width !== width || surface.canvas.height !== height) {
      surface.canvas.width = width;
      surface.canvas.height = height;
    }
    engine.painter.paintMoments(ops, surface, scene.frame);
    showing.painted = { ops, width, pictures };
  }
  const cost = performance.now() - started;
  showing.cost = showing.cost * 0.8 + cost * 0.2;
  tell({
    type: 'frame',
    surface: id,
    frame: {
      number,
      count,
      revision: showing.revision,
      regions: frame.regions,
      notices: frame.notices,
      letters: frame.letters,
      layout: scene.frame,
      cost,
      quality,
    },
  });
}

/** Pixels of the longest side of the largest surface: more of a clip is not seen. */
const longestSide = () =>
  [...showings.values()].reduce((most, { full }) => Math.max(most, full.width, full.height), 640);

/** Keeps the resolution where frames come in time. */
function settleQuality(showing: Showing): void {
  if (showing.cost > TOO_SLOW && showing.quality < QUALITIES.length - 1) {
    showing.quality++;
    showing.cost = (TOO_SLOW + QUICK) / 2;
  } else if (showing.cost < QUICK && showing.quality > 0) {
    showing.quality--;
    showing.cost = (TOO_SLOW + QUICK) / 2;
  }
}

let ticking = false;

function tick(): void {
  ticking = false;
  void studio.then((engine) => {
    const now = performance.now();
    for (const [id, showing] of showings) {
      const { playing, scene } = showing;
      if (!playing || !scene) continue;
      const { rate } = scene.reel;
      const count = scene.frameCount(rate);
      let frame = playing.from + Math.floor(((now - playing.startedAt) * rate.num) / (1000 * rate.den));
      if (frame >= count) {
        if (!playing.loop) {
          showing.playing = undefined;
          showing.frame = count - 1;
          paint(id, showing, engine);
          tell({ type: 'ended', surface: id });
          continue;
        }
        frame %= count;
      }
      if (frame !== showing.frame || !showing.painted) {
        showing.frame = frame;
        paint(id, showing, engine);
        settleQuality(showing);
      }
    }
    keepTicking();
  });
}

function keepTicking(): void {
  if (ticking || ![...showings.values()].some((s) => s.playing)) return;
  ticking = true;
  requestAnimationFrame(tick);
}

async function receive(message: ToPreview): Promise<void> {
  if (message.type === 'picture') {
    const engine = await studio;
    engine.addPicture(message.id, message.picture);
    const inUse = new Set([message.id, ...mediaInUse()]);
    for (const id of engine.dropPictures(inUse, MOST_PICTURES)) asked.delete(id);
    repaint(message.id, engine);
    return;
  }
  if (message.type === 'added') {
    if (mediaInUse().includes(message.id)) await fetchMedia(message.id, await studio);
    else asked.delete(message.id);
    return;
  }
  if (message.type === 'fonts') {
    const engine = await studio;
    engine.addFonts(message.fonts);
    // A family that is not there may be added later in the visit: it is asked for again.
    for (const family of message.families) askedFonts.delete(family);
    if (message.fonts.length > 0) {
      for (const [id, showing] of showings) paint(id, showing, engine);
    } else for (const family of message.families) askedFonts.add(family);
    return;
  }
  if (message.type === 'attach') {
    showings.set(message.surface, {
      surface: surfaceOf(message.canvas),
      full: { width: 0, height: 0 },
      scene: undefined,
      revision: -1,
      frame: 0,
      playing: undefined,
      quality: 0,
      cost: QUICK,
      painted: undefined,
      lettersOf: undefined,
      wanted: [],
      fetching: false,
    });
    return;
  }
  const showing = showings.get(message.surface);
  if (!showing) return;
  switch (message.type) {
    case 'check': {
      const engine = await studio;
      const scene = new ReelScene(message.reel, engine);
      await engine.loadFonts(scene);
      tell({ type: 'checks', request: message.request, checks: scene.checks() });
      return;
    }
    case 'detach':
      showings.delete(message.surface);
      return;
    case 'show':
      waiting.set(message.surface, { reel: message.reel, revision: message.revision });
      showSoon();
      return;
    case 'resize':
      showing.full = { width: message.width, height: message.height };
      paint(message.surface, showing, await studio);
      return;
    case 'seek':
      showing.frame = message.frame;
      if (showing.playing)
        showing.playing = { ...showing.playing, startedAt: performance.now(), from: message.frame };
      paint(message.surface, showing, await studio);
      return;
    case 'letters':
      showing.lettersOf = message.text;
      paint(message.surface, showing, await studio);
      return;
    case 'play':
      showing.frame = message.from;
      showing.playing = { startedAt: performance.now(), from: message.from, loop: message.loop };
      keepTicking();
      return;
    case 'pause':
      showing.playing = undefined;
      paint(message.surface, showing, await studio);
      return;
  }
}

self.onmessage = ({ data }: MessageEvent<ToPreview>) => {
  receive(data).catch((error: unknown) => fail('surface' in data ? data.surface : undefined, error));
};
