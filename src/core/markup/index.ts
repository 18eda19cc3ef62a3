// Stage 1, markup. In: the text of an HTML file. Out: a `Page`, with elements in document order, source ranges,
// sheet and script references, and what is malformed.

export { attributeOf, parsePage, splitTokens } from './parse.js';
export type * from './page.js';
export { hasTemplateText } from './template-text.js';
export { type Hint, presentationalHint } from './hints.js';
