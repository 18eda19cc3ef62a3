// The sheet that the next site begins with: chosen out of what this one has proven to need, as text, and as short words.

export { type Chosen, chooseRules, type LeftOut, REASONS, type StarterRule } from './choose.js';
export { type HouseSheet, houseSheet, isHouseSheet, type Revision, revisionOf } from './sheet.js';
export {
  NO_WISHES,
  parseWishes,
  renderWishes,
  STARTER_FILE,
  type Wishes,
  wishesSchema,
  withWishes,
} from './wishes.js';
export { type Snippet, snippetsOf } from './words.js';
