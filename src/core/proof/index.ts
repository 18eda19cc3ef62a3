// Stage 10, proof. In: two states of a site, or styles to move. Out: where outcome lists differ; the moves that are
// proven to change nothing.

export { type Alignment, alignPages } from './align.js';
export {
  type Difference,
  describeElement,
  differenceText,
  placeOf,
  type ShownOutcome,
  type StyleDifference,
  showElement,
} from './describe.js';
export { isHidden, isHiddenOnly, isHiddenText } from './hidden.js';
export { elementsIn, type IntentProof, isAsWished, type MovedElement, proveWishes } from './intent.js';
export { count, emptyPart, isOfUnread, mergeProofs, type ProofPart } from './part.js';
export { type Proof, type ProveOptions, proofOf, prove } from './prove.js';
export { type PagePair, Prover } from './prover.js';
export {
  type Attempt,
  type Carried,
  type Judge,
  type Planned,
  PROVE,
  proveAndTakeBack,
  type Refusals,
  TRUST,
} from './take-back.js';
export { isApart, type Kept, meet, type Wish, type Wished } from './wish.js';
