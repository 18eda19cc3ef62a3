// Every shared style of a site, with which elements have it, and an element cut out of its page to show it on.

export { type ExampleOptions, exampleOf, SHOWN } from './example.js';
export { STYLE_KINDS, type StyleKind } from './kinds.js';
export { mediaOf } from './media.js';
export type { Likeness, NearWearer } from './near.js';
export { type Pointed, SHOWN_STATES, type ShownState } from './pointed.js';
export { stateRules } from './states.js';
export { type SharedStyle, sharedStyles } from './styles.js';
