// Stage 1, markup. In: the text of an HTML file. Out: a `Page`, with elements in document order, source ranges,
// sheet and script references, and what is malformed.

export { attributeOf } from './attributes.js';
export { isLoose, isSurelyAround, isSurelyIn, isUnsure, unsureForm } from './branches.js';
export { givenSheets } from './given-sheets.js';
export { namesKept } from './names-kept.js';
export { namesOn, type Outline, outlinedPage, outlineOf } from './outline.js';
export * from './page.js';
export { parsePage } from './parse.js';
export { countMarks, isAgain, SOURCE_MARK, sourceNumberOf, withoutMarks } from './source-mark.js';
export { hasTemplateText, maskTemplateText, templateWords } from './template-text.js';
export { splitTokens } from './tokens.js';
export { parseUnplaced } from './unplaced.js';
