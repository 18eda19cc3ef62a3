// Components: files in which a framework's compiler reads the markup. In: the text of one. Out: its elements as the framework
// makes them, each with what is written out of its classes and styles; what only runs in a browser is open.

export { blocksWith } from './block-text.js';
export { askedName, classAttribute, classAttributeOf, classPlace } from './class-place.js';
export { importsIn } from './imports.js';
export type { BlockCompiler, ComponentElement, ComponentFile, ComponentNode, StyleBlock } from './model.js';
export { ANY_OF_MODULE, fromModuleClass, isModuleSheet, moduleClass } from './module-names.js';
export { DEEP, GLOBAL, reachesOut } from './reaching.js';
export {
  componentProblem,
  isTagged,
  readComponent,
} from './read.js';
