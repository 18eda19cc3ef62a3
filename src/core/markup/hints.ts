// Presentational attributes and elements: which markup is styling, by the HTML standard's Rendering chapter
// (https://html.spec.whatwg.org/multipage/rendering.html). Here they are only recognised, not mapped to CSS.

import type { PageElement } from './page.js';

export interface Hint {
  /** As a person would write it: `bgcolor="#eef"` or `<center>`. */
  readonly written: string;
  readonly attribute: string | undefined;
}

const EVERYWHERE_IN_TABLES = ['align', 'valign', 'bgcolor', 'background', 'width', 'height', 'nowrap'];
const TABLE_PARTS = ['td', 'th', 'tr', 'thead', 'tbody', 'tfoot', 'col', 'colgroup'];

const ATTRIBUTES: ReadonlyMap<string, readonly string[]> = new Map([
  [
    'table',
    [
      'align',
      'bgcolor',
      'background',
      'border',
      'bordercolor',
      'cellpadding',
      'cellspacing',
      'width',
      'height',
      'frame',
      'rules',
    ],
  ],
  ...TABLE_PARTS.map((name): [string, string[]] => [name, EVERYWHERE_IN_TABLES]),
  ['caption', ['align']],
  [
    'body',
    [
      'bgcolor',
      'background',
      'text',
      'link',
      'vlink',
      'alink',
      'marginwidth',
      'marginheight',
      'topmargin',
      'leftmargin',
    ],
  ],
  ['img', ['align', 'border', 'hspace', 'vspace', 'width', 'height']],
  ['iframe', ['align', 'frameborder', 'marginwidth', 'marginheight', 'width', 'height']],
  ['object', ['align', 'border', 'hspace', 'vspace', 'width', 'height']],
  ['embed', ['align', 'hspace', 'vspace', 'width', 'height']],
  ['video', ['width', 'height']],
  ['hr', ['align', 'color', 'noshade', 'size', 'width']],
  ['br', ['clear']],
  ['font', ['color', 'face', 'size']],
  ['ul', ['type']],
  ['ol', ['type']],
  ['li', ['type']],
  ['input', ['align', 'hspace', 'vspace', 'border']],
  ['legend', ['align']],
  ...['div', 'p', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6'].map((name): [string, string[]] => [name, ['align']]),
]);

const ELEMENTS = new Set(['center', 'font', 'big', 'strike', 'tt', 'marquee', 'nobr']);

/** The presentational hints that an element carries, in source order, an outdated element name first. */
export function presentationalHint(element: PageElement): Hint[] {
  if (element.namespace !== 'html') return [];
  const known = ATTRIBUTES.get(element.name);
  if (known === undefined && !ELEMENTS.has(element.name)) return [];
  const hints: Hint[] = [];
  if (ELEMENTS.has(element.name)) hints.push({ written: `<${element.name}>`, attribute: undefined });
  if (known === undefined) return hints;
  for (const { name, value } of element.attributes) {
    if (known.includes(name)) hints.push({ written: `${name}="${value}"`, attribute: name });
  }
  return hints;
}
