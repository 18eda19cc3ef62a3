// Areas of a site that share no sheet: each keeps its own, and nothing crosses over.

import { sheetPath } from '../addresses.js';
import { SiteModel } from '../cascade/index.js';
import { isPlainLink, type Page } from '../markup/index.js';
import { linkedByAll } from '../stock/index.js';
import type { DraftSite } from './draft-site.js';

/** Out: the site itself where its pages share their sheets; else one for each area, with the sheet that its rules go into. */
export function areasOf(site: DraftSite): DraftSite[] {
  if (site.sharedIsGiven) return [site];
  const themes = site.sheets.filter(({ owner }) => owner === 'theme').map(({ path }) => path);
  const whole = site.model.pages.filter(({ kind }) => kind === 'page');
  const groups = groupsOf(site.model, whole, new Set(themes));
  if (groups.length < 2) return [site];
  const rest = site.model.pages.filter((page) => !groups.some(({ pages }) => pages.includes(page)));
  for (const page of rest) {
    const home = groups.find(({ folder }) => folder !== '' && page.path.startsWith(`${folder}/`));
    // What stands beside all areas may be part of any.
    if (home === undefined && page.kind === 'component') return [site];
    home?.pages.push(page);
  }
  const left = rest.filter((page) => !groups.some(({ pages }) => pages.includes(page)));
  const areas = groups.map((group) => areaOf(site, group));
  return left.length === 0 ? areas : [...areas, areaOf(site, { pages: left, sheets: new Set(), folder: '' })];
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
        .stackOf(page)
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

function commonFolder(paths: readonly string[]): string {
  const [first = [], ...others] = paths.map((path) => path.split('/').slice(0, -1));
  let depth = 0;
  while (depth < first.length && others.every((one) => one[depth] === first[depth])) depth++;
  return first.slice(0, depth).join('/');
}

function areaOf(site: DraftSite, { pages, sheets, folder }: Group): DraftSite {
  const { sources, table } = site.model;
  const own = new Set(pages.map(({ path }) => path));
  const model = new SiteModel(
    {
      ...sources,
      pages: new Map([...sources.pages].filter(([path]) => own.has(path))),
      components: new Set([...sources.components].filter((path) => own.has(path))),
    },
    table,
    site.model,
  );
  const linked = pages
    .filter(({ kind }) => kind === 'page')
    .map((page) =>
      page.sheets.flatMap((one) =>
        one.kind === 'link' && isPlainLink(one)
          ? (sheetPath(one.address, page.path, (address) => model.copyOf(address)) ?? [])
          : [],
      ),
    );
  const all = linkedByAll([...sheets], linked).filter((path) => !site.unseen.has(path));
  const beside = [...sheets][0]?.replace(/[^/]*$/, '') ?? (folder === '' ? '' : `${folder}/`);
  return {
    ...site,
    model,
    sheets: site.sheets.filter(({ path, owner }) => owner !== 'theme' || sheets.has(path)),
    shared: { ...site.shared, path: all.at(-1) ?? `${beside}shared.css` },
  };
}
