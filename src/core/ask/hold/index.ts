// A gate, hold. In: pages, sheets and what was written down of them. Out: what is new, with the home that it should have had;
// what may be written down now.

export { BUDGET_NAMES, BUDGETS, budgetsSchema } from './budget-table.js';
export { type Spent, spentOf } from './budgets.js';
export {
  blocksOf,
  classesOf,
  DEBT_KINDS,
  type Debt,
  type DebtKind,
  type DebtSheet,
  debtsOf,
  declarationForm,
  namedColours,
  repetitions,
} from './debts.js';
export { type Exception, exceptionsIn, withoutExcepted } from './exceptions.js';
export {
  compareHeld,
  type Held,
  HOLD_FILE,
  heldOf,
  heldSchema,
  parseHeld,
  renderHeld,
  totalOf,
} from './held.js';
export { type Home, Homes } from './homes.js';
