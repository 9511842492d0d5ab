import '../workers/alive';
import {
  type ClipFrame,
  clipFramesOf,
  messageOf,
  type Op,
  type Reel,
  ReelScene,
  type Surface,
  sameMoments,
  type TextOfItem,
} from '@fresh-reel/core';
import { BrowserStudio, surfaceOf } from '../engine/browserStudio';
import { onStored } from '../storage/changes';
import { answerTo } from './answers';
import type { FromPreview, ToPreview } from './messages';
import { Supplies } from './supplies';

/** Milliseconds a playing frame may cost before the resolution goes down, and below which it may go up again. */
const TOO_SLOW = 18;
const QUICK = 9;
/** Milliseconds from one picture to the next that is too long, whatever takes them: clips are decoded here, too. */
const TOO_FAR = 1000 / 32;
const NEAR = 1000 / 45;
/** Milliseconds after which what was sought last is looked at, rather than on the way to another. */
const SETTLED = 400;
/** Milliseconds of a frame of the screen, of most. */
const SCREEN_FRAME = 1000 / 60;
const QUALITIES = [1, 0.75, 0.5, 0.35] as const;

interface Showing {
  readonly surface: Surface;
  full: { width: number; height: number };
  scene: ReelScene | undefined;
  revision: number;
  /** How much was asked of it. */
  asked: number;
  frame: number;
  /** Runs while frames are sought one after the other. */
  seeking: ReturnType<typeof setTimeout> | undefined;
  playing: { startedAt: number; from: number; loop: boolean } | undefined;
  /** The text whose letters' places go with each frame. */
  lettersOf: TextOfItem | undefined;
  /** The graphic whose parts' places go with each frame at rest. */
  partsOf: string | undefined;
  /** Index into QUALITIES while playing. */
  quality: number;
  /** Running means of the cost of a frame, and of the time from one to the next while it plays. */
  cost: number;
  gap: number;
  shownAt: number;
  painted: { ops: readonly (readonly Op[])[]; width: number; pictures: number; draft: boolean } | undefined;
  /** The frame whose frames of clips are decoded next. */
  wanted: { readonly number: number; readonly frames: readonly ClipFrame[] } | undefined;
  fetching: boolean;
}

const showings = new Map<string, Showing>();
const studio = BrowserStudio.start({ proxies: true }).then((engine) => ({
  engine,
  supplies: new Supplies(
    engine,
    {
      picture: (id) => tell({ type: 'needs-picture', id }),
      fonts: (families) => tell({ type: 'needs-fonts', families }),
    },
    mediaInUse,
    (media) => repaint(media, engine),
  ),
}));
/** Counts pictures that arrived, so that a frame is painted again when one it needs comes. */
let pictures = 0;

const tell = (message: FromPreview) => postMessage(message);

studio.catch((error: unknown) => fail(undefined, error));

/** Documents to show, the newest of each surface; one after the other, with a turn of the event loop between. */
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
      tell({ type: 'taken', surface: id, revision });
    }
    showing = false;
    if (waiting.size > 0) showSoon();
  }, 0);
}

function fail(surface: string | undefined, error: unknown): void {
  tell({ type: 'fault', surface, message: messageOf(error) });
}

async function show(id: string, reel: Reel, revision: number): Promise<void> {
  const showing = showings.get(id);
  if (!showing) return;
  const { engine, supplies } = await studio;
  const scene = new ReelScene(reel, engine);
  await supplies.fonts(scene);
  // A newer document may have come while fonts were loading.
  if (showing.revision > revision || showings.get(id) !== showing) return;
  showing.scene = scene;
  showing.revision = revision;
  void supplies.pictures(scene);
  paint(id, showing, engine);
}

function mediaInUse(): string[] {
  return [...showings.values()].flatMap((s) => s.scene?.media() ?? []);
}

/** Paints again what shows some media, now that there is more of it. */
function repaint(media: string, engine: BrowserStudio): void {
  pictures++;
  for (const [id, showing] of showings) {
    if (!showing.playing && showing.scene?.media().includes(media)) paint(id, showing, engine);
  }
}

/**
 * Decodes the frames of clips that a surface wants. While it plays, those of moments gone by are passed over; at rest,
 * the picture is painted when they are there.
 */
