import { openDocument, type Template, templateKind } from '@fresh-reel/core';
import creditsRoll from './credits-roll/template.json';
import driftWall from './drift-wall/template.json';
import fourCorners from './four-corners/template.json';
import fourLines from './four-lines/template.json';
import freezePrint from './freeze-print/template.json';
import ghostSting from './ghost-sting/template.json';
import gustSting from './gust-sting/template.json';
import maskRise from './mask-rise/template.json';
import nameStrap from './name-strap/template.json';
import placeDate from './place-date/template.json';
import quoteCard from './quote-card/template.json';
import signOff from './sign-off/template.json';
import swingSign from './swing-sign/template.json';
import tallHook from './tall-hook/template.json';
import typedNote from './typed-note/template.json';
import windLine from './wind-line/template.json';

/** The built-in templates, in the order they are shown. */
export const TEMPLATES: readonly Template[] = [
  nameStrap,
  maskRise,
  gustSting,
  fourLines,
  fourCorners,
  driftWall,
  freezePrint,
  tallHook,
  windLine,
  ghostSting,
  quoteCard,
  swingSign,
  placeDate,
  typedNote,
  creditsRoll,
  signOff,
].map((data) => openDocument(templateKind, data));

/** @throws {Error} naming the templates there are, when none has this id. */
export function templateById(id: string): Template {
  const found = TEMPLATES.find((t) => t.id === id);
  if (!found)
    throw new Error(`There is no template "${id}". There are: ${TEMPLATES.map((t) => t.id).join(', ')}.`);
  return found;
}

function assetAt(media: string): string | undefined {
  const match = /^asset:([\w-]+)\/([\w-]+)$/.exec(media);
  const assets = match ? (TEMPLATES.find((t) => t.id === match[1])?.assets ?? {}) : {};
  const file = match && Object.hasOwn(assets, match[2]!) ? assets[match[2]!] : undefined;
  return file === undefined || file.startsWith('shared/') ? file : `${match![1]}/${file}`;
}

/** Whether a media id names an asset that ships. A reel made with other templates may name one that does not. */
export function isAsset(media: string): boolean {
  return assetAt(media) !== undefined;
}

/**
 * Address of a template's asset within the app's public files, from its media id `asset:<template>/<name>`.
 * @throws {Error} when there is no such asset
 */
export function assetFile(media: string): string {
  const file = assetAt(media);
  if (file === undefined) throw new Error(`There is no asset "${media}".`);
  return file;
}
