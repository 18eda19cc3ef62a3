// A change, override. In: a selector, declarations, and how far they are meant to reach. Out: the weakest rule that
// beats what declares them now, in the overrides part of the shared sheet, and the proof that just what was meant moved.

import {
  ALWAYS,
  type ComplexSelector,
  compileSelectorList,
  type SiteModel,
  type Weighed,
} from '../../cascade/index.js';
import {
  addLinks,
  changeText,
  type DeclarationChange,
  type Edit,
  stateAfter,
} from '../../edit/text/index.js';
import { type IntentProof, isHiddenOnly, type Kept, proveWishes, showElement } from '../../proof/index.js';
import { type Declaration, everyLonghand } from '../../read/sheets/index.js';
import type { PartNames } from '../../read/sheets/shared-sheet.js';
import { mayMatchIn, type SharedRule } from '../../search/index.js';
import { mediumOf, wishOf } from '../wish.js';
import { type Did, joinEqual, placeRules } from './placing.js';
import { findRivals, type Rivals } from './rivals.js';
import { selectorAgain, type Written, weakestThatWins } from './strength.js';
import { filesOf, type Home, placementOf, sheetFor, type Within, type Writable } from './within.js';

export { type Dropped, dropOverride } from './drop.js';
export { type Beaten, inspectRules, type OverrideState } from './inspect.js';
export { rulesOfPart } from './placing.js';
export { homeOf, readWithin, scopedSelector, type Within, type Writable } from './within.js';

export interface OverrideInput extends Writable {
  readonly partNames: PartNames;
  readonly selector: string;
  readonly changes: readonly DeclarationChange[];
  readonly within: Within;
  readonly medium: string | undefined;
  readonly everywhere: boolean;
  /** Texts of documents that load the shared sheet and were not read as pages. */
  readonly unreadDocuments: readonly string[];
}

export interface OverrideRule {
  readonly selector: string;
  readonly medium: string | undefined;
  readonly declarations: readonly string[];
  /** `kept`: it repeats what the platform declares in a state or medium, since the override is stronger than that. */
  readonly role: 'override' | 'kept';
  readonly did: Did;
}

export interface Beats {
  readonly one: Weighed;
  readonly elements: number;
}

interface Found {
  readonly selector: ComplexSelector;
  readonly rivals: Rivals;
}

export type OverrideResult =
  | { readonly kind: 'nothing matches' }
  | { readonly kind: 'impossible'; readonly why: string; readonly by: Weighed }
  | Planned;

export interface Planned {
  readonly kind: 'planned';
  readonly edits: ReadonlyMap<string, readonly Edit[]>;
  readonly rules: readonly OverrideRule[];
  /** Files that hold the rules. */
  readonly paths: readonly string[];
  readonly beats: readonly Beats[];
  readonly important: boolean;
  readonly proof: IntentProof;
  /** Elements that would not have what was asked, or have lost what was to stay. */
  readonly unmet: readonly string[];
}

