import { controlFills, isKeyed, takesPictures } from '../documents/controls';
import type { ControlFill, ControlValue, Fill, PictureFill } from '../documents/fill';
import type { Template } from '../documents/template';
import type {
  ClipWindow,
  FoundPicture,
  LayerContext,
  LetterMap,
  MediaFacts,
  Notice,
  Size,
} from '../layers/kind';
import { everyLayer, type Layer } from '../layers/registry';
import type { TextLayer } from '../layers/textSchema';
import { clipTime } from '../media/clipTime';
import { freshPicture } from '../media/pictureFill';
import type { Memo } from '../memo';
import { withinFrame } from '../paint/bounds';
import type { Op } from '../paint/ops';
import type { LayoutCache } from '../text/cache';
import { actualTime, type Clock, localTime, type Mark, markTime, stretches } from '../time/clock';
import { secondsAt } from '../time/rate';
import { type Moment, type Property, type Repeated, type Value, valueAt } from '../values/property';
import { arrange } from './arrange';
import { cameraMatrix } from './camera';
import { changedLayers, flatLayers } from './changes';
import { clockOf } from './clockOf';
import { type LaidPart, PaintPass, type Region } from './paintPass';
import { repeatsOf } from './repeats';
import { layersWith, type Seen, seenSpans, windowAt, wordlessRegions } from './seen';
import { SlotFills } from './slotFills';

export type { LaidPart, Region } from './paintPass';

/** One frame, ready to paint. */
export interface EvaluatedFrame {
  readonly ops: readonly Op[];
  readonly regions: readonly Region[];
  readonly notices: readonly Notice[];
  /** Where every layer that shows lies, from the lowest to the topmost, what is in a group before the group. */
  readonly parts: readonly LaidPart[];
  /** Where the letters of one text stand, when that was asked for. */
  readonly letters?: LetterMap;
}

/** What evaluation needs besides the document. */
export interface Resources {
  readonly layouts: LayoutCache;
  readonly memo: Memo;
  /** Size of a picture or clip and a clip's length, or nothing while it is missing. */
  mediaFacts(media: string): MediaFacts | undefined;
  /** Whether it is on its way, so that nobody is told yet that it is missing. */
  isComing?(media: string): boolean;
}

/**
 * One graphic at one frame shape: template, fill and time make a list of paint operations. Holds only what follows
 * from its inputs, so any frame can be asked for in any order.
 */
export class GraphicScene {
  /** What every control holds: a value, or keys. */
  readonly controls: Readonly<Record<string, ControlFill>>;
  /** The template's layers with the user's changes of its texts. */
  readonly layers: readonly Layer[];
  readonly clock: Clock;
  /** What stands in the slots. */
  readonly slots: SlotFills;
  private seenOnce: ReadonlyMap<string, Seen> | undefined;

  constructor(
    readonly template: Template,
    readonly fill: Fill,
    /** Frame units; see `layoutFrame`. */
    readonly frame: Size,
    private readonly resources: Resources,
  ) {
    this.controls = controlFills(template, fill, frame);
    const layers = fill.flat ? flatLayers(template.layers) : template.layers;
    this.layers = changedLayers(layers, fill.texts);
    this.slots = new SlotFills(template, fill);
    this.clock = clockOf(template, this.controls, frame, this.countOf);
  }

  /** Length in frames of the template's rate, as seen. */
  get length(): number {
    return stretches(this.clock).end;
  }

  /** Whether the picture has transparent parts by design. */
  get transparent(): boolean {
    const t = this.template.transparent;
    if (typeof t === 'boolean') return t;
    const held = this.controls[t.control];
    // A control that changes over time may open the picture at any of its keys.
    return isKeyed(held) ? held.keys.some((k) => k.value === t.is) : held === t.is;
  }

  /** A control's value at a time. */
  controlAt(id: string, time: number): ControlValue {
    const held = Object.hasOwn(this.controls, id) ? this.controls[id] : undefined;
    if (held === undefined) throw new Error(`The template "${this.template.id}" has no control "${id}".`);
    return valueAt(held as Property<ControlValue>, this.momentAt(time));
  }

