// Beats the platform for exactly the elements meant; lists overrides; takes one away.

import { SPACE, without } from '../../core/base/characters.js';
import { quoted } from '../../core/base/site-text.js';
import { UsageError } from '../../core/base/usage-error.js';
import {
  type Dropped,
  homeOf,
  inspectRules,
  type Planned,
  type OverrideResult as PlanResult,
  dropOverride as planDrop,
  override as planOverride,
  readWithin,
  rulesOfPart,
  scopedSelector,
  type Within,
  type Writable,
} from '../../core/change/override/index.js';
import { selectorForm } from '../../core/change/restyle/index.js';
import { changeText } from '../../core/edit/text/index.js';
import { elementsIn, isAsWished } from '../../core/proof/index.js';
import { listItems } from '../../core/read/sheets/index.js';
import { boxOf, carryOut, NOTHING_DONE, openForChange } from '../../site/ledger/carry-out.js';
import type { WriteOptions } from '../../site/ledger/write-options.js';
import { type Site, sheetsElsewhere } from '../../site/rendering/load.js';
import { readDeclarations } from '../shared/declarations.js';
import type { OverrideDocument } from './document.js';
import { stateOf } from './states.js';

export interface OverrideOptions extends WriteOptions {
  /** A page, a folder, `body.class`, a selector, or `site`. */
  readonly within?: string | undefined;
  /** Only in this media query. */
  readonly medium?: string | undefined;
  /** Beat what other states and media say, too. */
  readonly everywhere?: boolean | undefined;
  /** Hears what is done now. */
  readonly onStep?: ((step: string) => void) | undefined;
}

/** @internal */
export interface OverrideResult {
  readonly document: OverrideDocument;
  readonly result: Planned;
}

/** @internal */
export interface DropResult {
  readonly document: OverrideDocument;
  readonly dropped: Dropped;
  /** The shared sheet, and its text before. */
  readonly sheet: { readonly path: string; readonly text: string };
}

/**
 * Writes the weakest rule that beats what says the declarations now, and nothing where it would reach further.
 * In: the site's folder; a selector; `property: value` each. Out: `refused` where nothing was written.
 * Throws `UsageError`.
 * @internal
 */
export function override(
  folder: string,
  selector: string | undefined,
  declarations: readonly string[],
  options: OverrideOptions = {},
): OverrideResult {
  if (selector === undefined || selectorForm(selector) === undefined)
    throw new UsageError('override-selector', { text: selector ?? 'override' });
  const changes = readDeclarations(declarations);
  const taken = changes.find(({ value }) => value === undefined);
  if (taken !== undefined) throw new UsageError('override-value', { property: taken.property });
  const site = openForChange(folder);
  const { model, shared, config } = site;
  if (site.sheets.some(({ path, owner }) => path === shared && owner === 'platform'))
    throw new UsageError('shared-is-platform', { sheet: shared });
  const within = readWithin(options.within, model);
  const own = boxOf(site);
  if (own !== undefined) checkBox(within, { model, shared, boxOf: own }, options.within ?? '');
  options.onStep?.('proving');
  const medium =
    options.medium === undefined
      ? undefined
      : spelledAsThere(site, options.medium.replace(/^\s*@media\s*/i, ''));
  const result = planned(
    planOverride({
      ...{ model, shared, boxOf: own },
      partNames: config.parts ?? {},
      selector,
      changes,
      within,
      medium,
      everywhere: options.everywhere === true,
      unreadDocuments: sheetsElsewhere(site).get(shared) ?? [],
    }),
    selector,
    options.within,
  );
  const refused = !isAsWished(result.proof) || result.unmet.length > 0;
  const done = refused ? NOTHING_DONE : carryOut(folder, site, 'override', result.edits, options);
  const document: OverrideDocument = {
    format: 1,
    command: 'override',
    did: 'override',
    selector,
    asked: changes.map(changeText),
    ...done,
    refused,
    rules: result.rules,
    important: result.important,
    meant: result.proof.meant,
    moved: elementsIn(result.proof.moved),
    strays: result.proof.strays.length + result.unmet.length,
  };
  return { document, result };
}

/** Throws `UsageError` where a page that cannot be written has no box that the override could stand in. */
function checkBox(within: Within, writable: Writable, text: string): void {
  const home = homeOf(within, writable);
  if (home.kind === 'boxes' && home.of.size === 0) throw new UsageError('visited-no-page-box', { text });
}

