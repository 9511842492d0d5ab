import { useQuery } from '@tanstack/react-query';
import { z } from 'zod';

/** Where the app's server takes footage in, and says whether it can do anything with it. */
export const FOOTAGE = '/api/footage';

/**
 * What the app's server can do: decode and write films, or all but that, since it has no ffmpeg; or nothing, since it is
 * not there.
 */
export type Server = 'whole' | 'without-ffmpeg' | 'away';

/** What to do about a server without it. */
export const INSTALL_FFMPEG =
  'Install ffmpeg where the server of this app runs (Debian, Ubuntu: apt-get install ffmpeg).';

/** Asks the app's server what it can do. */
export async function askServer(): Promise<Server> {
  try {
    const reply = await fetch(FOOTAGE);
    if (!reply.ok) return 'away';
    return z.object({ takes: z.boolean() }).parse(await reply.json()).takes ? 'whole' : 'without-ffmpeg';
  } catch {
    return 'away';
  }
}

/** What the app's server can do, as of a moment ago. */
export const useServer = (): Server | undefined =>
  useQuery({ queryKey: ['server'], queryFn: askServer, staleTime: 10_000 }).data;
