/** What a film costs on a machine with ffmpeg: beside ffmpeg alone, by a table, and on a server that has just begun. */

import { execFileSync, spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { EMPTY_FILL, newReel, openDocument, type Reel, templateKind } from '@fresh-reel/core';
import { NodeStudio } from '@fresh-reel/node-host';
import { templateById } from '@fresh-reel/templates';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import { batch } from '../../apps/server/src/cli/batch';
import { asked } from '../../apps/server/src/cli/testing';
import { renderReel } from '../../apps/server/src/rendering/render';
import twoLines from '../page/two-lines.json';

const WORDS = ['Ida Brandvik', 'Stunt pilot, Marram Lines Club'] as const;
const SECONDS = 6;
const RATE = { num: 25, den: 1 };

const ROUNDS = 3;

const timed = async (work: () => Promise<unknown> | unknown): Promise<number> => {
  const begun = performance.now();
  await work();
  return (performance.now() - begun) / 1000;
};

/** The same two lines over the same footage to the same codec: by a reel of ours, and by ffmpeg's own `drawtext`. */
export async function besideDrawtext(
  font: string,
): Promise<{ ours: number; theirs: number; encoder: number }> {
  const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-bench-'));
  const studio = await NodeStudio.start(SHIPPED_PATHS);
  try {
    const footage = join(folder, 'footage.mp4');
    const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args]);
    const test = `testsrc2=s=1920x1080:r=25:d=${SECONDS}`;
    ffmpeg('-f', 'lavfi', '-i', test, '-c:v', 'libx264', '-preset', 'fast', '-pix_fmt', 'yuv420p', footage);
    await studio.addFile('sha256:footage', footage);
    const titled = newReel(openDocument(templateKind, twoLines), {
      ...{ id: 'bench', name: 'Bench', now: '2026-06-05T10:00:00Z', shape: 'wide', rate: RATE },
    });
    const length = SECONDS * RATE.num;
    const reel: Reel = {
      ...titled,
      tracks: [
        {
          id: 'footage',
          items: [{ kind: 'clip', id: 'c', start: 0, length, media: 'sha256:footage', clip: {} }],
        },
        ...titled.tracks,
      ],
    };
    const opened = {
      ...{ reel, files: new Map([['sha256:footage', footage]]), fonts: [], name: 'bench' },
    };
    const common = { size: undefined, alpha: undefined, timecode: undefined, rate: undefined } as const;
    const out = join(folder, 'ours.mp4');
    const frames = [0, length - 1] as const;
    // Once for what is kept: fonts, assets.
    await renderReel({ ...common, out, codec: 'h264', frames: [0, 1] }, studio, opened, () => undefined);
    const text = (line: string, size: number, y: string) =>
      `drawtext=fontfile=${font}:text='${line.replaceAll(',', '\\,')}':fontsize=${size}:fontcolor=white:x=120:y=${y}:alpha='min(1,t)'`;
    const lines = `${text(WORDS[0], 90, 'h-260-40*min(1\\,t)')},${text(WORDS[1], 44, 'h-150')}`;
    const code = ['-c:v', 'libx264', '-preset', 'medium', '-crf', '16', '-pix_fmt', 'yuv420p'];
    const ways = {
      ours: () => renderReel({ ...common, out, codec: 'h264', frames }, studio, opened, () => undefined),
      theirs: () => ffmpeg('-i', footage, '-vf', lines, ...code, join(folder, 'theirs.mp4')),
      encoder: () => ffmpeg('-i', footage, ...code, join(folder, 'alone.mp4')),
    };
    // In turns, and the quickest of each: a machine's pace changes by more than what is between them.
    const rounds: Record<keyof typeof ways, number>[] = [];
    for (let i = 0; i < ROUNDS; i++) {
      const { ours, theirs, encoder } = ways;
      rounds.push({ ours: await timed(ours), theirs: await timed(theirs), encoder: await timed(encoder) });
    }
    const least = (of: keyof typeof ways) => Math.min(...rounds.map((round) => round[of]));
    return { ours: least('ours'), theirs: least('theirs'), encoder: least('encoder') };
  } finally {
    studio.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Minutes of a long film, and frames a second of it: all of it is gone through, in as many frames as time allows. */
const LONG = { minutes: 10, rate: { num: 5, den: 1 } };

/**
 * Memory in MB at each tenth of a long film in full HD: straps over a clip that comes again and again, cut every twenty
 * seconds, painted whole (footage is pixels of ours) or with the footage below.
 */
export async function memoryOfLongFilm(whole: boolean): Promise<number[]> {
  const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-bench-'));
  const studio = await NodeStudio.start(SHIPPED_PATHS);
  try {
    const footage = join(folder, 'footage.mp4');
    const test = 'testsrc2=s=1920x1080:r=25:d=20';
    const code = ['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p', footage];
    execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', test, ...code]);
    await studio.addFile('sha256:footage', footage);
    const titled = newReel(templateById('name-strap'), {
      ...{ id: 'bench', name: 'Bench', now: '2026-06-05T10:00:00Z', shape: 'wide', rate: RATE },
    });
    const [strap] = titled.tracks[0]!.items;
    const length = 20 * RATE.num;
    const rounds = (LONG.minutes * 60) / 20;
    const clip = (i: number) => ({ kind: 'clip' as const, id: `c${i}`, start: i * length, length });
    const reel: Reel = {
      ...titled,
      tracks: [
        {
          id: 'footage',
          items: Array.from({ length: rounds }, (_, i) => ({
            ...clip(i),
            media: 'sha256:footage',
            clip: {},
          })),
        },
        {
          id: 'straps',
          items: Array.from({ length: rounds }, (_, i) => ({
            ...strap!,
            id: `s${i}`,
            start: i * length + 50,
          })),
        },
      ],
    };
    const codec = whole ? 'dnxhr' : 'h264';
    const out = join(folder, whole ? 'out.mov' : 'out.mp4');
    const opened = { reel, files: new Map([['sha256:footage', footage]]), fonts: [], name: 'bench' };
    const how = { ...{ size: undefined, alpha: undefined, timecode: undefined, rate: LONG.rate } };
    const memory: number[] = [];
    let next = 0.1;
    const onProgress = (done: number, count: number) => {
      if (done / count < next) return;
      next += 0.1;
      memory.push(process.memoryUsage().rss / 1e6);
    };
    await renderReel({ ...how, out, codec, frames: undefined }, studio, opened, onProgress);
    return memory;
  } finally {
    studio.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A table of some rows, beside the same films rendered one by one in the same studio. */
export async function byTable(rows: number): Promise<{ table: number; single: number }> {
  const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-bench-'));
  const studio = await NodeStudio.start(SHIPPED_PATHS);
  try {
    const names = Array.from({ length: rows }, (_, i) => `Flyer ${i + 1}`);
    writeFileSync(join(folder, 'people.csv'), ['Name', ...names].join('\n'));
    const args = ['--table', join(folder, 'people.csv'), '--out', join(folder, 'out')];
    const rest = ['--codec', 'h264', '--side', '270', '--rate', '10'];
    const command = asked('batch', 'name-strap', ...args, ...rest);
    const one = async (name: string) => {
      const reel = newReel(templateById('name-strap'), {
        ...{ id: name, name, now: '2026-06-05T10:00:00Z', shape: 'wide' },
        fill: { ...EMPTY_FILL, slots: { name } },
      });
      const size = { width: 480, height: 270 };
      const how = { frames: undefined, alpha: undefined, timecode: undefined, rate: { num: 10, den: 1 } };
      const out = join(folder, `${name}.mp4`);
      await renderReel(
        { ...how, out, codec: 'h264', size },
        studio,
        { reel, files: new Map(), fonts: [], name },
        () => undefined,
      );
    };
    await one('first');
    const single = await timed(async () => {
      for (const name of names) await one(name);
    });
    const table = await timed(() => batch(command, () => undefined));
    return { table, single };
  } finally {
    studio.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Seconds from the start of a server to the first frame of a render that is sent to it as soon as it listens. */
export async function serverToFirstFrame(root: string): Promise<{ listens: number; first: number }> {
  const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-bench-'));
  const port = 4700 + (process.pid % 200);
  const reel = newReel(templateById('name-strap'), {
    ...{ id: 'bench', name: 'Bench', now: '2026-06-05T10:00:00Z', shape: 'wide' },
  });
  const begun = performance.now();
  const server = spawn('node', ['scripts/start.mjs'], {
    cwd: root,
    env: { ...process.env, PORT: String(port), FRESH_REEL_DATA: folder },
    stdio: 'ignore',
    detached: true,
  });
  try {
    const address = `http://127.0.0.1:${port}/api/renders`;
    const sent = async (): Promise<Response | undefined> =>
      fetch(`${address}?codec=ffv1`, {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body: JSON.stringify(reel),
      }).catch(() => undefined);
    let reply: Response | undefined;
    while (!reply) {
      reply = await sent();
      if (!reply) await new Promise((resolve) => setTimeout(resolve, 20));
    }
    const listens = (performance.now() - begun) / 1000;
    const { id } = (await reply.json()) as { id: string };
    for (;;) {
      const { frames = 0 } = (await (await fetch(`${address}/${id}`)).json()) as { frames?: number };
      if (frames > 0) return { listens, first: (performance.now() - begun) / 1000 };
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  } finally {
    process.kill(-server.pid!, 'SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
}