  /** A control's value at a local time, as keyframes count it. */
  localControl(id: string, local: number): ControlValue {
    return this.controlAt(id, actualTime(this.clock, local));
  }

  /** Actual time of a local one. */
  actualOf(local: number): number {
    return actualTime(this.clock, local);
  }

  /** Actual time of a mark. */
  timeOf(mark: Mark): number {
    return actualTime(this.clock, markTime(this.clock, mark));
  }

  /** A text layer as the user has it, by its id. */
  textLayer(id: string): TextLayer | undefined {
    const found = [...everyLayer(this.layers)].find((l) => l.id === id);
    return found?.kind === 'text' ? found : undefined;
  }

  /** How often a part comes that is repeated. */
  private readonly countOf = (over: Repeated): number => repeatsOf(over, this.slots).length;

  private momentAt(time: number, driven?: Readonly<Record<string, ControlValue>>): Moment {
    const { clock, frame } = this;
    const controls = driven ? { ...this.controls, ...driven } : this.controls;
    return {
      clock,
      time: localTime(clock, time),
      controls: controls as Moment['controls'],
      frame,
      countOf: this.countOf,
    };
  }

  /** Any property's value at a time, as the user sees it. */
  valueAt<T extends Value>(p: Property<T>, time: number): T {
    return valueAt(p, this.momentAt(time));
  }

  /**
   * When the picture of a slot is in view: from its first frame in the picture to its last, in actual frames; of one
   * that never is, when its scenes are. Words count for nothing in it, so that it is the same whatever is typed.
   */
  seenSpan(slotId: string): readonly [from: number, to: number] {
    return this.seen.get(slotId)?.span ?? this.sceneSpan(slotId);
  }

  /** For how many actual frames the picture of a slot fades in, and out. */
  fadesOf(slotId: string): readonly [coming: number, going: number] {
    return this.seen.get(slotId)?.fades ?? [0, 0];
  }

  /**
   * The box that the picture of a slot fills when the slot is best seen, in frame units before it is turned. Undefined
   * where it takes the picture's own shape.
   */
  pictureWindow(slotId: string): Size | undefined {
    const slot = this.template.slots.find((s) => s.id === slotId);
    if (!slot) return undefined;
    const { layers, frame, slots } = this;
    const moment = this.momentAt(this.timeOf(slot.moment));
    return windowAt(slotId, (picture) =>
      wordlessRegions(layers, this.template.camera, frame, moment, this.resources.memo, slots, picture),
    );
  }

  private get seen(): ReadonlyMap<string, Seen> {
    this.seenOnce ??= this.findSeen();
    return this.seenOnce;
  }

  /** Scenes of the same layers share it: another letter typed makes another scene, and changes nothing of it. */
  private findSeen(): ReadonlyMap<string, Seen> {
    const { clock, frame } = this;
    const { camera, slots } = this.template;
    const pictures = new Set(slots.filter(takesPictures).map((slot) => slot.id));
    const layers = layersWith(this.layers, (slot) => pictures.has(slot));
    // A control that none of them goes by changes nothing of it.
    const said = JSON.stringify([layers, camera]);
    const controls = Object.entries(this.controls).filter(([id]) => said.includes(`"control":"${id}"`));
    const repeats = [...everyLayer(layers)].flatMap((layer) =>
      layer.kind === 'group' && layer.repeat
        ? [repeatsOf(layer.repeat.over, this.slots).map((r) => r.slot)]
        : [],
    );
    const key = `seen/${JSON.stringify([said, clock, controls, frame, repeats])}`;
    return this.resources.memo.of(key, () =>
      seenSpans(layers, camera, frame, this.length, this.resources.memo, this.slots, (time) =>
        this.momentAt(time),
      ),
    );
  }

