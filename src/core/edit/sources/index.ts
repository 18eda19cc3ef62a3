// Sources and renderings. In: the texts of sources, and the pages that a build made of them with every tag numbered. Out: where
// each tag of a page stands in the sources; edits of pages as edits of sources.

export { type CarriedOver, carryOver } from './carry-over.js';
export { type MarkedSource, type MarkedTag, markTags } from './mark.js';
export { type Renderings, SourcePlaces } from './source-places.js';
