// What repeats in the sources of a preprocessor, declared once. In: the declarations of each source as they are written. Out: sets
// of them that stand in several rules, each with a name, and the places where the name takes their place.

export { type FactorOptions, type FoundMixin, findMixins } from './find.js';
export { type Run, runsOf, type Written } from './runs.js';
