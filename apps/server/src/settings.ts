import { randomBytes } from 'node:crypto';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { z } from 'zod';
import { isLoopback } from './access';
import { LIMITS, type Limits } from './renders/order';

const limit = (normal: number) => z.coerce.number().int().positive().default(normal);

/** What a server is told: by its arguments, else by its environment. */
const settingsSchema = z.object({
  port: z.coerce.number().int().min(0).max(65535).default(4173),
  host: z.string().default('127.0.0.1'),
  /** Names by which it is reached, besides this machine's own. */
  names: z.array(z.string().min(1)),
  token: z.string().min(16, 'A token has 16 letters at least.').optional(),
  data: z.string().default(fileURLToPath(new URL('../../../.fresh-reel/', import.meta.url))),
  redis: z.url({ protocol: /^rediss?$/ }).optional(),
  /** Where machines in a row reach this one. */
  address: z.url({ protocol: /^https?$/ }).optional(),
  mostBytes: limit(LIMITS.bytes),
  mostFootage: limit(LIMITS.footage),
  mostDisk: limit(LIMITS.disk),
  mostFrames: limit(LIMITS.frames),
  mostPixels: limit(LIMITS.pixels),
  mostJobs: limit(LIMITS.jobs),
  // Timers count no further.
  mostSeconds: limit(LIMITS.seconds).pipe(z.number().max(2_000_000)),
});

export interface Settings extends Omit<z.infer<typeof settingsSchema>, `most${string}`> {
  readonly limits: Limits;
}

/** @throws {z.ZodError} naming what is wrong */
export function readSettings(
  args: readonly string[],
  env: Readonly<Record<string, string | undefined>>,
): Settings {
  const text = { type: 'string' } as const;
  const { values } = parseArgs({
    args: [...args],
    options: {
      port: text,
      host: text,
      token: text,
      data: text,
      redis: text,
      address: text,
      name: { type: 'string', multiple: true },
    },
  });
  const { mostBytes, mostFootage, mostDisk, mostFrames, mostPixels, mostJobs, mostSeconds, ...rest } =
    settingsSchema.parse({
      port: values.port ?? env.PORT,
      host: values.host ?? env.FRESH_REEL_HOST,
      names: values.name ?? env.FRESH_REEL_NAMES?.split(',').map((name) => name.trim()) ?? [],
      token: values.token ?? env.FRESH_REEL_TOKEN,
      data: values.data ?? env.FRESH_REEL_DATA,
      redis: values.redis ?? env.FRESH_REEL_REDIS,
      address: values.address ?? env.FRESH_REEL_ADDRESS,
      mostBytes: env.FRESH_REEL_MOST_BYTES,
      mostFootage: env.FRESH_REEL_MOST_FOOTAGE,
      mostDisk: env.FRESH_REEL_MOST_DISK,
      mostFrames: env.FRESH_REEL_MOST_FRAMES,
      mostPixels: env.FRESH_REEL_MOST_PIXELS,
      mostJobs: env.FRESH_REEL_MOST_JOBS,
      mostSeconds: env.FRESH_REEL_MOST_SECONDS,
    });
  return {
    ...rest,
    names: [...rest.names, ...(rest.address ? [new URL(rest.address).hostname] : [])],
    // Whoever can reach it could have it work: from other machines only with a token.
    token: rest.token ?? (isLoopback(rest.host) ? undefined : randomBytes(18).toString('base64url')),
    limits: {
      ...{ bytes: mostBytes, footage: mostFootage, disk: mostDisk },
      ...{ frames: mostFrames, pixels: mostPixels, jobs: mostJobs, seconds: mostSeconds },
    },
  };
}
