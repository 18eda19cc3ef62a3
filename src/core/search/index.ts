// Stage 5, search. In: tags that carry styling. Out: a home for each unit, names for new classes, and what stays with
// its reason.

export type { ScopeTaste } from './by-classes.js';
export { selectorText } from './by-hooks.js';
export { type Convention, readConvention, USUAL } from './convention.js';
export { TASTES, type Taste, type TasteName } from './cost.js';
export { type Home, type Kept, type Member, partOf, type Style } from './home.js';
export { type Bans, findHomes, type Search, type SearchOptions, takenOut, writtenCount } from './homes.js';
export { CLASS_NAME, type NameRules, nameStyles } from './names.js';
export type { Strength } from './reach.js';
export { nameValue } from './token-names.js';
export { colourWord } from './traits.js';
