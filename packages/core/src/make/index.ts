/** Making templates: what the workshop does to a document. */

export { NOT_OF_GRAIN } from '../documents/templateFaults';
export { ADDITIONS, type AdditionId, addPart, MOVES, type MoveId, setMove } from './additions';
export {
  type Adjustable,
  changeControl,
  chooseBetween,
  makeAdjustable,
  moveControl,
  partsToAdjust,
  subjectOf,
  tie,
  type WhichPart,
} from './adjustable';
export { BEGINNINGS, type BeginningId, beginTemplate } from './begin';
export {
  asSeen,
  type Bench,
  benchOf,
  changeMade,
  graphicOn,
  isBench,
  isLocked,
  madeOn,
  partAlone,
  setAside,
} from './bench';
export { faultOfControlName, type NameFault, proposedName } from './controlNames';
export { fieldAt, fieldsOfKind, fieldsOfTemplate } from './fieldAt';
export {
  type Field,
  type FormsField,
  formOf,
  type ListField,
  type Names,
  nameOfKey,
  namesAt,
  type PartField,
  startOf,
  type ValueField,
} from './fields';
export { keepLook, removeLook } from './looks';
export {
  drawnOutline,
  fromPicture,
  onPicture,
  outlineThrough,
  pointFromPicture,
  pointOnPicture,
  pointsOfOutline,
  pointsOfPart,
} from './outlines';
export {
  copyPart,
  duplicatePart,
  freePartId,
  groupParts,
  groupsAround,
  idOf,
  movePart,
  removeParts,
  standingOf,
  stepPart,
  ungroup,
} from './parts';
export { changePart, nameOfPart, type Place, partOf, putValue, valueIn } from './places';
export {
  addPictureSlot,
  addSoundSlot,
  partsWithSlot,
  removeSlot,
  shownBy,
  TRIES,
  type TryId,
  wordsToSlot,
} from './slots';
export { textKept } from './text';
export {
  keyOf,
  partName,
  placeWords,
  removeControl,
  restingAt,
  type Tie,
  tieSentence,
  tiesOf,
  untie,
  valueWords,
} from './ties';
export { marksOf, moveMarks, type PlacedMark, shiftPart, trimPart } from './times';
export { paleLooks, shownTrips, type Trip, type TripPlace, writtenTrips } from './trips';
