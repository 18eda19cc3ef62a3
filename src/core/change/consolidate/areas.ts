// Areas of a site that share no sheet: each keeps its own, and nothing crosses over.

import { commonFolder, fileAt } from '../../base/addresses.js';
import { getOrInsert } from '../../base/get-or-insert.js';
import { SiteModel } from '../../cascade/index.js';
import { copiesWith, saysWhatAllLink, sheetsBeside } from '../../edit/text/index.js';
import { isModuleSheet } from '../../read/components/index.js';
import { isStyleSheet } from '../../read/kinds/index.js';
import { givenSheets, isPlainLink, mayShow, type Page, pagesThatShow } from '../../read/markup/index.js';
import { linkedByAll, sheetForAll } from '../../stock/index.js';
import type { DraftSite } from './draft-site.js';

/** Out: the site itself where its pages share their sheets; else one for each area, with the sheet that its rules go into. */
export function areasOf(site: DraftSite): DraftSite[] {
  if (site.sharedIsGiven) return [site];
  const given = new Map<string, { readonly sheets: readonly string[]; readonly pages: Page[] }>();
  const rest: Page[] = [];
  for (const page of site.model.pages) {
    const sheets = givenSheets(page);
    if (sheets === undefined) rest.push(page);
    else getOrInsert(given, sheets.join('\n'), () => ({ sheets, pages: [] })).pages.push(page);
  }
  if (given.size === 0) return areasByLinks(site);
  // A sheet that no compiler takes is none that can be written into; one of plain CSS may be to come.
  const isClosed = (path: string): boolean =>
    site.sheets.some((one) => one.path === path && one.owner === 'platform') ||
    (!isStyleSheet(path) && !site.model.sources.sheets.has(path)) ||
    isModuleSheet(path);
  const areas = [...given.values()].map(({ sheets, pages }) =>
    areaOf(
      site,
      { pages, sheets: new Set(sheets), folder: '' },
      sheets.findLast((path) => !isClosed(path)),
    ),
  );
  const others = { pages: rest, sheets: new Set(site.sheets.map(({ path }) => path)), folder: '' };
  return rest.length === 0 ? areas : [...areas, ...areasByLinks(areaOf(site, others))];
}

function areasByLinks(site: DraftSite): DraftSite[] {
  const themes = site.sheets.filter(({ owner }) => owner === 'theme').map(({ path }) => path);
  const whole = site.model.pages.filter(({ kind }) => kind === 'page');
  const groups = groupsOf(site.model, whole, new Set(themes));
  const rest = site.model.pages.filter((page) => !groups.some(({ pages }) => pages.includes(page)));
  // Pages that an engine fills, without a sheet of the theme, are no part of those that have one.
  const isApart = rest.some(mayShow) && !groups.some(({ pages }) => pages.some(mayShow));
  if (groups.length < (isApart ? 1 : 2)) return [site];
  const showing = groups.filter(({ pages }) => pages.some(mayShow));
  for (const page of rest) {
    const beside = groups.find(({ folder }) => folder !== '' && page.path.startsWith(`${folder}/`));
    const home = page.kind === 'component' && showing.length === 1 ? showing[0] : beside;
    // What stands beside all areas may be part of any.
    if (home === undefined && page.kind === 'component' && !rest.some(mayShow)) return [site];
    home?.pages.push(page);
  }
  const left = rest.filter((page) => !groups.some(({ pages }) => pages.includes(page)));
  const all = withPartsTogether(
    left.length === 0
      ? groups
      : [...groups, { pages: left, sheets: new Set(), folder: commonFolder(left.map((page) => page.path)) }],
  );
  if (all.length === 1) return [site];
  const areas = all.map((group) => areaOf(site, group));
  // Two that would write into one sheet are one.
  return new Set(areas.map(({ shared }) => shared.path)).size === areas.length ? areas : [site];
}

/** Whether every part stands, wherever it may, on pages of its own area. */
export function keepsPartsApart(areas: readonly DraftSite[]): boolean {
  const all = areas.flatMap(({ model }) => model.pages);
  const parts = all.filter(({ kind }) => kind === 'component');
  if (parts.length === 0) return true;
  const places = new Set(
    parts.flatMap(({ around }) => around?.shownBy ?? pagesThatShow(all).map(({ path }) => path)),
  );
  const ofParts = areas.filter(({ model }) =>
    model.pages.some(({ path, kind }) => kind === 'component' || places.has(path)),
  );
  return ofParts.length === 1;
}

