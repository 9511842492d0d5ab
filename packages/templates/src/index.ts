import { openDocument, templateKind } from '@fresh-reel/core';
import { catalogOf } from './catalog';
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

/** The built-in templates, in the order they are shown; each is checked as one of a stranger's would be. */
export const { TEMPLATES, templateById, assetOf } = catalogOf(
  [
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
  ].map((data) => openDocument(templateKind, data)),
);

export { SHIPPED } from './files';
