export { type OpenedPackage, openPackage } from './package';
export { NodeStudio } from './studio';
export { createNodePath, createNodeSurface, pngOf } from './surface';
