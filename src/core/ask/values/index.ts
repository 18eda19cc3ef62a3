// The values of a theme. In: its sheets and styles. Out: values with names and without; a token file of them; and out of
// such a file, the change that it asks for.

export {
  type NamedValue,
  type UnnamedValue,
  type ValueSheet,
  type Values,
  type ValuesInput,
  valuesOf,
} from './collect.js';
export { kindOf, VALUE_KINDS, type ValueKind } from './kinds.js';
export { type ColourPair, colourPairs } from './pairs.js';
export { type NameChange, planValues, type ValueChange, type ValuesPlan } from './plan.js';
export type { RenameTexts } from './rename.js';
export { type ReadToken, readTokens, toTokens } from './tokens.js';
