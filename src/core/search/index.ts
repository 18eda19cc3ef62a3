// Stage 5, search. In: style attributes cut into units. Out: which sets become shared styles, their names, and what
// stays with its reason.

export { CLASS_NAME, type NameRules, nameSharings } from './names.js';
export { type Kept, type Member, type Proposal, propose, type Sharing } from './propose.js';
export { colourWord } from './traits.js';
