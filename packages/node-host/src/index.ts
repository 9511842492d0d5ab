export { type OpenedReel, openReelFile } from './reelFile';
export { NodeStudio } from './studio';
export { createNodePath, createNodeSurface, pngOf } from './surface';
