export { NodeClip } from './clip';
export { codedPeak } from './codedPeak';
export { hasFfmpeg, INSTALL_FFMPEG } from './ffmpeg';
export { takesFootage, whyNoFilm, writableFilms } from './filmCodecs';
export { FilmFile, type FilmPlan, type PicturesPlan, type Underlay } from './filmFile';
export { joinFilm, pieceEnding } from './filmPieces';
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
