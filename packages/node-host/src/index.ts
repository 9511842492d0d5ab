export { NodeClip } from './clip';
export { hasFfmpeg } from './ffmpeg';
export {
  FilmFile,
  type FilmPlan,
  joinFilm,
  type PicturesPlan,
  pieceEnding,
  takesFootage,
  type Underlay,
  whyNoFilm,
  writableFilms,
} from './filmFile';
export { type Footage, lookAtFootage } from './footage';
export { type GreyBytes, greyFrames, greyFrom } from './greyFrames';
export { nodeLooker } from './looker';
export {
  type ListedPackage,
  listPackage,
  type OpenedPackage,
  openPackage,
  type PackedDocument,
} from './package';
export { NodeStudio } from './studio';
export { createNodePath, createNodeSurface, pngOf } from './surface';
export { copyType, makeWorkingCopy } from './workingCopy';
export { writeZip } from './zipFile';
