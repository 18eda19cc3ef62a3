// Whether an element that a selector picks out may stand on a page, told by the names on it: most pages of a large site
// are not looked into for most questions.

import { namesOn, type Page } from '../read/markup/index.js';
import type { Program } from './program.js';
import type { ScriptStates } from './script-states.js';
import type { ComplexSelector } from './selector-model.js';
import type { SheetOrder } from './sheet-order.js';

/** False only where nothing on the page could match: by its own names, and by those that its scripts may give. */
export function mayStandOn(page: Page, { scripts }: SheetOrder, selector: ComplexSelector): boolean {
  const { outline } = page;
  return outline === undefined || mayStand(selector, { names: outline.names, scripts });
}

/**
 * The same of a page whose elements are read: whatever its sheets are and however they are switched, it looks as it did where
 * this is false of every rule that changed. In: the scripts of the page; class names that no engine can know.
 */
export function mayMatchOn(
  page: Page,
  scripts: ScriptStates,
  fresh: ReadonlySet<string>,
): (selector: ComplexSelector) => boolean {
  const names = namesOn(page);
  let [anyClass, anyId] = [false, false];
  for (const { engine } of page.elements) {
    anyId ||= engine?.prints === true;
    anyClass ||= engine !== undefined && engine.mayHave === undefined;
  }
  const printed = { anyId, anyClass: anyClass || anyId, fresh };
  return (selector) => mayStand(selector, { names, scripts, printed });
}

interface Names {
  /** In lower case: `td`, `#crew`, `.card`. */
  readonly names: ReadonlySet<string>;
  readonly scripts: ScriptStates;
  /** Whether an engine may print any name but those that are new. */
  readonly printed?: {
    readonly anyId: boolean;
    readonly anyClass: boolean;
    readonly fresh: ReadonlySet<string>;
  };
}

function mayStand({ compounds }: ComplexSelector, { names, scripts, printed }: Names): boolean {
  const isPrinted = (name: string): boolean => printed?.anyClass === true && !printed.fresh.has(name);
  return compounds.every(
    ({ type, id, classes }) =>
      (type === undefined || names.has(type.toLowerCase())) &&
      (id === undefined ||
        names.has(`#${id.toLowerCase()}`) ||
        printed?.anyId === true ||
        mayGive(scripts, 'id', id)) &&
      classes.every(
        (name) => names.has(`.${name.toLowerCase()}`) || isPrinted(name) || mayGive(scripts, 'class', name),
      ),
  );
}

function mayGive(scripts: ScriptStates, kind: 'id' | 'class', name: string): boolean {
  return kind === 'id' ? scripts.anywhere.givesId(name) : scripts.anywhere.givesClass(name);
}

/**
 * Selectors of the rules that one sheet order has and the other has not, as far as the sheets that both hold stand in the same order.
 * Out: `undefined` where anything else differs.
 */
export function changedSelectors(
  before: SheetOrder,
  after: SheetOrder,
): readonly ComplexSelector[] | undefined {
  if (before.layersKey !== after.layersKey) return undefined;
  const middle = sheetPairs(before.uses, after.uses)?.flatMap(([was, is]) =>
    was !== undefined && is !== undefined
      ? changedRules(was.program, is.program)
      : toldRules((was ?? is)!.program),
  );
  // Where a scope begins is asked of other elements.
  if (middle === undefined || middle.some(({ scope }) => scope !== undefined)) return undefined;
  return middle.map(({ selector }) => selector);
}

type Use = SheetOrder['uses'][number];

/** Sheets of both, in order; one that only one of them has stands alone. */
function sheetPairs(
  before: readonly Use[],
  after: readonly Use[],
): (readonly [Use | undefined, Use | undefined])[] | undefined {
  const keyOf = ({ condition, layer, source }: Use): string => `${source.path}\0${condition}\0${layer}`;
  const [old, fresh] = [new Set(before.map(keyOf)), new Set(after.map(keyOf))];
  const found: (readonly [Use | undefined, Use | undefined])[] = [];
  let [i, j] = [0, 0];
  while (i < before.length || j < after.length) {
    const [was, is] = [before[i], after[j]];
    if (was !== undefined && is !== undefined && keyOf(was) === keyOf(is)) {
      found.push([was, is]);
      i++;
      j++;
    } else if (is !== undefined && !old.has(keyOf(is))) {
      found.push([undefined, is]);
      j++;
    } else if (was !== undefined && !fresh.has(keyOf(was))) {
      found.push([was, undefined]);
      i++;
    } else return undefined;
  }
  return found;
}

const NONE: readonly Told[] = [];
/** Pages by the thousand load the same two sheets. */
const known = new WeakMap<Program, WeakMap<Program, readonly Told[]>>();

/** The rules between the first and the last that differ, of both sheets. */
function changedRules(was: Program, is: Program): readonly Told[] {
  if (was === is) return NONE;
  const others = known.get(was) ?? new WeakMap<Program, readonly Told[]>();
  known.set(was, others);
  const found = others.get(is) ?? compareRules(was, is);
  others.set(is, found);
  return found;
}

function compareRules(was: Program, is: Program): readonly Told[] {
  const [old, fresh] = [toldRules(was), toldRules(is)];
  let [start, end] = [0, 0];
  const least = Math.min(old.length, fresh.length);
  while (start < least && old[start]!.form === fresh[start]!.form) start++;
  while (end < least - start && old.at(-1 - end)!.form === fresh.at(-1 - end)!.form) end++;
  return [...old.slice(start, old.length - end), ...fresh.slice(start, fresh.length - end)];
}

function toldRules({ rules, sheet }: Program): Told[] {
  return rules.map(({ selector, rule, condition, scope }) => ({
    selector,
    scope,
    form: `${selector.text}\0${condition}\0${sheet.text.slice(rule.range.start, rule.range.end)}`,
  }));
}

interface Told {
  readonly selector: ComplexSelector;
  readonly scope: unknown;
  readonly form: string;
}
