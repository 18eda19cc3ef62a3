// Stage 7, proof. In: two states of a site, or styles to move. Out: where outcome lists differ; the moves that are
// proven to change nothing.

export {
  count,
  type Difference,
  type Proof,
  type ProveOptions,
  prove,
  type ShownOutcome,
  showElement,
} from './prove.js';
export { differenceText, type NamedStyle, type Vouched, type VouchOptions, vouch } from './vouch.js';
