import { access, readFile } from 'node:fs/promises';
import { dirname, resolve } from 'node:path';
import {
  controlFillSchema,
  type Fill,
  faultsOfFill,
  faultText,
  pictureFillSchema,
  soundFillSchema,
  type Template,
  takesWords,
  textChangeSchema,
  wordsFillSchema,
} from '@fresh-reel/core';
import { z } from 'zod';
import { CommandError } from './command';

/** A fill file: words or a path for each slot, values for controls, a look; each part optional. */
const pictureFileSchema = pictureFillSchema.omit({ media: true }).extend({ path: z.string() });
const soundFileSchema = soundFillSchema.omit({ sound: true }).extend({ path: z.string() });
const fillFileSchema = z.strictObject({
  look: z.string().optional(),
  /** Lines of a list may stand one by one. */
  slots: z
    .record(
      z.string(),
      z.union([
        z.string(),
        z.array(z.string()),
        z.null(),
        wordsFillSchema,
        pictureFileSchema,
        soundFileSchema,
      ]),
    )
    .default({}),
  controls: z.record(z.string(), controlFillSchema).default({}),
  /** Slots that do not show. */
  hidden: z.array(z.string()).max(100).optional(),
  texts: z.record(z.string(), textChangeSchema).optional(),
});

export interface LoadedFill {
  readonly fill: Fill;
  /** Paths of the files it names, by media id. */
  readonly files: Map<string, string>;
}

/**
 * Reads a fill file for a template. Paths in it are relative to the file.
 * @throws {CommandError} naming everything that is wrong with it
 */
export async function loadFill(path: string, template: Template): Promise<LoadedFill> {
  const text = await readFile(path, 'utf8').catch(() => {
    throw new CommandError(`The fill file "${path}" cannot be read.`);
  });
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    throw new CommandError(`The fill file "${path}" is not complete JSON.`);
  }
  const result = fillFileSchema.safeParse(data);
  if (!result.success) throw new CommandError(`The fill file "${path}" is wrong ${faultText(result.error)}`);
  const slots: Fill['slots'] = {};
  const files = new Map<string, string>();
  for (const [id, held] of Object.entries(result.data.slots)) {
    const slot = template.slots.find((s) => s.id === id);
    if (Array.isArray(held)) {
      slots[id] = held.join('\n');
      continue;
    }
    const words = typeof held === 'string' ? !slot || takesWords(slot) : held !== null && 'text' in held;
    if (held === null || words) {
      slots[id] = held as string | null;
      continue;
    }
    const { path: file, ...sits } =
      typeof held === 'string'
        ? { path: held }
        : (held as z.infer<typeof pictureFileSchema> | z.infer<typeof soundFileSchema>);
    const full = resolve(dirname(path), file);
    await access(full).catch(() => {
      throw new CommandError(`The file "${file}" for the slot "${id}" cannot be read.`);
    });
    const media = `file:${id}`;
    files.set(media, full);
    slots[id] =
      slot?.kind === 'sound'
        ? soundFillSchema.parse({ ...sits, sound: media })
        : pictureFillSchema.parse({ ...sits, media });
  }
  const fill: Fill = {
    slots,
    controls: result.data.controls,
    ...(result.data.look === undefined ? {} : { look: result.data.look }),
    ...(result.data.texts === undefined ? {} : { texts: result.data.texts }),
    ...(result.data.hidden === undefined ? {} : { hidden: result.data.hidden }),
  };
  const faults = faultsOfFill(template, fill);
  if (faults.length > 0)
    throw new CommandError(`The fill file "${path}" does not suit "${template.id}": ${faults.join('; ')}.`);
  return { fill, files };
}
