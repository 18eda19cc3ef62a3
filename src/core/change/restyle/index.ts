// A change, restyle. In: a selector and what its declarations are to become. Out: edits of the rules where they stand,
// the proof that only what was meant moved, and what kept its own value or is out of reach, and why.

import { traceSite } from '../../ask/reach/index.js';
import {
  ALWAYS,
  type ComplexSelector,
  compileSelectorList,
  NEVER,
  placeInSource,
  type SiteModel,
  type Weighed,
} from '../../cascade/index.js';
import {
  changeText,
  type DeclarationChange,
  type Edit,
  editRule,
  push,
  ruleBehind,
  stateAfter,
  withoutRule,
} from '../../edits/index.js';
import { type IntentProof, proveIntent } from '../../proof/index.js';
import { canonicalProperty, everyLonghand, longhands, normalValue } from '../../sheets/index.js';
import { type Place, placeIn } from '../../source.js';
import { rulesUnder, type WrittenRule } from './written-rules.js';

export { allRules, rulesUnder, selectorForm, type WrittenRule } from './written-rules.js';

export interface RestyleInput {
  readonly model: SiteModel;
  readonly themes: readonly string[];
  readonly selector: string;
  readonly changes: readonly DeclarationChange[];
  /** Only rules inside this media query; `undefined` for those outside all. */
  readonly medium: string | undefined;
  /** Change the custom property that a value names, not the value. */
  readonly token: boolean;
}

/** What an element has instead of what was asked. */
export interface Unmoved {
  readonly property: string;
  readonly value: string;
  readonly why:
    | 'style attribute'
    | 'old attribute'
    | 'stronger rule'
    | '!important'
    | 'platform rule'
    | 'sheet not linked';
  /** Of the rule that wins there, empty for the element itself. */
  readonly selector: string;
  readonly place: Place;
  readonly elements: number;
  readonly pages: number;
}

export interface Restyled {
  readonly edits: ReadonlyMap<string, readonly Edit[]>;
  /** The rules that were changed, or stand behind those that were. */
  readonly rules: readonly {
    readonly selector: string;
    readonly place: Place;
    readonly did: 'changed' | 'split off';
  }[];
  readonly proof: IntentProof;
  /** Elements that the selector matches. */
  readonly meant: number;
  readonly unmoved: readonly Unmoved[];
  /** Custom properties that a changed value named until now, with the number of elements that use each. */
  readonly tokens: readonly { readonly name: string; readonly rule: Place }[];
}

export type RestyleResult = Restyled | { readonly kind: 'no rule' };

/** Plans the change and proves it. Out: `no rule` where the theme has none under the selector. */
export function restyle(input: RestyleInput, isPlatform: (path: string) => boolean): RestyleResult {
  const { model, themes, selector, changes, medium, token } = input;
  const candidates = rulesUnder(model, themes, selector).filter(({ rule }) => isIn(rule.conditions, medium));
  if (candidates.length === 0) return { kind: 'no rule' };
  const planned = planChanges(candidates, changes, selector, token ? { model, themes } : undefined);
  const after = stateAfter(model, planned.edits);
  const list = compileSelectorList(selector);
  const selectors = list.kind === 'list' ? list.selectors : [];
  const asked = new Set(changes.flatMap(({ property }) => everyLonghand(property)));
  const proof = proveIntent(model, after, {
    isMeant: (path, element, target) =>
      planned.throughToken || matches(after, path, element, target, selectors),
    isAsked: (longhand) => asked.has(longhand) || planned.throughToken,
  });
  const { meant, unmoved } = findUnmoved(after, selectors, input, new Set(planned.edits.keys()), isPlatform);
  const { edits, rules, tokens } = planned;
  return { edits, rules, proof, meant, unmoved, tokens };
}

function isIn(conditions: WrittenRule['rule']['conditions'], medium: string | undefined): boolean {
  if (medium === undefined) return conditions.length === 0;
  const form = (text: string): string => text.replace(/\s+/g, '').toLowerCase();
  return conditions.some(({ kind, text }) => kind === 'media' && form(text) === form(medium));
}

interface Planned {
  readonly edits: Map<string, Edit[]>;
  readonly rules: Restyled['rules'];
  readonly tokens: Restyled['tokens'];
  readonly throughToken: boolean;
}

