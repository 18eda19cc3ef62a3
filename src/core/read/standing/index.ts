// Where the parts of a site stand. In: its pages, and which files the names in them mean. Out: of a part, the elements around it
// on each of the pages that show it; of a page, the sheets and scripts that its parts bring.

export { type Mention, type Mentions, NO_MENTIONS, Standing } from './standing.js';
