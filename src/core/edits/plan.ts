// Styles to edits: which tags change, which pages need the link, and what is written into the shared sheet.

import type { SiteModel, SiteSources } from '../cascade/index.js';
import { type Member, type Style, selectorText } from '../search/index.js';
import type { CarriedUnit, Carrier, KeptReason } from '../stock/index.js';
import { editTag } from './attributes.js';
import { applyEdits, type Edit } from './edit.js';
import { planBlock, planLink } from './link.js';
import { type PartNames, type SharedRule, writeRules } from './shared-sheet.js';

/** A style with the class that its elements wear, if they wear one for it. */
export interface NamedStyle extends Style {
  readonly className: string | undefined;
}

export interface SitePlan {
  /** Edits by path of an existing file; a file not in the sources is created from an empty text. */
  readonly edits: ReadonlyMap<string, readonly Edit[]>;
  readonly after: SiteSources;
  /** Members that could not be written, with the reason. */
  readonly unwritten: readonly { readonly member: Member; readonly reason: KeptReason }[];
}

/** Plans all edits of a set of styles. In: `shared`, the site path of the shared sheet. */
export function planEdits(
  model: SiteModel,
  styles: readonly NamedStyle[],
  shared: string,
  names: PartNames = {},
): SitePlan {
  const edits = new Map<string, Edit[]>();
  const unwritten: { member: Member; reason: KeptReason }[] = [];
  const written = new Set<NamedStyle>();
  const touched = new Set<string>();
  let component = false;
  for (const [carrier, parts] of byCarrier(styles)) {
    const units = carrier.units.filter((unit) => parts.some(({ member }) => member.units.includes(unit)));
    const classes = parts.flatMap(({ style }) => style.className ?? []);
    const changes = editTag(carrier, units, [...new Set(classes)]);
    if (changes === undefined) {
      for (const { member } of parts) unwritten.push({ member, reason: { kind: 'character references' } });
      continue;
    }
    push(edits, carrier.page.path, changes);
    for (const { style } of parts) written.add(style);
    if (!parts.some(({ style }) => needsSheet(style) && style.page === undefined)) continue;
    touched.add(carrier.page.path);
    component ||= carrier.page.kind === 'component';
  }
  const inOrder = [...written].sort((a, b) => a.order - b.order);
  const rules = inOrder.filter(({ page }) => page === undefined).flatMap(rulesOf);
  if (rules.length > 0) {
    push(edits, shared, writeRules(model.sources.sheets.get(shared) ?? '', shared, rules, names));
  }
  // A component may be on any page: then every page needs the sheet.
  if (rules.length > 0) addLinks(model, shared, (path) => component || touched.has(path), edits);
  // Behind the link, so that the page's own rules stand behind the shared ones.
  for (const path of new Set(inOrder.flatMap(({ page }) => page ?? []))) {
    const own = inOrder.filter(({ page }) => page === path).flatMap(rulesOf);
    push(edits, path, planBlock(model.page(path)!, own));
  }
  return { edits, after: applyToSources(model.sources, edits), unwritten };
}

/** Links the shared sheet from pages that do not link it yet. */
export function addLinks(
  model: SiteModel,
  shared: string,
  isWanted: (path: string) => boolean,
  edits: Map<string, Edit[]>,
): void {
  for (const path of model.paths) {
    const page = isWanted(path) ? model.page(path) : undefined;
    if (page === undefined || page.kind !== 'page' || page.base !== undefined) continue;
    const { edit } = planLink(page, shared, (address) => model.copyOf(address));
    if (edit !== undefined) push(edits, page.path, [edit]);
  }
}

function needsSheet({ home }: Style): boolean {
  return home.kind !== 'already given' && home.kind !== 'existing class';
}

function byCarrier(styles: readonly NamedStyle[]): Map<Carrier, { style: NamedStyle; member: Member }[]> {
  const carriers = new Map<Carrier, { style: NamedStyle; member: Member }[]>();
  for (const style of styles) {
    for (const member of style.members) {
      const parts = carriers.get(member.carrier);
      if (parts === undefined) carriers.set(member.carrier, [{ style, member }]);
      else parts.push({ style, member });
    }
  }
  return carriers;
}

/** The selectors of a style as they are written; none where it needs no rule. */
export function selectorsOf({ home, strength, className }: NamedStyle): string[] {
  switch (home.kind) {
    case 'already given':
    case 'existing class':
      return [];
    case 'existing hooks':
    case 'position':
      return [...home.selectors];
    case 'new class':
      return [
        `${home.scope === undefined ? '' : `${home.scope} `}${selectorText(`.${className}`, strength)}`,
      ];
  }
}

/** One rule for the elements, and one for the cells of tables where a table says something of its cells. */
export function rulesOf(style: NamedStyle): SharedRule[] {
  const selectors = selectorsOf(style);
  if (selectors.length === 0) return [];
  const own = placed(style.units, ({ declarations }) => declarations);
  const cells = placed(style.units, (unit) => unit.cells ?? []);
  const { part } = style;
  return [
    ...(own.length === 0 ? [] : [{ selectors, part, declarations: own }]),
    ...(cells.length === 0
      ? []
      : [{ selectors: selectors.flatMap(cellSelectors), part, declarations: cells }]),
  ];
}

function placed(
  units: readonly CarriedUnit[],
  pick: (unit: CarriedUnit) => CarriedUnit['declarations'],
): SharedRule['declarations'] {
  return units.flatMap((unit) => pick(unit).map((declaration) => ({ declaration, holder: unit.holder })));
}

/** The cells of a table, and not those of a table inside it. */
function cellSelectors(table: string): string[] {
  const weak = /^:where\((.*)\)$/.exec(table)?.[1];
  return ['td', 'th'].map((cell) =>
    weak === undefined ? `${table} > * > tr > ${cell}` : `:where(${weak} > * > tr > ${cell})`,
  );
}

/** The texts of a site once edits are made; files that the sources do not hold are new sheets. */
export function applyToSources(
  sources: SiteSources,
  edits: ReadonlyMap<string, readonly Edit[]>,
): SiteSources {
  const pages = new Map(sources.pages);
  const sheets = new Map(sources.sheets);
  for (const [path, changes] of edits) {
    const page = sources.pages.get(path);
    if (page !== undefined) pages.set(path, applyEdits(page, changes));
    else sheets.set(path, applyEdits(sources.sheets.get(path) ?? '', changes));
  }
  return { ...sources, pages, sheets };
}

export function push(edits: Map<string, Edit[]>, path: string, changes: readonly Edit[]): void {
  const known = edits.get(path);
  if (known === undefined) edits.set(path, [...changes]);
  else known.push(...changes);
}
