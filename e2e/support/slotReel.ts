import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { id, type Session, takeIn } from './browser';

/** Where a slot shows in the frame of 1920 by 1080. */
export interface Cell {
  readonly id: string;
  readonly offset?: readonly [number, number];
  readonly size?: readonly [number, number];
}

export interface Rate {
  readonly num: number;
  readonly den: number;
}

/** A reel that shows what is in its slots and nothing else, on transparency; its slots are empty. */
export function slotReel(name: string, rate: Rate, frames: number, cells: readonly Cell[]) {
  const mark = { at: 0, of: 'in' };
  const template = {
    format: 'freshreel/template',
    version: 2,
    id: 'slots-alone',
    name: 'Slots alone',
    about: 'What is in the slots, and nothing else.',
    use: 'opener',
    transparent: true,
    rate,
    timing: { in: frames, hold: 0, out: 0 },
    still: mark,
    scenes: [{ id: 'all', name: 'All', from: mark, to: { at: frames, of: 'in' }, still: mark }],
    slots: cells.map(({ id }) => ({
      id,
      kind: 'picture',
      name: id,
      scenes: ['all'],
      moment: mark,
      sample: null,
    })),
    controls: [],
    looks: [],
    guide: ['Put something in.'],
    layers: cells.map(({ id, offset = [0, 0], size = [1920, 1080] }) => ({
      id,
      kind: 'picture',
      slot: id,
      offset,
      size,
    })),
  };
  const slots: Record<string, object> = {};
  return {
    format: 'freshreel/reel',
    version: 2,
    id: 'slot-reel',
    name,
    created: '2026-06-05T10:00:00Z',
    changed: '2026-06-05T10:00:00Z',
    frame: { width: 1920, height: 1080 },
    rate,
    tracks: [{ id: 'graphics', graphics: [{ id: 'g1', template, fill: { slots, controls: {} }, start: 0 }] }],
    embedded: {} as Record<string, { name: string; type: string; base64: string }>,
  };
}

/** A reel whose one slot fills the frame with a file that comes in the reel's own. */
export function clipReel(path: string, rate: Rate, frames: number, clip: object = {}) {
  const bytes = readFileSync(path);
  const media = `sha256:${createHash('sha256').update(bytes).digest('hex')}`;
  const reel = slotReel(`Clip ${basename(path)}`, rate, frames, [{ id: 'clip' }]);
  reel.tracks[0]!.graphics[0]!.fill.slots.clip = { media, focus: [0.5, 0.5], scale: 1, turn: 0, clip };
  reel.embedded[media] = { name: basename(path), type: 'video/mp4', base64: bytes.toString('base64') };
  return reel;
}

/** Opens a reel file in the list of reels. */
export async function openReel(session: Session, page: Page, reel: object): Promise<void> {
  const file = join(session.downloads, 'made.reel.json');
  writeFileSync(file, JSON.stringify(reel));
  await takeIn(page, 'open-reel-file', file);
  await page.waitForSelector(id('preview'));
}