/** Each declaration is changed in every rule that says it; what none says is added to the strongest. */
function planChanges(
  candidates: readonly WrittenRule[],
  changes: readonly DeclarationChange[],
  selector: string,
  tokenIn: { readonly model: SiteModel; readonly themes: readonly string[] } | undefined,
): Planned {
  const edits = new Map<string, Edit[]>();
  const rules: { selector: string; place: Place; did: 'changed' | 'split off' }[] = [];
  const tokens: { name: string; rule: Place }[] = [];
  const wanted = new Map<WrittenRule, DeclarationChange[]>();
  let throughToken = false;
  const want = (rule: WrittenRule, change: DeclarationChange): void => {
    // Of two that come to one name, as two properties of one token do, the later is meant.
    const others = (wanted.get(rule) ?? []).filter(({ property }) => property !== change.property);
    wanted.set(rule, [...others, change]);
  };
  for (const change of changes) {
    const names = new Set(everyLonghand(change.property));
    const saying = candidates.filter(({ rule }) =>
      rule.declarations.some(({ property }) => everyLonghand(property).some((name) => names.has(name))),
    );
    let name: string | undefined;
    for (const { rule, place } of saying) {
      const own = rule.declarations.findLast(({ property }) => property === change.property);
      const token = /^var\(\s*(--[\w-]+)\s*\)$/.exec(own?.value ?? '')?.[1];
      if (token === undefined) continue;
      name = token;
      tokens.push({ name, rule: place });
    }
    const setting = tokenIn === undefined || name === undefined ? [] : rulesSetting(tokenIn, name);
    if (name !== undefined && setting.length > 0) {
      throughToken = true;
      for (const rule of setting) want(rule, { ...change, property: name });
    } else if (saying.length > 0) for (const rule of saying) want(rule, change);
    else if (change.value !== undefined)
      want(candidates.findLast(({ isBlock }) => !isBlock) ?? candidates.at(-1)!, change);
  }
  for (const [written, own] of wanted) {
    const { path, rule, whole, place } = written;
    const made = whole ? changeWhole(written, own) : splitOff(written, own, selector);
    push(
      edits,
      path,
      made.map((edit) => shifted(edit, written.offset)),
    );
    rules.push({
      selector: whole ? rule.selectors[0]! : selector,
      place,
      did: whole ? 'changed' : 'split off',
    });
  }
  return { edits, rules, tokens, throughToken };
}

function rulesSetting(
  { model, themes }: { readonly model: SiteModel; readonly themes: readonly string[] },
  name: string,
): WrittenRule[] {
  const found: WrittenRule[] = [];
  for (const path of themes) {
    const sheet = model.sheetAt(path)?.sheet;
    for (const rule of sheet?.rules ?? []) {
      if (rule.conditions.length > 0 || !rule.declarations.some(({ property }) => property === name))
        continue;
      const place = placeIn(path, sheet!.text, rule.selectorRange.start);
      found.push({ path, offset: 0, text: sheet!.text, isBlock: false, rule, whole: true, place });
    }
  }
  return found;
}

function shifted({ start, end, text }: Edit, by: number): Edit {
  return { start: start + by, end: end + by, text };
}

function changeWhole({ text, rule }: WrittenRule, changes: readonly DeclarationChange[]): Edit[] {
  const gone = changes.filter(({ value }) => value === undefined).map(({ property }) => property);
  const left = rule.declarations.filter(({ property }) => !gone.includes(property));
  return left.length === 0 && gone.length === changes.length
    ? [withoutRule(text, rule)]
    : editRule(text, rule, changes);
}

/** One selector of a list gets a rule of its own: right behind, so that nothing comes between. */
function splitOff(
  { text, rule }: WrittenRule,
  changes: readonly DeclarationChange[],
  selector: string,
): Edit[] {
  const gone = changes.filter(({ value }) => value === undefined).map(({ property }) => property);
  if (gone.length === 0) return [ruleBehind(text, rule, selector, changes.map(changeText))];
  // What is taken out of one must stay for the others: the list loses it, and the rule behind has the rest.
  const kept = new Map<string, string>();
  for (const { property, value, important } of rule.declarations)
    if (!gone.includes(property)) kept.set(property, changeText({ property, value, important }));
  for (const change of changes) if (change.value !== undefined) kept.set(change.property, changeText(change));
  const { start, end } = rule.selectorRange;
  const list = compileSelectorList(rule.selectors[0]!);
  const wanted = compileSelectorList(selector);
  if (list.kind !== 'list' || wanted.kind !== 'list') return [];
  const out = new Set(wanted.selectors.map((one) => one.text));
  const others = list.selectors.filter((one) => !out.has(one.text)).map((one) => one.text);
  const comma = /,\s*/.exec(text.slice(start, end))?.[0] ?? ', ';
  const edits: Edit[] = [{ start, end, text: others.join(comma) }];
  if (kept.size > 0) edits.push(ruleBehind(text, rule, selector, [...kept.values()]));
  return edits;
}

