// What sort of element a style is for, so that what is alike stands together.

import type { PageElement } from '../../read/markup/index.js';

export const STYLE_KINDS = [
  'text',
  'links and buttons',
  'boxes',
  'lists',
  'tables',
  'forms',
  'pictures',
] as const;
export type StyleKind = (typeof STYLE_KINDS)[number];

const NAMES: Readonly<Partial<Record<StyleKind, string>>> = {
  text: 'p h1 h2 h3 h4 h5 h6 span small strong em b i u s q cite code pre kbd samp var abbr time mark sub sup blockquote address hr font tt',
  'links and buttons': 'a button summary',
  lists: 'ul ol li dl dt dd menu',
  tables: 'table caption thead tbody tfoot tr td th col colgroup',
  forms: 'form input select textarea label fieldset legend option output progress meter',
  pictures: 'img picture figure figcaption svg video audio canvas iframe object',
};
const BY_NAME = new Map(
  STYLE_KINDS.flatMap((kind) => (NAMES[kind]?.split(' ') ?? []).map((name) => [name, kind] as const)),
);

export function kindOfElement({ name }: Pick<PageElement, 'name'>): StyleKind {
  return BY_NAME.get(name) ?? 'boxes';
}
