// Styles to edits: which tags change, which pages need the link, and what is written into the shared sheet.

import { fileAt } from '../../base/addresses.js';
import type { KeptReason } from '../../base/reasons/index.js';
import type { SiteModel, SiteSources } from '../../cascade/index.js';
import { askedName } from '../../read/components/index.js';
import { givenSheets, isGiven, type Page } from '../../read/markup/index.js';
import type { StyleRule } from '../../read/sheets/index.js';
import type { SharedSheet } from '../../read/sheets/shared-sheet.js';
import { type Member, type NamedStyle, rulesOf, type SharedRule, type Style } from '../../search/index.js';
import type { StyledTag } from '../../stock/index.js';
import { editTag } from './attributes.js';
import { applyEdits, type Edit } from './edit.js';
import { isLinked, linksIn, planBlock, planLink } from './link.js';
import { planOwnBlock } from './own-block.js';
import { writeRules } from './shared-sheet.js';

export interface SitePlan {
  /** Edits by path of an existing file; a file not in the sources is created from an empty text. */
  readonly edits: ReadonlyMap<string, readonly Edit[]>;
  readonly after: SiteSources;
  /** Members that could not be written, with the reason. */
  readonly unwritten: readonly { readonly member: Member; readonly reason: KeptReason }[];
}

/** Plans all edits of a set of styles. */
export function planEdits(model: SiteModel, styles: readonly NamedStyle[], shared: SharedSheet): SitePlan {
  const edits = new Map<string, Edit[]>();
  const unwritten: { member: Member; reason: KeptReason }[] = [];
  const written = new Set<NamedStyle>();
  const touched = new Set<string>();
  let component = false;
  for (const [styledTag, parts] of byStyledTag(styles)) {
    const movables = styledTag.movables.filter((movable) =>
      parts.some(({ member }) => member.movables.includes(movable)),
    );
    const classes = parts.flatMap(({ style }) => wordOf(style, styledTag.page.path) ?? []);
    const changes = editTag(styledTag, movables, [...new Set(classes)]);
    if (changes === undefined) {
      for (const { member } of parts) unwritten.push({ member, reason: { kind: 'character references' } });
      continue;
    }
    push(edits, styledTag.page.path, changes);
    for (const { style } of parts) written.add(style);
    if (!parts.some(({ style }) => needsSheet(style) && style.page === undefined)) continue;
    for (const path of [styledTag.page.path, ...styledTag.also.map((one) => one.path)]) touched.add(path);
    component ||= styledTag.page.kind === 'component' && !styledTag.page.sheets.some(isGiven);
  }
  const inOrder = [...written].sort((a, b) => a.order - b.order);
  const rules = inOrder.filter(({ page }) => page === undefined).flatMap(rulesOf);
  if (rules.length > 0) {
    push(edits, shared.path, writeRules(model.sources.sheets.get(shared.path) ?? '', shared, rules));
  }
  // A component may be on any page: then every page needs the sheet.
  if (rules.length > 0)
    addLinks(
      model,
      shared.path,
      (path) => touched.has(path) || (component && model.page(path)?.isMail === false),
      edits,
    );
  // Behind the link, so that the page's own rules stand behind the shared ones.
  for (const path of new Set(inOrder.flatMap(({ page }) => page ?? []))) {
    const own = inOrder.filter(({ page }) => page === path).flatMap(rulesOf);
    push(edits, path, planApart(model, path, own));
  }
  return { edits, after: applyToSources(model.sources, edits), unwritten };
}

/** Rules that stand apart from the shared sheet: in the block of a page or a component, or in a module. */
function planApart(model: SiteModel, path: string, rules: readonly SharedRule[]): Edit[] {
  const page = model.page(path);
  if (page === undefined)
    return writeRules(model.sources.sheets.get(path) ?? '', { path, partNames: {} }, rules);
  return page.kind === 'component' ? [planOwnBlock(path, page.text, rules)] : planBlock(page, rules);
}

/** The class of a style as a tag of a file has it. */
function wordOf({ className, askedOf }: NamedStyle, path: string): string | undefined {
  const module = askedOf?.get(path);
  return module === undefined || className === undefined ? className : askedName(module, className);
}

/** Links the shared sheet from pages that do not link it yet. */
export function addLinks(
  model: SiteModel,
  shared: string,
  isWanted: (path: string) => boolean,
  edits: Map<string, Edit[]>,
): void {
  if (model.sources.link === 'none') return;
  const linked = new Set<string>();
  for (const path of model.paths) {
    const page = isWanted(path) ? model.page(path) : undefined;
    if (page === undefined || page.kind !== 'page' || page.base !== undefined) continue;
    if (hasBehind(model, page, shared)) continue;
    const plan = linkOn(model, page, shared);
    if (plan.edit === undefined || linked.has(plan.path)) continue;
    push(edits, plan.path, [plan.edit]);
    linked.add(plan.path);
  }
}

/** Whether a page has a sheet, or would once links are added. */
export function isLinkable(model: SiteModel, page: Page, shared: string): boolean {
  if (givenSheets(page)?.includes(shared) === true || hasBehind(model, page, shared)) return true;
  if (isLinked(page, shared, (address) => model.copyOf(address))) return true;
  if (model.sources.link === 'none' || page.base !== undefined) return false;
  return page.kind === 'page' && linkOn(model, page, shared).edit !== undefined;
}

/** How a page comes to link the shared sheet: in its own text, or in that of the part that holds its links. */
export function linkOn(
  model: SiteModel,
  page: Page,
  shared: string,
): { readonly path: string; readonly edit: Edit | undefined } {
  const copyOf = (address: string): string | undefined => model.copyOf(address);
  const part = linksIn(page);
  const holder = (part === undefined ? undefined : model.page(part)) ?? page;
  const isThere = holder !== page && isLinked(page, shared, copyOf);
  return {
    path: holder.path,
    edit: isThere ? undefined : planLink(holder, shared, copyOf, model.sources.link).edit,
  };
}

/** Whether a page links a sheet that this one is a part of. */
export function hasBehind(model: SiteModel, page: Page, shared: string): boolean {
  return page.sheets.some((one) => {
    const path =
      one.kind === 'link' ? fileAt(one.address, page.path, (address) => model.copyOf(address)) : undefined;
    return path !== undefined && model.behind(path) === shared;
  });
}

function needsSheet({ home }: Style): boolean {
  return home.kind !== 'already given' && home.kind !== 'existing class';
}

function byStyledTag(styles: readonly NamedStyle[]): Map<StyledTag, { style: NamedStyle; member: Member }[]> {
  const styledTags = new Map<StyledTag, { style: NamedStyle; member: Member }[]>();
  for (const style of styles) {
    for (const member of style.members) {
      const parts = styledTags.get(member.styledTag);
      if (parts === undefined) styledTags.set(member.styledTag, [{ style, member }]);
      else parts.push({ style, member });
    }
  }
  return styledTags;
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

/** Other selectors for a rule, set out as the old ones are. In: where the sheet begins in the text. */
export function selectorEdit(
  text: string,
  offset: number,
  { selectorRange }: StyleRule,
  selectors: readonly string[],
): Edit {
  const start = offset + selectorRange.start;
  const written = text.slice(start, offset + selectorRange.end).trimEnd();
  const eol = /,(\s+)/.exec(written)?.[1] ?? ' ';
  return { start, end: start + written.length, text: selectors.join(`,${eol}`) };
}
