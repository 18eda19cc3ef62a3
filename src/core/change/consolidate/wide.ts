// A large site is searched by excerpts of its pages. What is found there is made on the whole pages and proven on each of
// them; pages that do not look as before are read whole, and the search is done again.

import { type Alike, SiteModel, type SiteSources } from '../../cascade/index.js';
import { type Edit, planLink } from '../../edit/text/index.js';
import type { Proof } from '../../proof/index.js';
import type { Page } from '../../read/markup/index.js';
import { type Besides, type Excerpts, type Widened, widen } from '../excerpt/index.js';
import type { Consolidation } from './consolidate.js';
import type { DraftSite } from './draft-site.js';

export type WideSite = DraftSite & { readonly whole: NonNullable<DraftSite['whole']> };

export function isWide(site: DraftSite): site is WideSite {
  return site.whole !== undefined;
}

/** What was found in one area of the site. */
export interface AreaResult {
  readonly area: DraftSite;
  readonly result: Consolidation;
}

/** What was found, on the whole pages, with the proof of every page. */
export interface ProvenWide extends Widened {
  readonly proof: Proof;
}

/** Out: `missed`, pages that must be read whole since they do not look as before. */
export async function proveWide(
  { whole: { pages, excerpts } }: WideSite,
  areas: readonly AreaResult[],
  onPage?: (done: number, of: number) => void,
): Promise<ProvenWide> {
  const edits = new Map(areas.flatMap(({ result }) => [...result.edits]));
  const widened = widen(pages, excerpts, edits, {
    gone: goneFrom(areas, excerpts),
    linkOf: linkFrom(areas),
  });
  const proof = await pages.prove(widened.edits, onPage);
  const missed = new Set([...widened.missed, ...proof.differences.map(({ page }) => page)]);
  return { ...widened, proof, missed: [...missed] };
}

/** Classes that leave every tag of a page. A page that was left out is shown as another one is. */
function goneFrom(areas: readonly AreaResult[], { leftOut }: Excerpts): Besides['gone'] {
  const byArea = areas.map(({ area, result }) => ({
    pages: area.model.sources.pages,
    names: new Set(result.classMoves.map(({ name }) => name)),
  }));
  return (path) => {
    const like = leftOut.get(path)?.like ?? path;
    return byArea.find(({ pages }) => pages.has(like))?.names ?? NONE;
  };
}

/** The link to an area's sheet, for a page whose tags change as those do of one that now links it; and for all, where a component needs it. */
function linkFrom(areas: readonly AreaResult[]): Besides['linkOf'] {
  const known = new Map<string, ((head: Page) => Edit | undefined) | undefined>();
  const linkOn = (path: string): ((head: Page) => Edit | undefined) | undefined => {
    if (!known.has(path)) known.set(path, linkGiven(path, areaOf(areas, path)));
    return known.get(path);
  };
  const asksAll = new Map(areas.map((one) => [one, hasChangedComponent(one)]));
  return (from, like) => {
    for (const path of from) if (linkOn(path) !== undefined) return linkOn(path);
    const area = areaOf(areas, like);
    return area !== undefined && asksAll.get(area) === true ? linkOn(like) : undefined;
  };
}

function areaOf(areas: readonly AreaResult[], path: string): AreaResult | undefined {
  return areas.find(({ area }) => area.model.sources.pages.has(path));
}

/** A component may stand on any page, and asks all of them for its sheet. */
function hasChangedComponent({ area, result }: AreaResult): boolean {
  return area.model.pages.some(({ kind, path }) => kind === 'component' && result.edits.has(path));
}

/** Of a page that now links its area's sheet: how another one would. */
function linkGiven(
  path: string,
  found: AreaResult | undefined,
): ((head: Page) => Edit | undefined) | undefined {
  const page = found?.area.model.page(path);
  if (found === undefined || page === undefined) return undefined;
  const { model, shared } = found.area;
  const linkOn = (head: Page): Edit | undefined =>
    planLink(head, shared.path, (address) => model.copyOf(address), model.sources.link).edit;
  const own = linkOn(page);
  const isGiven = found.result.edits
    .get(path)
    ?.some(({ start, text }) => start === own?.start && text === own.text);
  return isGiven === true ? linkOn : undefined;
}

const NONE: ReadonlySet<string> = new Set();

/** The site with these pages read whole; without excerpts once no page is left to be read so. */
export function withWhole(site: WideSite, paths: readonly string[]): DraftSite {
  const { pages, excerpts } = site.whole;
  const { sources, table } = site.model;
  const texts = new Map(sources.pages);
  const parsed = new Map(sources.parsed);
  const cuts = new Map(excerpts.cuts);
  const leftOut = new Map(excerpts.leftOut);
  const copies = new Map(excerpts.copies);
  let isSome = false;
  for (const path of paths) {
    const text = pages.read(path);
    if (text === undefined) continue;
    isSome = cuts.delete(path) || isSome;
    isSome = leftOut.delete(path) || isSome;
    copies.delete(path);
    texts.set(path, text);
    parsed.set(path, pages.parse(path, text));
  }
  const gone = new Set(paths);
  const alike = withoutPages(sources.alike, gone);
  const likeTags = new Map(
    [...copies].map(([path, own]) => [
      path,
      own.map(({ like }) => (cuts.has(like.path) ? like : { path: like.path, fromEnd: like.inWhole })),
    ]),
  );
  const model = new SiteModel(
    { ...sources, pages: texts, parsed, alike, likeTags, leftOut },
    table,
    site.model,
  );
  if (!isSome) return { ...site, model, whole: undefined };
  return {
    ...site,
    model,
    whole: {
      pages,
      excerpts: { ...excerpts, cuts, copies, leftOut },
    },
  };
}

/** What stands for tags of these pages no longer does. */
function withoutPages(
  alike: SiteSources['alike'],
  paths: ReadonlySet<string>,
): NonNullable<SiteSources['alike']> {
  const left = new Map<string, ReadonlyMap<number, Alike>>();
  for (const [path, own] of alike ?? []) {
    // On a whole page elements have other numbers.
    const rest = [...own].map(([fromEnd, { count, inWhole, tags }]) => {
      const others = tags.filter((one) => !paths.has(one.path));
      const left = { count: count - (tags.length - others.length), inWhole, tags: others };
      return [paths.has(path) ? inWhole : fromEnd, left] as const;
    });
    left.set(path, new Map(rest));
  }
  return left;
}

/** Every page that an excerpt or nothing stands for. */
export function shortened({ whole: { excerpts } }: WideSite): string[] {
  return [...excerpts.cuts.keys(), ...excerpts.leftOut.keys()];
}
