import type { Homography, Matrix4 } from '../geometry/matrix';
import type { Rect, Size } from '../geometry/rect';
import type { PictureFill } from '../media/pictureFill';
import type { Memo } from '../memo';
import type { Op } from '../paint/ops';
import type { LayoutCache } from '../text/cache';
import type { TextLayout } from '../text/textLayout';
import type { Mark } from '../time/clock';
import type { Moment, Repeated } from '../values/property';
import type { Bend } from './bend';
import type { LayerBase, ValueOf } from './common';
import type { Run } from './textStyle';

export type { Size } from '../geometry/rect';

/** All kinds of layers there are, and those that others ask for: the registry, which knows them, tells. */
// biome-ignore lint/suspicious/noEmptyInterface: it is filled where the kinds are known
export interface KnownLayers {}

/** Words with the parts of them that are marked or have a look of their own. */
export interface Words {
  readonly text: string;
  readonly runs: readonly Run[];
}

/** What is known of a decoded picture or clip before it is painted. */
export interface MediaFacts extends Size {
  /** Seconds a clip lasts; pictures have none. */
  readonly duration?: number;
  /** Frames a second of a clip, on the average. */
  readonly rate?: number;
  /** Whether a clip has sound of its own. */
  readonly sound?: boolean;
  /** Pixels there are for one of its own size: of vector pictures, as many as one likes. 1, when absent. */
  readonly density?: number;
}

/** A picture or clip of a slot, with its own size and how it sits there. */
export type FoundPicture = PictureFill &
  Size & {
    readonly id: string;
    /** Of a clip: the second of the file that shows. */
    readonly at?: number;
  };

/** When a clip plays in a layer: from its slot's scene on, and to the end, unless the layer says otherwise. */
export interface ClipWindow {
  readonly from?: Mark | undefined;
  /** The moment from which it stands still. */
  readonly freeze?: Mark | undefined;
}

/** Where the letters of a text stand in a frame. */
export interface LetterMap {
  readonly layer: string;
  readonly letters: readonly {
    /** Range of the words, in UTF-16 indices. */
    readonly from: number;
    readonly to: number;
    /** Corners from the top left clockwise, in frame units; of the letter as it stands now, turned and bent. */
    readonly quad: readonly (readonly [number, number])[];
    /** The way its middle takes about this moment, where it moves. A working aid. */
    readonly way?: readonly (readonly [number, number])[];
  }[];
}

/** One of what a part comes once for: a slot, and the line of it where it is one of lines. */
export interface Repeat {
  readonly slot: string;
  readonly words?: Words;
}

/** What a layer finds in the slots, and where pictures and fonts come from. */
export interface LayerContext {
  readonly value: ValueOf;
  readonly moment: Moment;
  /** Words of a text slot; empty when the user emptied it. */
  words(slot: string): Words;
  /** What a repeated part comes once for, in order. */
  repeats(over: Repeated): readonly Repeat[];
  /** The slot that `each` stands for in a repeated part. */
  readonly each?: string;
  /** A text layer of the same document, by its id. */
  textLayer(id: string): KnownLayers['text'] | undefined;
  /** Whether a slot has something to show. */
  isFilled(slot: string): boolean;
  /** Fill of a picture slot with the picture's own size, or nothing when it is empty or its file is missing. */
  picture(slot: string, window?: ClipWindow): FoundPicture | undefined;
  /** The picture or clip among the template's own that stands for a layer, or nothing while it is missing. */
  standIn(asset: string): FoundPicture | undefined;
  /** A picture that is not in a slot, or nothing while it is missing. */
  media(fill: PictureFill): FoundPicture | undefined;
  readonly layouts: LayoutCache;
  readonly memo: Memo;
  /** Says something about a slot that the user should know; the same notice twice counts once. */
  notice(notice: Notice): void;
}

/** Something the user should hear about what they put in a slot. */
export type Notice =
  | { readonly kind: 'shrunk'; readonly slot: string; readonly percent: number }
  | { readonly kind: 'cut'; readonly slot: string; readonly words: string }
  | { readonly kind: 'missing-letters'; readonly slot: string; readonly letters: string }
  /** A font that is not there; its letters are set in another. */
  | { readonly kind: 'missing-font'; readonly slot: string; readonly family: string }
  | { readonly kind: 'missing-picture'; readonly slot: string }
  /** A part of a kind that this version does not know is not there, or something stands for it. */
  | { readonly kind: 'newer-part'; readonly slot: string; readonly part: string; readonly stands: boolean }
  /** There is more to paint than a frame may hold; the rest is left out. Of the whole graphic: its slot is empty. */
  | { readonly kind: 'too-much'; readonly slot: string }
  /** Lines of a list whose columns do not say where they are. */
  | { readonly kind: 'no-place'; readonly slot: string; readonly words: string }
  /** The path its words should run along has no length. */
  | { readonly kind: 'short-path'; readonly slot: string };

/** What measuring found, kept for painting. */
export interface Measured {
  readonly size: Size;
  readonly text?: TextLayout;
  readonly runs?: readonly Run[];
  readonly bend?: Bend;
}

/** A layer with its place, ready to paint. */
export interface Node<L extends LayerBase = LayerBase> {
  readonly layer: L;
  /** Box in the parent's coordinates. */
  readonly box: Rect;
  readonly measured: Measured;
  readonly children: readonly Node[];
  /** Of one of a repeated part's: what it finds in the slots, and when it is. */
  readonly context?: LayerContext;
}

export interface PaintTools extends LayerContext {
  /** From the layer's own coordinates (its box's top left is 0, 0) to the camera's, projection included. */
  readonly matrix: Matrix4;
  readonly plane: Homography;
  /** How much larger than its own units the layer shows, at its middle: what blurs by units blurs by so much more. */
  readonly scale: number;
  /** Takes where the letters stand, when that is asked for. */
  readonly reportLetters?: (letters: LetterMap['letters']) => void;
  /**
   * Tells where a slot of a layer with several shows, when that is not all of the layer. Of a slot that shows more than
   * once the last is taken hold of: it lies on top.
   * @param matrix from the coordinates of the part it shows in, whose top left is 0, 0
   */
  readonly reportSlot?: (slot: string, matrix: Matrix4, part: Size, picture: Size) => void;
  /** A layer beside this one, and the way from its own coordinates to this one's, both at rest. */
  besides(id: string): { readonly node: Node<KnownLayers['any']>; readonly matrix: Matrix4 } | undefined;
  /**
   * Paints a child node of a group.
   * @param through a way from the group's own coordinates to them, as a mirror has it: nothing is taken hold of there
   */
  paintChild(child: Node, through?: Matrix4): Op[];
  /** From a child's own coordinates to the camera's. */
  matrixOf(child: Node, through?: Matrix4): Matrix4;
  /** Depth of the middle of a child, motion included: larger is farther from the viewer. */
  depth(child: Node): number;
}

/**
 * A kind of layer: its document, its own size, and what it paints. One file per kind; the registry names them.
 */
export interface LayerKind<L extends LayerBase> {
  /** Natural size within a parent box; `undefined` when the layer has nothing to show and should take no room. */
  measure(layer: L, parent: Size, context: LayerContext): Measured | undefined;
  paint(node: Node<L>, tools: PaintTools): Op[];
  /** Slots this layer shows. */
  slots(layer: L): string[];
}
