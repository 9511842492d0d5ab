import { type AssetSource, openDocument, type Template, templateKind } from '@fresh-reel/core';
import assetFiles from './assets.json';
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

/** Which file lies under which hash; written by `npm run demo-media`. */
const FILES: Readonly<Record<string, string>> = assetFiles;

/** The hash of an asset by the name it had before assets were known by hashes: `asset:<template>/<name>`. */
function renamed(media: string): string {
  const [, id, name] = /^asset:([\w-]+)\/([\w-]+)$/.exec(media) ?? [];
  const assets = TEMPLATES.find((t) => t.id === id)?.assets ?? {};
  return name !== undefined && Object.hasOwn(assets, name) ? assets[name]! : media;
}

/** The assets that ship, as files within the app's public files. */
export const SHIPPED: AssetSource = {
  find(media) {
    const id = renamed(media);
    return Object.hasOwn(FILES, id) ? FILES[id] : undefined;
  },
};

/**
 * The media id of an asset of a built-in template.
 * @throws {Error} when there is no such template or asset
 */
export function assetOf(template: string, name: string): string {
  const { assets } = templateById(template);
  if (!Object.hasOwn(assets, name)) throw new Error(`The template "${template}" has no asset "${name}".`);
  return assets[name]!;
}
