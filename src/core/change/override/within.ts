// How far an override is meant to reach, and what is written in front of its selector for that.

import type { SiteModel } from '../../cascade/index.js';
import type { Page } from '../../markup/index.js';

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
  /** Pages whose own style blocks hold the rule; `undefined` for the shared sheet. */
  readonly blocks: readonly string[] | undefined;
  readonly isOn: (page: Page) => boolean;
}

/** In: what was typed after `--within`. A path of the site is a page or a folder; `body.name` a body class. */
export function readWithin(text: string | undefined, model: SiteModel): Within {
  if (text === undefined || text === 'site') return { kind: 'site' };
  const path = text.replace(/^\.\//, '').replace(/\/$/, '');
  if (model.sources.pages.has(path)) return { kind: 'page', path };
  if (model.paths.some((one) => one.startsWith(`${path}/`))) return { kind: 'folder', path };
  const name = /^(?:body)?\.([\w-]+)$/.exec(text)?.[1];
  const onBodies = name !== undefined && model.pages.some((page) => bodyOf(page)?.classes.includes(name));
  return name !== undefined && (text.startsWith('body') || onBodies)
    ? { kind: 'body class', name }
    : { kind: 'selector', text };
}

export function placementOf(within: Within, model: SiteModel): Placement {
  switch (within.kind) {
    case 'site':
      return { scope: '', blocks: undefined, isOn: () => true };
    case 'selector':
      return { scope: within.text, blocks: undefined, isOn: () => true };
    case 'body class': {
      const { name } = within;
      const isOn = (page: Page): boolean => bodyOf(page)?.classes.includes(name) ?? false;
      return { scope: `body.${name}`, blocks: undefined, isOn };
    }
    case 'page':
    case 'folder': {
      const isOn = ({ path }: Page): boolean => path === within.path || path.startsWith(`${within.path}/`);
      const pages = model.pages.filter((page) => page.kind === 'page' && isOn(page));
      const scope = bodyClassOf(pages, model);
      return {
        scope: scope ?? '',
        blocks: scope === undefined ? pages.map(({ path }) => path) : undefined,
        isOn,
      };
    }
  }
}

/** A selector as an override within that reach is written. */
export function scopedSelector(selector: string, within: Within, model: SiteModel): string {
  const { scope } = placementOf(within, model);
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
