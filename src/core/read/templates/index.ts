// Engine text: what a template engine reads in a file before a browser gets any of it. In: the text of a file. Out: its pieces,
// each with what it does to the text behind it; the file as the markup parser gets it, with every offset as it was; and of a
// tag with branches in it, what all tags that can come of it have.

export { alternativesOf } from './alternatives.js';
export { type Balance, balanceOf } from './balance.js';
export type { Role } from './engines/engine.js';
export {
  BUILD_ENDINGS,
  beginsBranch,
  COMMENTS,
  ENGINES,
  engineOf,
  TEMPLATE_ENDINGS,
} from './engines/index.js';
export { type Inclusion, inclusionsIn, inclusionsOf } from './inclusions.js';
export { ENGINE_LETTER, type Masked, maskPieces } from './mask.js';
export { outcomesOf, type PrintedText, printedBy } from './outcomes.js';
export { type EnginePiece, enginePieces, holdsEngineText, mayHoldEngineText } from './pieces.js';
export { allTags, braceEnd, sourceTags, type TagInSource } from './source-tags.js';
export { type EngineTag, readEngineTag, type WrittenTag } from './tags.js';
export { type Wrapped, wrappedIn } from './wrapped.js';
