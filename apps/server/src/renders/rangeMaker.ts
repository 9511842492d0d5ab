import { rm } from 'node:fs/promises';
import { openDocument, templateKind } from '@fresh-reel/core';
import { FilmFile, NodeStudio, pieceEnding } from '@fresh-reel/node-host';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import { SOURCES } from '@fresh-reel/templates/sources';
import { rawFrames } from '../rendering/frameWriter';
import { partsOf } from '../rendering/overFootage';
import { openStudio, type StudioOf } from './document';
import { endingOf, type RangeOrder } from './order';
import type { Store } from './store';

/** A range was not made since nobody wants it any more. */
export class Unwanted extends Error {
  override readonly name = 'Unwanted';
}

/** Makes pieces of films, one after the other. The reel of the last one stays open for the next. */
export class RangeMaker {
  private open: { readonly hash: string; readonly studio: Promise<StudioOf> } | undefined;

  constructor(private readonly store: Store) {}

  /**
   * Paints and compresses a range into a file beside the store.
   * @param onFrame after each frame; the range is given up once it says so
   * @returns its path
   * @throws {Unwanted}, or {Error} when painting or ffmpeg fails; no file is left then
   */
  async make({ paint, first, count }: RangeOrder, onFrame: () => boolean): Promise<string> {
    const { studio, scene } = await this.studio(paint.document);
    const out = `${await this.store.beside()}.${pieceEnding(paint.codec) ?? endingOf(paint.codec)}`;
    const { codec, size, rate, alpha, number } = paint;
    const parts = partsOf({ scene, studio, rate, from: paint.from + first, count }, paint);
    // A range is one run of the encoder.
    const underlay = parts.length === 1 ? parts[0]!.underlay : undefined;
    const over = underlay ? { underlay } : {};
    const film = new FilmFile({ codec, size, rate, alpha, number, timecode: '00:00:00:00', out, ...over });
    try {
      const job = {
        size,
        rate,
        from: paint.from,
        onBlack: alpha === 'none' && !underlay,
        over: underlay?.area,
      };
      for await (const pixels of rawFrames(studio, scene, job, first, count)) {
        await film.write(pixels);
        if (!onFrame()) throw new Unwanted('Nobody wants this range any more.');
      }
      await film.end();
      return out;
    } catch (error) {
      await film.drop();
      await rm(out, { force: true });
      throw error;
    }
  }

  async close(): Promise<void> {
    const open = await this.open?.studio.catch(() => undefined);
    this.open = undefined;
    open?.close();
  }

  private async studio(hash: string): Promise<StudioOf> {
    if (this.open?.hash === hash) return this.open.studio;
    await this.close();
    const studio = openStudio(this.store, hash, { paintsOnly: true });
    this.open = { hash, studio };
    studio.catch(() => {
      if (this.open?.studio === studio) this.open = undefined;
    });
    return studio;
  }
}

/**
 * Opens a studio and a template, and lets go of them: what is compiled where it is used first is there then, before a
 * render waits for it.
 */
export async function warmUp(): Promise<void> {
  openDocument(templateKind, SOURCES[0]);
  (await NodeStudio.start(SHIPPED_PATHS, { paintsOnly: true })).close();
}
