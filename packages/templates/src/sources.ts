import brandedWood from './branded-wood/template.json';
import brassPlate from './brass-plate/template.json';
import chapter from './chapter/template.json';
import countdown from './countdown/template.json';
import creditsRoll from './credits-roll/template.json';
import crew from './crew/template.json';
import cutByLight from './cut-by-light/template.json';
import driftWall from './drift-wall/template.json';
import dust from './dust/template.json';
import filament from './filament/template.json';
import flapBoard from './flap-board/template.json';
import followCard from './follow-card/template.json';
import fourCorners from './four-corners/template.json';
import fourLines from './four-lines/template.json';
import freezePrint from './freeze-print/template.json';
import fuseHook from './fuse-hook/template.json';
import ghostSting from './ghost-sting/template.json';
import groove from './groove/template.json';
import gustHook from './gust-hook/template.json';
import gustSting from './gust-sting/template.json';
import kiteTails from './kite-tails/template.json';
import lightLeak from './light-leak/template.json';
import marbling from './marbling/template.json';
import maskRise from './mask-rise/template.json';
import nameStrap from './name-strap/template.json';
import outOfTheWell from './out-of-the-well/template.json';
import paperFold from './paper-fold/template.json';
import pictureWindow from './picture-window/template.json';
import placeDate from './place-date/template.json';
import placesOnTheWind from './places-on-the-wind/template.json';
import playroomStrap from './playroom-strap/template.json';
import playroomTitle from './playroom-title/template.json';
import pointer from './pointer/template.json';
import poster from './poster/template.json';
import quietCredit from './quiet-credit/template.json';
import quietStrap from './quiet-strap/template.json';
import quietTitle from './quiet-title/template.json';
import quoteCard from './quote-card/template.json';
import sailcloth from './sailcloth/template.json';
import sideBySide from './side-by-side/template.json';
import signOff from './sign-off/template.json';
import signalLoss from './signal-loss/template.json';
import sketchbook from './sketchbook/template.json';
import slate from './slate/template.json';
import slats from './slats/template.json';
import smallHeart from './small-heart/template.json';
import speechBubble from './speech-bubble/template.json';
import stoneLetters from './stone-letters/template.json';
import storyboard from './storyboard/template.json';
import subtitles from './subtitles/template.json';
import swarm from './swarm/template.json';
import swingSign from './swing-sign/template.json';
import tallHook from './tall-hook/template.json';
import theWay from './the-way/template.json';
import ticket from './ticket/template.json';
import tornAcross from './torn-across/template.json';
import tornHook from './torn-hook/template.json';
import touchlineFigure from './touchline-figure/template.json';
import touchlineStrap from './touchline-strap/template.json';
import touchlineTitle from './touchline-title/template.json';
import typedNote from './typed-note/template.json';
import vapour from './vapour/template.json';
import watchingLens from './watching-lens/template.json';
import weatherGlass from './weather-glass/template.json';
import wetFloor from './wet-floor/template.json';
import windLine from './wind-line/template.json';
import windStreaks from './wind-streaks/template.json';
import wornTape from './worn-tape/template.json';

/** The built-in templates as they lie on disk, in the order they are shown; whoever uses one opens it first. */
export const SOURCES = [
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
  speechBubble,
  pointer,
  slate,
  fuseHook,
  gustHook,
  tornHook,
  lightLeak,
  dust,
  tornAcross,
  windStreaks,
  smallHeart,
  cutByLight,
  kiteTails,
  stoneLetters,
  brassPlate,
  placesOnTheWind,
  crew,
  wetFloor,
  signalLoss,
  filament,
  groove,
  wornTape,
  watchingLens,
  sketchbook,
  outOfTheWell,
  vapour,
  marbling,
  chapter,
  quietTitle,
  quietStrap,
  quietCredit,
  playroomTitle,
  playroomStrap,
  touchlineTitle,
  touchlineStrap,
  touchlineFigure,
  brandedWood,
  paperFold,
  swarm,
  storyboard,
  followCard,
  theWay,
  flapBoard,
  countdown,
  subtitles,
  ticket,
  poster,
  weatherGlass,
  pictureWindow,
  sideBySide,
  sailcloth,
  slats,
];
