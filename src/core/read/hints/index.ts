// Stage 3, hints. In: an element with its old attributes. Out: the CSS they say, one table for every question about them:
// what is counted, what is mapped, what moves together, which outdated element may become which neutral one.

export { isWrittenOld, writtenHints } from './counted.js';
export {
  cellHints,
  type Hint,
  hintDeclarations,
  inStandardWords,
  isExactHint,
  mayHaveHints,
  ownHints,
  tableOf,
} from './declarations.js';
export {
  BECOMING,
  type HintDeclaration,
  isOldAttribute,
  neutralFor,
  OLD_ATTRIBUTES,
  OLD_ELEMENTS,
} from './table.js';
