// Sources and renderings. In: the texts of sources, and the pages that a build made of them with every tag numbered. Out: where
// each tag of a page stands in the sources; edits of pages as edits of sources.

export { type CarriedOver, carryOver } from './carry-over.js';
export { type MarkedSource, markTags, type OriginTag } from './mark.js';
export { Origins, type Renderings } from './origins.js';