/** A part that may stand on pages of several areas is moved in all of these or in none: they are one. */
function withPartsTogether(groups: readonly Group[]): readonly Group[] {
  const all = groups.flatMap(({ pages }) => pages);
  const isAnywhere = all.some(({ kind, around }) => kind === 'component' && around?.shownBy === undefined);
  const showing = groups.filter(({ pages }) => pages.some(mayShow));
  if (!isAnywhere || showing.length < 2) return groups;
  // Of pages without a sheet, those alone that an engine fills.
  const isOfParts = (group: Group, page: Page): boolean =>
    group.sheets.size > 0 ? showing.includes(group) : page.kind === 'component' || mayShow(page);
  const pages = groups.flatMap((group) => group.pages.filter((page) => isOfParts(group, page)));
  const own = new Set(pages);
  const together: Group = {
    pages,
    sheets: new Set(showing.flatMap(({ sheets }) => [...sheets])),
    folder: commonFolder(pages.map(({ path }) => path)),
  };
  const apart = groups.flatMap((group) => {
    const rest = group.pages.filter((page) => !own.has(page));
    const folder = commonFolder(rest.map(({ path }) => path));
    return rest.length === 0 ? [] : { ...group, pages: rest, folder };
  });
  return [together, ...apart];
}

interface Group {
  readonly pages: Page[];
  readonly sheets: Set<string>;
  /** The deepest folder that holds all of them. */
  readonly folder: string;
}

/** Pages that have a theme sheet in common, directly or through others. */
function groupsOf(model: SiteModel, pages: readonly Page[], themes: ReadonlySet<string>): Group[] {
  let groups: { pages: Page[]; sheets: Set<string> }[] = [];
  for (const page of pages) {
    const own = new Set(
      model
        .sheetOrderOf(page)
        .uses.flatMap(({ source }) => (themes.has(source.path) && !source.isBlock ? source.path : [])),
    );
    if (own.size === 0) continue;
    const joined = groups.filter(({ sheets }) => [...own].some((path) => sheets.has(path)));
    groups = [
      ...groups.filter((one) => !joined.includes(one)),
      {
        pages: [...joined.flatMap((one) => one.pages), page],
        sheets: new Set([...joined.flatMap(({ sheets }) => [...sheets]), ...own]),
      },
    ];
  }
  return groups.map((one) => ({ ...one, folder: commonFolder(one.pages.map(({ path }) => path)) }));
}

/** In: `shared`, the sheet that its rules go into; as its pages link without. */
function areaOf(site: DraftSite, { pages, sheets, folder }: Group, shared?: string): DraftSite {
  const { sources, table } = site.model;
  const own = new Set(pages.map(({ path }) => path));
  const beside = [...sheets][0]?.replace(/[^/]*$/, '') ?? (folder === '' ? '' : `${folder}/`);
  const linked = pages
    .filter((page) => saysWhatAllLink(page, sources))
    .map((page) =>
      page.sheets.flatMap((one) =>
        one.kind === 'link' && isPlainLink(one)
          ? (fileAt(one.address, page.path, (address) => site.model.copyOf(address)) ?? [])
          : [],
      ),
    );
  const all = linkedByAll([...sheets], linked).filter((path) => !site.unseen.has(path));
  const path =
    shared ??
    sheetForAll(all, (one) => sources.sheets.get(one)) ??
    madeFor(pages, site.model) ??
    `${beside}shared.css`;
  const model = new SiteModel(
    {
      ...sources,
      pages: new Map([...sources.pages].filter(([path]) => own.has(path))),
      components: new Set([...sources.components].filter((path) => own.has(path))),
      copies: copiesWith(sources.copies, pages, path, sources.link),
    },
    table,
    site.model,
  );
  return {
    ...site,
    model,
    sheets: site.sheets.filter(({ path, owner }) => owner !== 'theme' || sheets.has(path)),
    shared: { ...site.shared, path },
  };
}

/** Where pages that an engine fills could link a sheet that is made for them. */
function madeFor(pages: readonly Page[], model: SiteModel): string | undefined {
  return sheetsBeside(pages, 'shared.css', (address) => model.copyOf(address))[0];
}
