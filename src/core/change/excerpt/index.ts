// Stage 11, excerpt. In: the pages of a site, one by one. Out: shorter pages that hold every form of element and everything
// that carries styling, and how many elements each stands for; a change found on them, made on the whole pages.

export { cutPage } from './cut.js';
export { joinExcerpts } from './join.js';
export { LookOver, type Overview } from './look-over.js';
export { type Excerpts, ExcerptTaker } from './taker.js';
export { type Besides, type WholePages, type Widened, widen } from './widen.js';