  /** From the start of a slot's first scene to the end of its last. */
  private sceneSpan(slotId: string): readonly [from: number, to: number] {
    const slot = this.template.slots.find((s) => s.id === slotId);
    const scenes = this.template.scenes.filter((s) => slot?.scenes.includes(s.id));
    if (scenes.length === 0) return [0, this.length];
    return [
      Math.max(0, Math.min(...scenes.map((s) => this.timeOf(s.from)))),
      Math.max(...scenes.map((s) => this.timeOf(s.to))),
    ];
  }

  /** When the clip in a slot plays, in actual frames: while it is seen, or from where its layer says. */
  clipSpan(slotId: string, { from }: ClipWindow = {}): readonly [from: number, to: number] {
    const [first, last] = this.seenSpan(slotId);
    const start = from ? this.timeOf(from) : first;
    return [start, Math.max(start, last)];
  }

  /** The picture with the second of it that shows at a time, while it plays from one frame to another. */
  private found(
    held: PictureFill,
    { width, height, duration }: MediaFacts,
    [from, to]: readonly [number, number],
    time: number,
    freeze?: Mark,
  ): FoundPicture {
    const found = { ...held, width, height, id: held.media };
    if (duration === undefined) return found;
    const stop = freeze ? Math.min(time, this.timeOf(freeze)) : time;
    const seconds = (frames: number) => secondsAt(frames, this.template.rate);
    return { ...found, at: clipTime(seconds(stop - from), held.clip ?? {}, duration, seconds(to - from)) };
  }

  private context(moment: Moment, filmed: number, notices: Map<string, Notice>): LayerContext {
    return {
      moment,
      value: <T extends Value>(p: Property<T>) => valueAt(p, moment),
      words: (slot) => this.slots.words(slot),
      textLayer: (id) => this.textLayer(id),
      isFilled: (slot) => this.slots.isFilled(slot),
      repeats: (over) => repeatsOf(over, this.slots),
      picture: (slot, window) => {
        const held = this.slots.pictureFill(slot);
        if (!held) return undefined;
        const facts = this.resources.mediaFacts(held.media);
        if (!facts) {
          // What is on its way is not missing.
          if (!this.resources.isComing?.(held.media))
            notices.set(`missing-picture/${slot}`, { kind: 'missing-picture', slot });
          return undefined;
        }
        const span = facts.duration === undefined ? STILL : this.clipSpan(slot, window);
        return this.found(held, facts, span, filmed, window?.freeze);
      },
      standIn: (asset) => {
        const media = this.slots.asset(asset);
        const facts = media === undefined ? undefined : this.resources.mediaFacts(media);
        return facts && this.found(freshPicture(media!), facts, [0, this.length], filmed);
      },
      media: (held) => {
        const facts = this.resources.mediaFacts(held.media);
        return facts && this.found(held, facts, [0, this.length], filmed);
      },
      layouts: this.resources.layouts,
      memo: this.resources.memo,
      notice: (n) => notices.set(`${n.kind}/${n.slot}`, n),
    };
  }

  /**
   * The frame at a time.
   * @param time actual frames of the template's rate from its beginning, fractional between them
   * @param lettersOf the text layer whose letters' places are wanted too
   * @param driven values of controls that come from elsewhere at this moment
   * @param filmed the time whose frame clips show
   * @param beyond whether what lies beyond its frame is wanted too, since it is laid elsewhere
   */
  evaluate(
    time: number,
    lettersOf?: string,
    driven?: Readonly<Record<string, ControlValue>>,
    filmed: number = time,
    beyond = false,
  ): EvaluatedFrame {
    const moment = this.momentAt(time, driven);
    const notices = new Map<string, Notice>();
    const context = this.context(moment, filmed, notices);
    const nodes = arrange(this.layers, this.frame, context);
    const pass = new PaintPass(context, lettersOf);
    const view = cameraMatrix(this.template.camera, this.frame, context.value);
    const painted = pass.paintAll(nodes, view);
    return {
      ops: beyond ? painted : withinFrame(painted, this.frame),
      regions: pass.regions,
      parts: pass.parts,
      notices: [...notices.values()],
      ...(pass.letters ? { letters: pass.letters } : {}),
    };
  }
}

/** A picture that does not move has no span. */
const STILL = [0, 0] as const;
