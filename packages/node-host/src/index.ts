export { type OpenedReel, openReelFile } from './reelFile';
export { NodeStudio } from './studio';
export { createNodeSurface, pngOf } from './surface';
