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

const NAMES: readonly (readonly [StyleKind, RegExp])[] = [
  [
    'text',
    /^(p|h[1-6]|span|small|strong|em|b|i|u|s|q|cite|code|pre|kbd|samp|var|abbr|time|mark|sub|sup|blockquote|address|hr|font|tt)$/,
  ],
  ['links and buttons', /^(a|button|summary)$/],
  ['lists', /^(ul|ol|li|dl|dt|dd|menu)$/],
  ['tables', /^(table|caption|thead|tbody|tfoot|tr|td|th|col|colgroup)$/],
  ['forms', /^(form|input|select|textarea|label|fieldset|legend|option|output|progress|meter)$/],
  ['pictures', /^(img|picture|figure|figcaption|svg|video|audio|canvas|iframe|object)$/],
];

export function kindOfElement({ name }: Pick<PageElement, 'name'>): StyleKind {
  return NAMES.find(([, names]) => names.test(name))?.[0] ?? 'boxes';
}
