// Stage 7, proof. In: two states of a site, or styles to move. Out: where outcome lists differ; the moves that are
// proven to change nothing.

export { count, type Difference, prove, type Proof, type ProveOptions, type ShownOutcome, showElement } from './prove.js';
export { differenceText, type NamedStyle, vouch, type Vouched, type VouchOptions } from './vouch.js';