async function fetchFrames(id: string, showing: Showing, engine: BrowserStudio): Promise<void> {
  if (showing.fetching) return;
  showing.fetching = true;
  try {
    while (showing.wanted) {
      const { number, frames } = showing.wanted;
      showing.wanted = undefined;
      await engine.framesReady(frames);
      pictures++;
      // What was sought meanwhile comes next; this is on its way to it.
      if (!showing.playing && showings.get(id) === showing) paint(id, showing, engine, number, true);
      if (!showing.playing && !showing.wanted && showing.frame !== number) paint(id, showing, engine);
    }
  } catch (error) {
    fail(id, error);
  } finally {
    showing.fetching = false;
  }
}

/**
 * @param number frame of the reel; the one that is sought unless another is said
 * @param ready frames of clips that are missing now cannot be had
 */
function paint(
  id: string,
  showing: Showing,
  engine: BrowserStudio,
  number = showing.frame,
  ready = false,
): void {
  const { scene, surface, full } = showing;
  if (!scene || full.width === 0) return;
  const started = performance.now();
  const count = scene.frameCount(scene.reel.rate);
  const at = Math.min(Math.max(number, 0), count - 1);
  // Motion blur is for the final and for a picture that stands; while playing, only if it keeps up.
  const still = !showing.playing || showing.quality === 0;
  const frame = scene.frameAt(at, scene.reel.rate, showing.lettersOf);
  const blurred = still && scene.reel.motionBlur.samples > 1;
  const ops = blurred ? scene.subFrames(at, scene.reel.rate).map((m) => m.ops) : [frame.ops];
  const quality = showing.playing ? QUALITIES[showing.quality]! : 1;
  const width = Math.max(1, Math.round(full.width * quality));
  const height = Math.max(1, Math.round(full.height * quality));
  engine.keepClipsTo(longestSide(), isMoving());
  if (!ready && engine.framesMissing(ops).length > 0) {
    // All frames of the moment, so that those at hand stay while the others come.
    showing.wanted = { number, frames: clipFramesOf(ops) };
    void fetchFrames(id, showing, engine);
    // Until they are there, what was painted last stays.
    if (!showing.playing && showing.painted) return;
  }
  const last = showing.painted;
  const same =
    last &&
    last.draft === !still &&
    last.width === width &&
    last.pictures === pictures &&
    sameMoments(last.ops, ops);
  if (!same) {
    if (surface.canvas.width !== width || surface.canvas.height !== height) {
      surface.canvas.width = width;
      surface.canvas.height = height;
    }
    // A machine that does not keep up first does without what costs much.
    engine.painter.draft = !still;
    engine.painter.paintMoments(ops, surface, scene.frame);
    showing.painted = { ops, width, pictures, draft: !still };
  }
  const cost = performance.now() - started;
  showing.cost = showing.cost * 0.8 + cost * 0.2;
  tell({
    type: 'frame',
    surface: id,
    frame: {
      number: at,
      count,
      revision: showing.revision,
      regions: frame.regions,
      notices: frame.notices,
      letters: frame.letters,
      ...(showing.partsOf !== undefined && !showing.playing
        ? { parts: scene.laidAt(at, showing.partsOf) }
        : {}),
      layout: scene.frame,
      cost,
      quality,
    },
    asked: showing.asked,
    whole: showing.playing !== undefined || isWhole(showing, scene, engine, number),
  });
}

/** Whether nothing is on its way that would make the picture of a frame another one. */
const isWhole = (showing: Showing, scene: ReelScene, engine: BrowserStudio, number: number): boolean =>
  number === showing.frame &&
  !showing.wanted &&
  showing.seeking === undefined &&
  !scene.media().some((id) => engine.coming.has(id));

/** Pixels of the longest side of the largest surface: more of a clip is not seen. */
const longestSide = () =>
  [...showings.values()].reduce((most, { full, playing, quality }) => {
    const part = playing ? QUALITIES[quality]! : 1;
    return Math.max(most, full.width * part, full.height * part);
  }, 320);

const isMoving = () => [...showings.values()].some((s) => s.playing || s.seeking !== undefined);

/** Keeps the resolution where frames come in time. */
function settleQuality(showing: Showing): void {
  const slow = showing.cost > TOO_SLOW || showing.gap > TOO_FAR;
  const quick = showing.cost < QUICK && showing.gap < NEAR;
  const quality = showing.quality + (slow ? 1 : quick ? -1 : 0);
  if (quality === showing.quality || quality < 0 || quality >= QUALITIES.length) return;
  showing.quality = quality;
  showing.cost = (TOO_SLOW + QUICK) / 2;
  showing.gap = (TOO_FAR + NEAR) / 2;
}

