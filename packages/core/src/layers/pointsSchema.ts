import { z } from 'zod';
import type { Spot } from '../geometry/forms';
import { property } from '../values/property';
import {
  colourProperty,
  layerBase,
  outlineSchema,
  pointProperty,
  positiveProperty,
  spaceProperty,
  wordProperty,
} from './common';

const part = property(z.number().min(0).max(1));
/** As many as there are pictures, else lines of words, when absent. */
const count = property(z.number().int().min(1).max(4000)).optional();
const rank = z.number().int().min(1).max(400);

export const pointsSchema = z.strictObject({
  ...layerBase,
  kind: z.literal('points'),
  /** Frame units; the parent's box when absent. */
  size: pointProperty.optional(),
  /** How far it reaches away from the viewer, to either side of its middle together. */
  deep: positiveProperty.default(0),
  /** Where the points are. */
  form: z.union([
    z.strictObject({ kind: z.enum(['line', 'ring', 'disc', 'sphere', 'box']), count }),
    z.strictObject({
      kind: z.literal('spiral'),
      count,
      turns: property(z.number().min(0).max(60)).default(4),
    }),
    z.strictObject({ kind: z.literal('grid'), across: rank, down: rank, deep: rank.default(1) }),
    /** A net on the ground, whose rows rise and fall. */
    z.strictObject({
      kind: z.literal('wave'),
      across: rank,
      deep: rank,
      /** Crests from one side to the other, and frames in which one goes on to the next's place. */
      crests: property(z.number().min(0).max(40)).default(2),
      every: z.number().min(1).max(100000).default(240),
    }),
    z.strictObject({ kind: z.literal('outline'), outline: outlineSchema, count }),
    /** A list whose columns say where each line is, counted from 1: longitude and latitude, or any x and y. */
    z.strictObject({
      kind: z.literal('places'),
      slot: z.string(),
      columns: z.tuple([z.number().int().min(1).max(20), z.number().int().min(1).max(20)]).default([2, 3]),
    }),
  ]),
  /** Degrees a frame about each axis, from the beginning on. */
  spin: spaceProperty.default([0, 0, 0]),
  /** Frame units each way, frames of a cycle, and how many cycles lie between one end of the form and the other. */
  sway: z
    .strictObject({
      size: spaceProperty,
      every: z.number().min(1).max(100000).default(180),
      apart: property(z.number().min(0).max(100)).default(1),
    })
    .optional(),
  points: z
    .strictObject({ across: positiveProperty.default(8), colour: colourProperty, opacity: part.default(1) })
    .optional(),
  links: z
    .strictObject({
      by: z.enum(['order', 'nearness', 'middle', 'distance']),
      /** Of nearness: how many each has. */
      near: z.number().int().min(1).max(12).default(2),
      /** Of distance: frame units. */
      within: positiveProperty.default(160),
      shape: z.enum(['straight', 'curved', 'ribbon']).default('straight'),
      /** How far curves and ribbons bow, as a part of their length. */
      bow: property(z.number().min(-2).max(2)).default(0.2),
      width: positiveProperty.default(1.5),
      colour: colourProperty,
      opacity: part.default(0.6),
    })
    .optional(),
  /** Lines of a slot at the points: each at its own, or spread evenly over all of them. */
  words: z
    .strictObject({
      slot: z.string(),
      column: z.number().int().min(1).max(20).default(1),
      at: z.enum(['each', 'spread']).default('spread'),
      /** The line that comes first, counted from 1, and how many there are at most. */
      first: property(z.number().int().min(1).max(100000)).default(1),
      most: property(z.number().int().min(0).max(400)).default(200),
      family: wordProperty,
      weight: property(z.number().min(1).max(1000)).default(400),
      size: positiveProperty.default(28),
      colour: colourProperty,
      /** Frame units from the point, and the part of the words that lies before that: 0 begins there. */
      offset: pointProperty.default([14, 0]),
      align: part.default(0),
    })
    .optional(),
  /** Pictures and clips at the points, one after the other and round again. */
  pictures: z
    .strictObject({
      slots: z.array(z.string()).min(1).max(60),
      /** Frame units of the longer side, and width over height. */
      across: positiveProperty.default(200),
      ratio: property(z.number().min(0.1).max(10)).default(1),
      outline: outlineSchema.optional(),
      /** Frame units from the point to the picture's middle. */
      offset: pointProperty.default([0, 0]),
      edge: z.strictObject({ colour: colourProperty, width: positiveProperty }).optional(),
      /** A pin at the point, over the picture. */
      pin: z.strictObject({ colour: colourProperty, across: positiveProperty }).optional(),
    })
    .optional(),
  /** What lies far is smaller (1: as a camera sees it, 0: all of a size), fainter, and darker. */
  far: z
    .strictObject({
      smaller: part.default(1),
      fainter: part.default(0.5),
      darker: part.default(0),
      dark: colourProperty.default('#000000'),
    })
    .prefault({}),
  /** How much of it is there: points, lines and words come together. */
  drawn: part.default(1),
  order: z.enum(['forwards', 'from-middle', 'random']).default('forwards'),
  seed: z.number().int().min(0).max(1_000_000).default(1),
});
export type PointsLayer = z.infer<typeof pointsSchema>;

/** A point at a moment. */
export interface Shown {
  readonly index: number;
  /** Where it is before the camera: frame units about the form's middle. */
  readonly spot: Spot;
  /** Where it shows, in frame units. */
  readonly x: number;
  readonly y: number;
  readonly depth: number;
  /** How much smaller than its own size it shows. */
  readonly scale: number;
  /** How far away it is among the others, 0..1. */
  readonly away: number;
  /** How much of it has come, 0..1. */
  readonly come: number;
}

/** What distance does. */
export interface Far {
  readonly fainter: number;
  readonly darker: number;
  readonly dark: string;
}
