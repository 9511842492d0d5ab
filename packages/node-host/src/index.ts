export { NodeStudio } from './studio';
export { createNodeSurface, pngOf } from './surface';
