/**
 * How long a render takes on a row of machines, worked out from measured costs: `node scripts/rows/simulate.mjs`.
 * Machines take ranges one after the other; all pieces go over the one link of the server, which then joins them.
 */

/** Measured on one core of two, 1280x720, H.264, a title on living paper; docs/rendering.md says how. */
export const MEASURED = {
  /** Seconds until a machine that got its first range paints: document, media, fonts. */
  start: 1,
  /** Seconds that a frame takes on one machine, painted and compressed. */
  frame: 0.11,
  /** Seconds of the queue and the store for each range, beside its bytes. */
  range: 0.06,
  /** Bytes of a piece, a frame. */
  bytes: 7_700,
  /** Bytes of media that a machine gets once: assumed. */
  media: 20_000_000,
  /** Bytes a second of the server's link: assumed, a gigabit. */
  link: 100_000_000,
  /** Seconds of joining, and for each byte. */
  join: [0.3, 4e-9],
  /** Seconds of sound, a second of film; mixed once, while frames are painted. */
  sound: 0.02,
};

/**
 * @param frames of the film, at `rate` a second, in ranges of `range` frames
 * @param machines that are alike
 * @returns seconds until the film is there, and the part of the machines' time that was work
 */
export function simulate({ frames, rate, range, machines }, cost = MEASURED) {
  const ranges = Array.from({ length: Math.ceil(frames / range) }, (_, i) =>
    Math.min(range, frames - i * range),
  );
  let link = 0;
  const over = (bytes, from) => {
    link = Math.max(link, from) + bytes / cost.link;
    return link;
  };
  /** When each machine is free: first of all with what the film takes. */
  const used = Math.min(machines, ranges.length);
  const free = Array.from({ length: used }, () => over(cost.media, 0) + cost.start);
  let work = 0;
  for (const count of ranges) {
    const m = free.indexOf(Math.min(...free));
    work += count * cost.frame;
    free[m] = over(count * cost.bytes, free[m] + count * cost.frame + cost.range);
  }
  const painted = Math.max(...free, (frames / rate) * cost.sound);
  const [once, each] = cost.join;
  const seconds = painted + once + each * frames * cost.bytes;
  return { seconds, busy: work / (seconds * machines) };
}

if (process.argv[1]?.endsWith('simulate.mjs')) {
  for (const minutes of [1, 10, 60]) {
    const frames = minutes * 60 * 25;
    const alone = simulate({ frames, rate: 25, range: 100, machines: 1 }).seconds;
    console.log(`${minutes} min of film at 25 frames a second: ${alone.toFixed(0)} s on one machine`);
    for (const machines of [2, 4, 8, 16, 32, 64, 100]) {
      const { seconds, busy } = simulate({ frames, rate: 25, range: 100, machines });
      console.log(
        `  ${String(machines).padStart(3)}: ${seconds.toFixed(1).padStart(7)} s, ${(alone / seconds).toFixed(1).padStart(5)} times as fast, ${Math.round(busy * 100)}% of the machines' time is work`,
      );
    }
  }
}
