// Stage 5, search. In: style attributes cut into units. Out: which sets become shared styles, their names, and what
// stays with its reason.

export { CLASS_NAME, nameSharings, type NameRules } from './names.js';
export { type Kept, type Member, propose, type Proposal, type Sharing } from './propose.js';
export { colourWord } from './traits.js';
