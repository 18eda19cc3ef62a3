// Stage 2, sheets. In: CSS text. Out: a `Sheet` of rules, conditions and declarations with their ranges; and for a
// declaration its longhands, its normal form and whether browsers keep it.

export { colourName, normalColour } from './colours.js';
export { declarationText } from './declaration-text.js';
export { isTooDeep } from './depth.js';
export { expandDeclaration, type LonghandValue } from './expand.js';
export { listItems } from './nesting.js';
export { parseDeclarations, parseSheet } from './parse.js';
export {
  canonicalProperty,
  competesWith,
  everyLonghand,
  type InteractionGroup,
  interactionGroup,
  isInherited,
  isKnownProperty,
  knownPropertyNames,
  longhands,
} from './properties.js';
export type * from './sheet.js';
export { isFallback } from './support.js';
export { isFinished, Token, tokenize, tokenText } from './tokens.js';
export { declarationValidity, type Validity } from './validity.js';
export { normalValue } from './values.js';