export function override(input: OverrideInput): OverrideResult {
  const { model, shared, changes, within, everywhere } = input;
  const placement = placementOf(within, input);
  const { home } = placement;
  const list = compileSelectorList(input.selector);
  const selectors = list.kind === 'list' ? list.selectors.map((one) => scoped(one, placement.scope)) : [];
  const asked = new Set(changes.flatMap(({ property }) => everyLonghand(property)));
  const medium = mediumOf(input.medium, model.table.truths);
  const chosen: (readonly [ComplexSelector, Written])[] = [];
  const found: Found[] = [];
  let important = false;
  for (const selector of selectors) {
    const rivals = findRivals(model, {
      selector,
      longhands: asked,
      medium,
      everywhere,
      isOn: placement.isOn,
      sheetOf: (page) => sheetFor(home, page),
    });
    if (rivals.elements === 0) continue;
    const written = weakestThatWins(selector, rivals);
    if ('kind' in written) return written;
    found.push({ selector, rivals });
    important ||= written.some((one) => one.important);
    for (const one of written) chosen.push([selector, one]);
  }
  if (found.length === 0) return { kind: 'nothing matches' };
  const keepsSome = chosen.some(([, { again }]) => again.length > 0);
  const attempt = ({ extend, link, again }: Way): Planned => {
    const joined = joinEqual(chosen.flatMap(([selector, one]) => rulesFor(selector, one, input, again)));
    const isWanted = needsLink(model, shared, found);
    const unlinked = link || home.kind !== 'sheet' ? [] : unlinkedPages(model, shared, isWanted);
    const { edits, did } = placeRules(joined, input, home, extend);
    if (unlinked.length > 0) {
      const blocks: Home = { kind: 'blocks', pages: unlinked };
      for (const [path, own] of placeRules(joined, input, blocks, false).edits) edits.set(path, own);
    } else if (home.kind === 'sheet') addLinks(model, shared, isWanted, edits);
    const wish = wishOf({
      selectors: found.map(({ selector }) => selector),
      ...{ changes, medium, everywhere, isOn: placement.isOn, holders: filesOf(home) },
      ...(everywhere ? {} : { othersStay: true as const }),
    });
    const proof = shownOnly(proveWishes(model, stateAfter(model, edits), [wish]), model);
    const strange = home.kind === 'sheet' && edits.has(shared) ? unreadDocumentsThat(input, joined) : [];
    return {
      kind: 'planned',
      edits,
      rules: joined.map((rule, at) => ({
        selector: rule.selectors.join(', '),
        medium: rule.conditions?.[0],
        declarations: rule.declarations.map(({ declaration }) => changeText(declaration)),
        role: rule.role,
        did: did[at] ?? 'written',
      })),
      paths: filesOf(home),
      beats: beaten(found),
      important,
      proof,
      unmet: [...new Set([...proof.wrong, ...proof.kept.map(keptText), ...strange])],
    };
  };
  // In the place of an earlier one it may be too weak: then it is written behind everything. A page that does not link
  // the shared sheet may be changed by what else stands there: then it gets a block of its own.
  const ways: readonly Way[] = [
    { extend: true, link: true, again: 'no' },
    { extend: true, link: true, again: 'as it reads' },
    ...(keepsSome ? [{ extend: true, link: true, again: 'no stronger' } as const] : []),
    ...(keepsSome ? [{ extend: true, link: true, again: 'but for scripts' } as const] : []),
    { extend: false, link: true, again: 'as it reads' },
    ...(keepsSome ? [{ extend: false, link: true, again: 'no stronger' } as const] : []),
    { extend: false, link: false, again: 'as it reads' },
  ];
  const isClean = ({ unmet, proof }: Planned): boolean => unmet.length === 0 && proof.strays.length === 0;
  let first: Planned | undefined;
  for (const way of ways) {
    // An override that is there already stands where what it would beat has its place behind it.
    if (way.again === 'no' && !keepsSome) continue;
    if (!way.link && input.boxOf !== undefined) continue;
    const planned = attempt(way);
    if (way.again === 'no' && planned.rules.some(({ did }) => did !== 'changed')) continue;
    // What is so already needs no rule.
    if (isClean(planned))
      return planned.proof.moved.length > 0 ? planned : { ...planned, edits: new Map(), rules: [] };
    first ??= planned;
  }
  return first!;
}

/** A meant element that would have something else. */
function keptText({ page, longhand, element, winner }: Kept): string {
  const value = winner?.entry.declaration.value;
  return `${page.path}: ${longhand} of ${showElement(element)} would be ${value ?? 'left as it is'}`;
}

/** Documents that nobody read load the shared sheet: what is written into it could match there. */
function unreadDocumentsThat(
  { unreadDocuments, shared }: OverrideInput,
  rules: readonly SharedRule[],
): string[] {
  const selectors = rules.flatMap((rule) => rule.selectors);
  return unreadDocuments.some((text) => selectors.some((selector) => mayMatchIn(selector, text)))
    ? [`a document that is not read as a page, such as a frame, loads ${shared} and may hold such elements`]
    : [];
}

/**
 * What only template text, or what is around a fragment, could bring about is not counted as a stray where the shared sheet
 * comes to a page that a component might be on.
 */
function shownOnly(proof: IntentProof, model: SiteModel): IntentProof {
  return {
    ...proof,
    strays: proof.strays.filter(
      (one) => one.kind !== 'style' || model.page(one.page)?.kind === 'page' || !isHiddenOnly(one),
    ),
  };
}

interface Way {
  /**
   * What it would beat although that is to stay is repeated behind it: as a person would write it, or no stronger than the
   * override itself, so that it beats nothing that it did not beat. What only a script could bring about may go: there the
   * override holds too.
   */
  readonly again: 'no' | 'as it reads' | 'no stronger' | 'but for scripts';
  /** Where an override that declares the same is there already, it is made longer. */
  readonly extend: boolean;
  /** Pages that do not link the shared sheet get a link, not a block. */
  readonly link: boolean;
}

