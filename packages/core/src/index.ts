/** What the app, the server and the scripts use of the engine, and nothing else. */

export { BeatFinder } from './analyse/beats';
export { SHOT_PICTURE, ShotFinder } from './analyse/shots';
export type { PathSink, Picture, Place, Surface } from './canvas/surface';
export { layOnBlack } from './canvas/surface';
export { ACTION_SAFE, checkGraphic, TITLE_SAFE } from './checks/checks';
export { checkText } from './checks/checkText';
export type { Finding } from './checks/finding';
export { contrast, oklabOf } from './colour/colour';
export { type Harmony, harmonies } from './colour/harmony';
export { type Brand, brandKind, type LineRole, type LogoRole, type SoundRole } from './documents/brand';
export {
  canBeKeyed,
  faultsOfFill,
  isKeyed,
  restingFill,
  restingValue,
  takesWords,
} from './documents/controls';
export {
  type ControlFill,
  type ControlValue,
  controlFillSchema,
  EMPTY_FILL,
  type Fill,
  fillSchema,
  isPicture,
  isSound,
  isWords,
  wordsFillSchema,
} from './documents/fill';
export {
  type Framing,
  MARKER_USES,
  type Marker,
  type MarkerUse,
  type ReelItem,
  type ReelItemOf,
  type Track,
} from './documents/item';
export { type JsonSchema, writeJsonSchema } from './documents/jsonSchema';
export { openAsFarAsKnown } from './documents/newer';
export {
  beginsAsZip,
  CONTENTS_FILE,
  contentsKind,
  hashListed,
  mayBeDocument,
  mostUnpacked,
  NO_CONTENTS,
  PACKAGE_ENDING,
  type PackageContents,
  REEL_FILE,
  TEMPLATE_FILE,
  TOO_LARGE_WITHIN,
} from './documents/package';
export { type Graphic, type Reel, reelKind } from './documents/reel';
export {
  type Control,
  type Guideline,
  type GuideStep,
  type SceneDocument,
  type Slot,
  type Template,
  USES,
  type Use,
} from './documents/template';
export { templateKind } from './documents/templateKind';
export type { DrivenPoint, Follow, Way, WaySample } from './documents/way';
export { type Carried, carriedFill, setTemplate } from './edit/anotherTemplate';
export {
  type Copied,
  copiedSchema,
  copyToMarker,
  type Pasted,
  pasteItems,
  takeAlong,
} from './edit/clipboard';
export { COMING } from './edit/comingKinds';
export { editionChanges, ofOtherEditions, setEdition } from './edit/editions';
export {
  FRAMING_KEYS,
  type FramingKey,
  fadesOf,
  framedIn,
  framingClock,
  framingHeld,
  holdFraming,
  putFraming,
  setFade,
  turnAbout,
} from './edit/framing';
export { centreOnCut, cutsOf, freezeInto, freezeItem } from './edit/freeze';
export { cancel, change, type History, redo, settle, startHistory, undo } from './edit/history';
export {
  changeItem,
  changeItems,
  changeTracks,
  given,
  itemOf,
  type Standing,
} from './edit/items';
export { type KeptAs, keptTemplate } from './edit/keep';
export { keepable } from './edit/keepable';
export {
  copyKey,
  easeKey,
  keyAt,
  keysOf,
  markAt,
  moveKey,
  nextKey,
  ownKey,
  putKey,
  removeKey,
} from './edit/keyframes';
export {
  ASPECTS,
  type Aspect,
  familiesOf,
  makeAlike,
  sameKind,
  swapFamily,
  whatChanges,
} from './edit/many';
export {
  addMarker,
  changeMarker,
  cuesOf,
  keepMeetings,
  meet,
  nextMarker,
  type PlacedCue,
  removeMarkers,
  stopMeeting,
} from './edit/markers';
export { type Mend, mendsOf } from './edit/mend';
export { commonFields, type MotionField, type MotionKind, unitFields } from './edit/motionFields';
export {
  type Added,
  addColour,
  addFile,
  addFiles,
  addTitle,
  addTitleAfter,
  type FileFacts,
  frameOfClip,
  reelOfFiles,
  reelOverClip,
} from './edit/newItems';
export {
  addPoint,
  type EditedPath,
  extendPath,
  isSmooth,
  moveHandle,
  movePoint,
  readPoints,
  removePoint,
  smoothPoint,
  writePoints,
} from './edit/pathPoints';
export {
  copyItems,
  cutItem,
  EditError,
  freeId,
  hasRoom,
  holdControl,
  moveItems,
  putItem,
  removeItems,
  slipItem,
  spanOf,
  splitSound,
  trimItem,
  withTemplate,
} from './edit/place';
export { plainMotion } from './edit/plainMotion';
export {
  adjustClip,
  adjustPicture,
  applyBrand,
  applySpread,
  changeText,
  chooseLook,
  emptyReel,
  fillInLook,
  graphicOf,
  hideSlot,
  type NewReel,
  newReel,
  pourInto,
  pourMedia,
  reelWearing,
  renameReel,
  replaceMedia,
  resetControl,
  resetSlot,
  setControl,
  setFlat,
  setMotionBlur,
  setOutput,
  setShape,
  setSlot,
  spreadBrand,
  swapSlots,
  wearBrand,
  withoutBlur,
} from './edit/reel';
export { setRate } from './edit/setRate';
export { STANDING } from './edit/standingKinds';
export { TREATMENTS, type TreatmentField } from './edit/treatmentKinds';
export {
  addTreatment,
  effectsOnSlot,
  holdTreatment,
  moveTreatment,
  removeTreatment,
  switchTemplateEffect,
  switchTreatment,
  type Treated,
  treatmentHeld,
  treatmentsOf,
} from './edit/treatments';
export {
  addWay,
  correctWay,
  drivePoint,
  putSamples,
  removeWay,
  setFollow,
  stretchOf,
} from './edit/ways';
export { lookOf, markWords, plainText, type RunLook, retype } from './edit/words';
export type { Treatment, TreatmentKind } from './effects/treatment';
export { canBeFlat } from './evaluate/changes';
export { documentOnly } from './evaluate/documentOnly';
export { type EvaluatedFrame, GraphicScene, type Resources } from './evaluate/graphicScene';
export { type ListedTemplate, listedOf, openedListed } from './evaluate/listedTemplate';
export { fontNeeds } from './evaluate/needs';
export type { LaidPart, Region } from './evaluate/paintPass';
export { SHEET, type SheetEntry, sheetEntries, sheetLayout } from './exchange/contactSheet';
export { EXCHANGE_KINDS, EXCHANGES, type ExchangeKind } from './exchange/exchanges';
export { readRows } from './exchange/readRows';
export { Follower, type Sighting } from './follow/follower';
export type { Grey } from './follow/grey';
export { type Footing, footingOf, takePatch } from './follow/patch';
export { followScale, usualPatch } from './follow/patchSize';
export { type Pose, resized as resizedPose } from './follow/pose';
export { EXTENTS, type Extent } from './formats/extents';
export {
  FILM_CODECS,
  type FilmCodec,
  type FilmFacts,
  filmFacts,
  filmOfEnding,
  PICTURE_KINDS,
  type PictureKind,
  pictureEnding,
  picturesOfCodec,
} from './formats/films';
export {
  type BrowserFilm,
  browserFilm,
  draftSize,
  fileStem,
  formatFacts,
  isFilmFormat,
  type MovingPicture,
  movingPicture,
  OUTPUT_FORMATS,
  type OutputFormat,
  offeredSize,
  offeredSizes,
  RENDER_FORMATS,
  type RenderFormat,
  type RenderPlan,
  sequenceName,
  sizeOfSide,
  videoBitrate,
} from './formats/plan';
export { type Affine, invertAffine } from './geometry/matrix';
export { boundsOf, type Rect } from './geometry/rect';
export type { LetterMap, MediaFacts, Notice, Size } from './layers/kind';
export type { TextDuring, TextMotion } from './layers/motionSchema';
export { visiblePart } from './layers/picture';
export { everyLayer, type Layer } from './layers/registry';
export type { TextLayer } from './layers/textSchema';
export {
  type TextChange,
  type TextFill,
  type TextOutline,
  type TextPlate,
  textChangeSchema,
} from './layers/textStyle';
export type { AssetSource } from './media/assets';
export { clipStretch, clipTime, FRAME_SLACK } from './media/clipTime';
export { mayBeInterlaced } from './media/interlaced';
export { type ClipFill, freshPicture, type PictureFill, pictureFillSchema } from './media/pictureFill';
export {
  likelyClip,
  type NumberedRun,
  numberedRuns,
  numbersText,
  runName,
  SEQUENCE_FILE,
  type Sequence,
  sequenceFrame,
  sequenceKind,
} from './media/sequence';
export { type SoundFill, soundFillSchema } from './media/soundFill';
export { Memo } from './memo';
export { messageOf } from './messageOf';
export { type Easing, easingFunction } from './motion/easing';
export { randomAt } from './motion/random';
export { opsBounds } from './paint/bounds';
export {
  BLEND_MODES,
  type ClipFrame,
  clipFramesOf,
  type Op,
  picturesOf,
  sameMoments,
  sameOps,
} from './paint/ops';
export { Painter } from './paint/painter';
export {
  frameOfSecond,
  framesOfSecond,
  type Played,
  partPlayed,
  playedOf,
  roundsBetween,
  secondPlayed,
} from './reel/fileTime';
export { onFrame } from './reel/framing';
export { GraphicItem } from './reel/graphicItem';
export { GraphicTime, graphicsOf } from './reel/graphicTime';
export type { Item } from './reel/item';
export { lengthOf, reelEnd } from './reel/itemLength';
export { type ReelCheck, type ReelFrame, ReelScene, type TextOfItem } from './reel/reelScene';
export { clipPlane, SURE, secondOf, wayAt } from './reel/way';
export { areaOf, MOST_OF_FRAME } from './render/area';
export { type CostlyPart, costlyParts } from './render/costs';
export { type Excerpt, excerptsOf } from './render/excerpts';
export { groupLength, groupsOf } from './render/groups';
export { delayOf } from './render/moving/delays';
export { GIF_END, GifFrames, gifDelayed, gifHead } from './render/moving/gif';
export { PngFrames } from './render/moving/png';
export { webpFrame, webpHead, webpLead } from './render/moving/webp';
export { NAME_PARTS, namesFault, outputName, USUAL_NAMES } from './render/names';
export {
  type AsItIs,
  type Beneath,
  type FilmPart,
  filmParts,
  overClip,
  type Passage,
} from './render/overFootage';
export { stereoWeights, toStereo } from './sound/fold';
export { graphicSounds } from './sound/graphicSounds';
export { heldBack, NEVER_OVER } from './sound/heldBack';
export { LoudnessMeter } from './sound/loudness';
export type { SoundSource } from './sound/mix';
export type { SoundFacts, SoundPlay } from './sound/play';
export { LimitedMix, type MixFacts, MixRender } from './sound/render';
export { toSoundRate } from './sound/resample';
export { SOUND_CODECS, SOUND_RATE, type SoundCodec, type Stereo } from './sound/sound';
export { wavHeader, wavSamples } from './sound/wav';
export { FlashMeter } from './survey/flashes';
export { type Heard, hearReel, loudnessCheck, type OpenedSound } from './survey/heard';
export { type Looker, lookAtWords, lookerOf, lookForFlashes } from './survey/survey';
export { decodeText } from './tables/decodeText';
export {
  frameOfText,
  keyOfUse,
  matchReel,
  namingColumn,
  type ReelUse,
  type RowReel,
  type RowTimes,
  reelUses,
  rowReel,
  timesOfRows,
} from './tables/reelTable';
export { rowNames } from './tables/rowFill';
export { markRows, type PlacedRow, placeRows } from './tables/rows';
export { MOST_ROWS, plainName, type Table, TableError } from './tables/table';
export { LayoutCache } from './text/cache';
export { splitColumns, unsplitLines } from './text/columns';
export { mayEmbed, readFontFacts } from './text/fontFacts';
export { EMOJI_FAMILY, FontBook } from './text/fonts';
export { loadHarfBuzz } from './text/harfbuzz';
export { inkBounds } from './text/layout';
export { type Clock, localTime, type Mark, markTime, type Stretch, stretches } from './time/clock';
export {
  convertFrames,
  framesIn,
  nearestRate,
  OFFERED_RATES,
  parseRate,
  type Rate,
  rateLabel,
  rateText,
  sameRate,
  secondsAt,
} from './time/rate';
export { frameOfTimecode, nominal, timecodeAt } from './time/timecode';
export { FRAMES, type FrameSize, layoutFrame } from './values/frame';
export { freeName } from './values/freeName';
export { DocumentError, type DocumentKind, faultText, openDocument, parseJson } from './values/load';
export {
  type ControlLink,
  type FrameShape,
  frameShape,
  isConstant,
  type Property,
  type Source,
  type Value,
  valueAt,
} from './values/property';