function matches(
  model: SiteModel,
  path: string,
  element: number,
  target: string,
  selectors: readonly ComplexSelector[],
): boolean {
  const page = model.page(path);
  const readers = page === undefined ? [] : model.readersOf(page);
  return readers.some((reader) =>
    selectors.some((one) => one.pseudoElement === target && reader.matches(one, element) !== NEVER),
  );
}

/** Elements that match and have another value than the asked one, grouped by what decides there. */
function findUnmoved(
  after: SiteModel,
  selectors: readonly ComplexSelector[],
  { changes }: RestyleInput,
  edited: ReadonlySet<string>,
  isPlatform: (path: string) => boolean,
): { meant: number; unmoved: Unmoved[] } {
  const found = new Map<
    string,
    { one: Omit<Unmoved, 'elements' | 'pages'>; elements: number; pages: Set<string> }
  >();
  let meant = 0;
  const sets = changes.filter(({ value }) => value !== undefined);
  traceSite(after, ({ page, element, reader, weighed }) => {
    const selector = selectors.find((one) => reader.matches(one, element.index) === ALWAYS);
    if (selector === undefined) return;
    meant++;
    const linked = reader.stack.uses.some(({ source }) => edited.has(source.path));
    for (const change of sets) {
      const wanted = change.property.startsWith('--') ? [change.property] : longhands(change.property).set;
      for (const longhand of wanted) {
        const list = weighed.get(selector.pseudoElement)?.get(longhand) ?? [];
        const winner = list.find(({ condition, beatenBy }) => beatenBy === undefined && condition === ALWAYS);
        if (winner !== undefined && says(winner, change, selectors)) continue;
        const key = winner === undefined ? `none ${longhand}` : `${keyOf(winner)} ${change.property}`;
        const known = found.get(key);
        if (known === undefined) {
          const one = unmovedOf(
            change.property,
            winner,
            placeIn(page.path, page.text, element.tag?.range.start ?? 0),
            linked,
            isPlatform,
          );
          found.set(key, { one, elements: 1, pages: new Set([page.path]) });
        } else {
          known.elements++;
          known.pages.add(page.path);
        }
        break;
      }
    }
  });
  const unmoved = [...found.values()].map(({ one, elements, pages }) => ({
    ...one,
    elements,
    pages: pages.size,
  }));
  return { meant, unmoved: unmoved.sort((a, b) => b.elements - a.elements) };
}

/** Whether a winner is the rule that was changed, or says just what was asked. */
function says(
  { origin, entry }: Weighed,
  { property, value }: DeclarationChange,
  selectors: readonly ComplexSelector[],
): boolean {
  const form = (text: string): string => normalValue(canonicalProperty(property), text, '');
  if (entry.declaration.property === property && form(entry.declaration.value) === form(value ?? ''))
    return true;
  return (
    /^var\(/.test(entry.declaration.value) &&
    origin.kind === 'rule' &&
    selectors.some(({ text }) => text === origin.rule.selector.text)
  );
}

function keyOf({ origin, entry }: Weighed): string {
  const said = `${entry.declaration.property}:${entry.declaration.value}`;
  return origin.kind === 'rule'
    ? `${origin.use.source.path} ${origin.rule.selector.text} ${said}`
    : `${origin.kind} ${said}`;
}

function unmovedOf(
  property: string,
  winner: Weighed | undefined,
  here: Place,
  linked: boolean,
  isPlatform: (path: string) => boolean,
): Omit<Unmoved, 'elements' | 'pages'> {
  if (winner === undefined || (!linked && winner.origin.kind === 'rule'))
    return {
      property,
      value: winner?.entry.declaration.value ?? '',
      why: 'sheet not linked',
      selector: '',
      place: here,
    };
  const { origin, entry, important } = winner;
  const { value } = entry.declaration;
  if (origin.kind !== 'rule')
    return {
      property,
      value,
      why: origin.kind === 'old attribute' ? 'old attribute' : 'style attribute',
      selector: '',
      place: here,
    };
  const why = important
    ? '!important'
    : isPlatform(origin.use.source.path)
      ? 'platform rule'
      : 'stronger rule';
  const place = placeInSource(origin.use.source, entry.declaration.range.start);
  return { property, value, why, selector: origin.rule.selector.text, place };
}