let ticking = false;
/** Milliseconds that all that plays took to be painted last. */
let tickCost = 0;

function tick(): void {
  ticking = false;
  void studio.then(({ engine }) => {
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
        const gap = Math.min(100, now - showing.shownAt);
        showing.gap = showing.gap * 0.85 + gap * 0.15;
        showing.shownAt = now;
        settleQuality(showing);
      }
    }
    tickCost = performance.now() - now;
    keepTicking();
  });
}

function keepTicking(): void {
  if (ticking || ![...showings.values()].some((s) => s.playing)) return;
  ticking = true;
  // Several that play take longer than the screen's own frame: waiting for its next one would be lost time.
  if (tickCost > SCREEN_FRAME) setTimeout(tick);
  else requestAnimationFrame(tick);
}

// What shows a file or a font that came or went is made ready and painted anew.
onStored(async (change) => {
  const { engine, supplies } = await studio;
  if (change.kind === 'proxy') return engine.proxyChanged(`sha256:${change.id}`);
  supplies.changed(change);
  const shows = (scene: ReelScene) => change.kind === 'font' || scene.media().includes(`sha256:${change.id}`);
  for (const [id, showing] of showings) {
    const { scene } = showing;
    if (!scene || !shows(scene)) continue;
    await supplies.fonts(scene);
    void supplies.pictures(scene);
    pictures++;
    if (!showing.playing) paint(id, showing, engine);
  }
});

async function receive(message: ToPreview): Promise<void> {
  const { engine, supplies } = await studio;
  switch (message.type) {
    case 'picture':
      supplies.gotPicture(message.id, message.picture);
      return;
    case 'fonts':
      supplies.gotFonts(message.families, message.fonts);
      return;
    case 'fetched':
      tell({ type: 'fetched', addresses: performance.getEntriesByType('resource').map((e) => e.name) });
      return;
    case 'ask': {
      const { request, reel, question } = message;
      const answered = answerTo(question, reel, engine, supplies).then(
        (answer) => ({ answer }),
        (error: unknown) => ({ fault: messageOf(error) }),
      );
      tell({ type: 'answer', request, ...(await answered) });
      return;
    }
  }
  if (message.type === 'attach') {
    showings.set(message.surface, {
      surface: surfaceOf(message.canvas),
      full: { width: 0, height: 0 },
      scene: undefined,
      revision: -1,
      asked: message.asked,
      frame: 0,
      seeking: undefined,
      playing: undefined,
      quality: 0,
      cost: QUICK,
      gap: NEAR,
      shownAt: 0,
      painted: undefined,
      lettersOf: undefined,
      partsOf: undefined,
      wanted: undefined,
      fetching: false,
    });
    return;
  }
  const showing = showings.get(message.surface);
  if (!showing) return;
  showing.asked = message.asked;
  switch (message.type) {
    case 'detach':
      showings.delete(message.surface);
      supplies.tidy();
      return;
    case 'show':
      waiting.set(message.surface, { reel: message.reel, revision: message.revision });
      showSoon();
      return;
    case 'resize':
      showing.full = { width: message.width, height: message.height };
      paint(message.surface, showing, engine);
      return;
    case 'seek':
      showing.frame = message.frame;
      if (showing.playing)
        showing.playing = { ...showing.playing, startedAt: performance.now(), from: message.frame };
      clearTimeout(showing.seeking);
      showing.seeking = setTimeout(() => {
        showing.seeking = undefined;
        // Now with all the pixels there are.
        if (showings.get(message.surface) === showing) paint(message.surface, showing, engine);
      }, SETTLED);
      paint(message.surface, showing, engine);
      return;
    case 'letters':
      showing.lettersOf = message.text;
      paint(message.surface, showing, engine);
      return;
    case 'parts':
      showing.partsOf = message.graphic;
      paint(message.surface, showing, engine);
      return;
    case 'play':
      showing.frame = message.from;
      showing.playing = { startedAt: performance.now(), from: message.from, loop: message.loop };
      keepTicking();
      return;
    case 'pause':
      showing.playing = undefined;
      paint(message.surface, showing, engine);
      return;
  }
}

self.onmessage = ({ data }: MessageEvent<ToPreview>) => {
  receive(data).catch((error: unknown) => fail('surface' in data ? data.surface : undefined, error));
};