function unlinkedPages(model: SiteModel, shared: string, isWanted: (path: string) => boolean): string[] {
  return model.paths.filter((path) => {
    const page = isWanted(path) ? model.page(path) : undefined;
    return (
      page?.kind === 'page' && model.sheetOrderOf(page).uses.every(({ source }) => source.path !== shared)
    );
  });
}

/** Every declaration that is beaten, on most elements first. */
function beaten(found: readonly Found[]): Beats[] {
  const all = new Map<string, { one: Weighed; elements: number }>();
  for (const { rivals } of found) {
    for (const { beat, elements } of rivals.situations) {
      const said = new Set<string>();
      for (const { one } of beat) {
        const { declaration } = one.entry;
        const from = one.writtenIn.kind === 'rule' ? one.writtenIn.rule.selector.text : one.writtenIn.kind;
        const key = `${from} ${declaration.property}: ${declaration.value} ${declaration.range.start}`;
        if (said.has(key)) continue;
        said.add(key);
        const known = all.get(key);
        all.set(key, { one: known?.one ?? one, elements: (known?.elements ?? 0) + elements });
      }
    }
  }
  return [...all.values()].sort((a, b) => b.elements - a.elements);
}

/** Pages with an element that is meant; a component may be on any page. */
function needsLink(model: SiteModel, shared: string, found: readonly Found[]): (path: string) => boolean {
  const pages = new Set(found.flatMap(({ rivals }) => [...rivals.meant.keys()]));
  const onAll = [...pages].some((path) => model.page(path)?.kind === 'component');
  const isLinked = (path: string): boolean => {
    const page = model.page(path);
    const uses = page?.kind === 'page' ? model.sheetOrderOf(page).uses : [];
    return uses.some(({ source, condition }) => source.path === shared && condition === ALWAYS);
  };
  return (path) => (onAll || pages.has(path)) && !isLinked(path);
}

function scoped(selector: ComplexSelector, scope: string): ComplexSelector {
  if (scope === '') return selector;
  const list = compileSelectorList(`${scope} ${selector.text}`);
  return list.kind === 'list' ? list.selectors[0]! : selector;
}

function declared(changes: readonly DeclarationChange[], important: boolean): Declaration[] {
  return changes.map(({ property, value, important: own }) => ({
    property,
    value: value ?? '',
    important: important || own,
    range: { start: 0, end: 0 },
  }));
}

function rulesFor(
  selector: ComplexSelector,
  written: Written,
  { model, changes, medium, shared }: OverrideInput,
  sayAgain: Way['again'],
): (SharedRule & { readonly role: OverrideRule['role'] })[] {
  const around = medium === undefined ? [] : [`@media ${medium}`];
  const own = declared(changes, written.important).map((declaration) => ({ declaration, holder: shared }));
  const rules: (SharedRule & { readonly role: OverrideRule['role'] })[] = [
    {
      selectors: [written.selector],
      part: 'overrides',
      declarations: own,
      conditions: around,
      role: 'override',
    },
  ];
  if (sayAgain === 'no') return rules;
  // Weakest first, so that what is repeated keeps its order.
  const weakestFirst = [...written.again].sort((a, b) => b.rival.one.rank - a.rival.one.rank);
  for (const { rival, onAll } of weakestFirst) {
    const { one } = rival;
    const byScript = /\bscripts?\b/.test(model.table.truths.text(one.condition));
    if (sayAgain === 'but for scripts' && byScript) continue;
    const isQuiet = sayAgain !== 'as it reads';
    const again = selectorAgain([written.selector, selector.pseudoElement], one, onAll, isQuiet);
    if (again === undefined || one.writtenIn.kind !== 'rule') continue;
    const { declaration } = one.entry;
    const names = everyLonghand(declaration.property);
    const whole = names.every((name) =>
      changes.some(({ property }) => everyLonghand(property).includes(name)),
    );
    const said = {
      property: whole ? declaration.property : one.longhand,
      value: whole ? declaration.value : one.value,
      important: written.important,
      range: declaration.range,
    };
    const conditions = one.writtenIn.rule.rule.conditions.map(({ kind, text }) => `@${kind} ${text}`);
    rules.push({
      selectors: [again],
      part: 'overrides',
      declarations: [{ declaration: said, holder: one.writtenIn.use.program.holder }],
      conditions,
      role: 'kept',
    });
  }
  return rules;
}
