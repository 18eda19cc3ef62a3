// The rules by which a running system is brought into a folder: addresses, names of files, what leads where, boxes. What is
// left for its editor is in `work.ts`: it reads sheets, which takes long to load.

export { decodePart, mayBePage, originOf, pathOf, readAddress } from './addresses.js';
export { type Archived, readArchive } from './archive.js';
export { type Box, boxSchema } from './box-schema.js';
export {
  type BoxCandidate,
  boxName,
  guessBoxes,
  meansBlock,
  sheetLinks,
  styleBlocks,
} from './boxes.js';
export { changesBetween, collectNames, madeUpNames, type VisitChanges } from './changes.js';
export { FileNames, type Kind } from './file-names.js';
export { type Lead, leadsOfPage, leadsOfSheet, type PageLeads } from './links.js';
export { readSitemap } from './sitemap.js';