/** Throws `UsageError` for an override that there is nothing to plan for. */
function planned(result: PlanResult, selector: string, within: string | undefined): Planned {
  if (result.kind === 'planned') return result;
  if (result.kind === 'nothing matches') {
    const where = within === undefined ? 'on any page' : `within ${within}`;
    throw new UsageError('override-nothing', { selector, where, quoted: quoted(selector) });
  }
  const { writtenIn, entry } = result.by;
  throw new UsageError('unbeatable', {
    declaration: `${entry.declaration.property}: ${entry.declaration.value}`,
    by: writtenIn.kind === 'rule' ? writtenIn.rule.selector.text : `the ${writtenIn.kind}`,
    why: result.why,
  });
}

/** A media query that a sheet of the site writes with other spaces is the same one. */
function spelledAsThere({ model }: Site, medium: string): string {
  const form = (text: string): string => without(text, SPACE).toLowerCase();
  for (const file of model.sources.sheets.keys())
    for (const { conditions } of model.sheetAt(file)?.sheet.rules ?? [])
      for (const { kind, text } of conditions)
        if (kind === 'media' && form(text) === form(medium)) return text;
  return medium;
}

/** What an override document holds where nothing is written. */
const NOTHING_ASKED = {
  format: 1,
  command: 'override',
  asked: [],
  written: false,
  files: [],
  refused: false,
  rules: [],
  important: false,
  meant: 0,
  moved: { elements: 0, pages: [] },
  strays: 0,
} as const;

/**
 * Every override of a site with what it beats, and whether it is still needed. Throws `UsageError`.
 * @internal
 */
export function listOverrides(folder: string): { document: OverrideDocument; shared: string } {
  const site = openForChange(folder);
  const { model, shared, config, isPlatform } = site;
  const overrides = [shared, ...pageBoxes(site)].flatMap((sheet) => {
    const text = model.sources.sheets.get(sheet) ?? '';
    const rules = rulesOfPart(model, sheet, config.parts ?? {});
    return inspectRules(model, rules, isPlatform).map((state) => stateOf(state, sheet, text));
  });
  return { document: { ...NOTHING_ASKED, did: 'list', overrides }, shared };
}

/** Of a running system: the boxes of single pages. */
function pageBoxes(site: Site): string[] {
  const own = boxOf(site);
  return own === undefined ? [] : site.model.paths.flatMap((page) => own(page) ?? []);
}

/**
 * Takes the override with a selector away, or only some of its properties.
 * Out: `refused` where nothing was written. Throws `UsageError` where there is none.
 * @internal
 */
export function dropOverride(
  folder: string,
  selector: string | undefined,
  properties: readonly string[] = [],
  options: Pick<OverrideOptions, 'within' | 'medium' | 'patch'> = {},
): DropResult {
  if (selector === undefined) throw new UsageError('drop-what', {});
  const site = openForChange(folder);
  const { model, shared, config } = site;
  const names = properties.map((one) => one.replace(/\s*:.*$/, '').toLowerCase());
  const { medium } = options;
  const within = readWithin(options.within, model);
  const writable = { model, shared, boxOf: boxOf(site) };
  const home = homeOf(within, writable);
  const [box = shared] = home.kind === 'boxes' ? home.of.values() : [];
  const sheet = { path: box, partNames: config.parts ?? {} };
  const dropped = planDrop(model, sheet, {
    selector: scopedSelector(selector, within, writable),
    properties: names,
    medium,
  });
  if (dropped === undefined) throw noOverride(site, selector);
  const refused = !isAsWished(dropped.proof);
  const done = refused ? NOTHING_DONE : carryOut(folder, site, 'override --drop', dropped.edits, options);
  const document: OverrideDocument = {
    ...NOTHING_ASKED,
    did: 'drop',
    selector,
    ...done,
    refused,
    moved: elementsIn(dropped.proof.moved),
    strays: dropped.proof.strays.length,
  };
  return { document, dropped, sheet: { path: box, text: model.sources.sheets.get(box) ?? '' } };
}

/** Names what stands there under a longer selector, or in a medium: that may be what was meant. */
function noOverride({ model, shared, config }: Site, selector: string): UsageError {
  const near = rulesOfPart(model, shared, config.parts ?? {}).find(({ selector: text }) =>
    listItems(text).some((one) => one === selector || one.endsWith(` ${selector}`)),
  );
  if (near === undefined) return new UsageError('no-override', { selector, sheet: shared });
  const around = near.conditions.map(({ kind, text }) => `@${kind} ${text} `).join('');
  return new UsageError('no-override-but', { selector, sheet: shared, near: around + near.selector });
}
