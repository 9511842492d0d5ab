import { z } from 'zod';
import { FOOTAGE } from '../../engine/server';
import { MediaError } from './mediaError';
import { ImportCancelled, type OriginalFile } from './messages';

/** What the server says of a file that was sent to it. */
const stateSchema = z.object({
  id: z.string(),
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  size: z.number(),
  footage: z.object({
    codec: z.string(),
    interlaced: z.boolean(),
    hdr: z.boolean(),
    stretched: z.boolean(),
  }),
  state: z.enum(['waiting', 'making', 'done', 'failed']),
  part: z.number(),
  type: z.string(),
  fault: z.string().optional(),
});
type CopyState = z.infer<typeof stateSchema>;

/** What is being done, and how far it is, 0..1. */
export type OnStage = (stage: string, part: number) => void;

/** A working copy with what is known of the file it stands for. */
export interface WorkingCopy {
  readonly file: File;
  readonly original: OriginalFile;
  /** What was done to it, in words. */
  readonly notes: readonly string[];
}

/** Milliseconds between two looks at how far it is. */
const LOOK = 400;
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * Sends footage through the app's server, which makes a copy of it that browsers play.
 * @throws {MediaError} saying what is wrong; {ImportCancelled}
 */
export async function makeWorkingCopy(
  file: File,
  onStage: OnStage,
  signal: AbortSignal,
): Promise<WorkingCopy> {
  let state = await sent(file, (part) => onStage('Sending', part), signal);
  try {
    while (state.state === 'waiting' || state.state === 'making') {
      onStage('Making a working copy', state.part);
      await pause(LOOK);
      if (signal.aborted) throw new ImportCancelled('Stopped.');
      state = stateOf(await (await asked(`${FOOTAGE}/${state.id}`, file)).json());
    }
    if (state.state === 'failed')
      throw new MediaError(`No working copy of "${file.name}" could be made. ${state.fault ?? ''}`.trim());
    const reply = await asked(`${FOOTAGE}/${state.id}/copy`, file);
    const { hash, size, footage, type } = state;
    return {
      file: new File([await reply.blob()], file.name, { type }),
      original: { hash, size, codec: CODECS[footage.codec] ?? footage.codec },
      notes: notesOf(footage),
    };
  } finally {
    // Whatever became of it, nothing of it stays there.
    void fetch(`${FOOTAGE}/${state.id}`, { method: 'DELETE' }).catch(() => undefined);
  }
}

const CODECS: Readonly<Record<string, string>> = {
  hevc: 'H.265',
  h264: 'H.264',
  mpeg2video: 'MPEG-2',
  mpeg4: 'MPEG-4 Visual',
  prores: 'ProRes',
  dvvideo: 'DV',
  mjpeg: 'Motion JPEG',
  dnxhd: 'VC-3',
  vc1: 'VC-1',
};

function notesOf({ interlaced, hdr, stretched }: CopyState['footage']): string[] {
  return [
    ...(interlaced ? ['It was interlaced, and is deinterlaced in its working copy.'] : []),
    ...(hdr ? ['It has a high dynamic range, which is brought to that of usual screens (BT.709).'] : []),
    ...(stretched ? ['Its pixels are not square; its working copy shows it in its right shape.'] : []),
  ];
}

/** Sends a file, with its progress: only this way of sending tells how far it is. */
function sent(file: File, onProgress: (part: number) => void, signal: AbortSignal): Promise<CopyState> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    const away = () => reject(new MediaError(`"${file.name}" did not reach the app's server. Try again.`));
    signal.addEventListener('abort', () => {
      request.abort();
      reject(new ImportCancelled('Stopped.'));
    });
    request.upload.onprogress = ({ loaded, total }) => onProgress(total > 0 ? loaded / total : 0);
    request.onerror = away;
    request.onload = () => {
      if (request.status === 200) resolve(stateOf(request.response));
      else if (request.status === 422)
        reject(
          new MediaError(`"${file.name}" cannot be used. ${String(request.response?.error ?? '')}`.trim()),
        );
      else away();
    };
    request.open('POST', FOOTAGE);
    request.setRequestHeader('Content-Type', 'application/octet-stream');
    request.responseType = 'json';
    request.send(file);
  });
}

function stateOf(data: unknown): CopyState {
  const { data: state } = stateSchema.safeParse(data);
  if (!state) throw new MediaError("The app's server is of another version. Start it anew, and reload.");
  return state;
}

async function asked(address: string, file: File): Promise<Response> {
  const reply = await fetch(address).catch(() => undefined);
  if (!reply?.ok)
    throw new MediaError(
      `The app's server let "${file.name}" go while its working copy was made. Try again.`,
    );
  return reply;
}
