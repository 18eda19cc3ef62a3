// How far an override is meant to reach, and what is written in front of its selector for that.

import { withoutEnd, withoutStart } from '../../base/phrases.js';
import type { SiteModel } from '../../cascade/index.js';
import type { Page } from '../../read/markup/index.js';

export type Within =
  | { readonly kind: 'site' }
  | { readonly kind: 'page'; readonly path: string }
  | { readonly kind: 'folder'; readonly path: string }
  | { readonly kind: 'body class'; readonly name: string }
  | { readonly kind: 'selector'; readonly text: string };

/** How an override is written so that it reaches just the pages and places meant. */
export interface Placement {
  /** In front of the selector, empty for none. */
  readonly scope: string;
  readonly home: Home;
  readonly isOn: (page: Page) => boolean;
}

/** What holds the rule. */
export type Home =
  | { readonly kind: 'sheet'; readonly path: string }
  /** Style blocks of these pages. */
  | { readonly kind: 'blocks'; readonly pages: readonly string[] }
  /** Where pages cannot be written: by page, the sheet that it has of its own. */
  | { readonly kind: 'boxes'; readonly of: ReadonlyMap<string, string> };

/** Where an override may be written. */
export interface Writable {
  readonly model: SiteModel;
  readonly shared: string;
  /** Where pages cannot be written: the sheet that a page has of its own. */
  readonly boxOf?: ((page: string) => string | undefined) | undefined;
}

/** The sheet of a home that a page loads; `undefined` for a block. */
export function sheetFor(home: Home, page: Page): string | undefined {
  return home.kind === 'sheet' ? home.path : home.kind === 'boxes' ? home.of.get(page.path) : undefined;
}

/** The files that hold the rule. */
export function filesOf(home: Home): readonly string[] {
  if (home.kind === 'sheet') return [home.path];
  return home.kind === 'blocks' ? home.pages : [...new Set(home.of.values())];
}

/** In: what was typed after `--within`. A path of the site is a page or a folder; `body.name` a body class. */
export function readWithin(text: string | undefined, model: SiteModel): Within {
  if (text === undefined || text === 'site') return { kind: 'site' };
  const path = withoutEnd(withoutStart(text, './'), '/');
  if (model.sources.pages.has(path)) return { kind: 'page', path };
  if (model.paths.some((one) => one.startsWith(`${path}/`))) return { kind: 'folder', path };
  const name = /^(?:body)?\.([\w-]+)$/.exec(text)?.[1];
  const onBodies = name !== undefined && model.pages.some((page) => bodyOf(page)?.classes.includes(name));
  return name !== undefined && (text.startsWith('body') || onBodies)
    ? { kind: 'body class', name }
    : { kind: 'selector', text };
}

export function placementOf(within: Within, { model, shared, boxOf }: Writable): Placement {
  const placement = (scope: string, isOn: Placement['isOn']): Placement => ({
    scope,
    home: { kind: 'sheet', path: shared },
    // What does not load the box cannot be reached by what is written into it.
    isOn: boxOf === undefined ? isOn : (page) => isOn(page) && loads(model, page, shared),
  });
  switch (within.kind) {
    case 'site':
      return placement('', () => true);
    case 'selector':
      return placement(within.text, () => true);
    case 'body class': {
      const { name } = within;
      return placement(`body.${name}`, (page) => bodyOf(page)?.classes.includes(name) ?? false);
    }
    case 'page':
    case 'folder': {
      const isOn = ({ path }: Page): boolean => path === within.path || path.startsWith(`${within.path}/`);
      const pages = model.pages.filter((page) => page.kind === 'page' && isOn(page));
      const scope = bodyClassOf(pages, model);
      if (scope !== undefined) return placement(scope, isOn);
      if (boxOf === undefined)
        return { scope: '', home: { kind: 'blocks', pages: pages.map(({ path }) => path) }, isOn };
      const of = new Map(
        pages.flatMap(({ path }) => {
          const box = boxOf(path);
          return box === undefined ? [] : [[path, box] as const];
        }),
      );
      return { scope: '', home: { kind: 'boxes', of }, isOn: ({ path }) => of.has(path) };
    }
  }
}

function loads(model: SiteModel, page: Page, sheet: string): boolean {
  return model.sheetOrderOf(page).uses.some(({ source }) => source.path === sheet);
}

export function homeOf(within: Within, writable: Writable): Home {
  return placementOf(within, writable).home;
}

/** A selector as an override within that reach is written. */
export function scopedSelector(selector: string, within: Within, writable: Writable): string {
  const { scope } = placementOf(within, writable);
  return scope === '' ? selector : `${scope} ${selector}`;
}

function bodyOf(page: Page) {
  return page.elements.find(({ name, parent }) => name === 'body' && parent >= 0);
}

/** A class that the bodies of these pages have, and nothing else of the site. */
function bodyClassOf(pages: readonly Page[], model: SiteModel): string | undefined {
  const [first, ...others] = pages.map((page) => bodyOf(page)?.classes ?? []);
  const shared = (first ?? []).filter((name) => others.every((classes) => classes.includes(name)));
  const wanted = new Set(pages);
  const isFree = (name: string): boolean =>
    model.pages.every((page) =>
      page.elements.every(
        (element) => !element.classes.includes(name) || (wanted.has(page) && element.name === 'body'),
      ),
    );
  const free = shared.find(isFree);
  return free === undefined ? undefined : `body.${free}`;
}
