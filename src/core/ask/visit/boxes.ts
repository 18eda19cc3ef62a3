// The boxes that a running system gives a developer for CSS of their own: a sheet, a style block on every page, or one on
// single pages. Where each stands is written in the configuration; a block or sheet that is small, readable and last is a
// good guess.

import { isMadeOf, NAME } from '../../base/characters.js';
import type { Box } from './box-schema.js';

export function boxName(box: Box): string {
  return 'sheet' in box ? box.sheet : 'style' in box ? box.style : box.page;
}

/** A style block of a page, as its start tag says. */
export interface BlockTag {
  readonly attributes: ReadonlyMap<string, string>;
}

/** Whether a selector such as `style.page-css` means a block. */
export function meansBlock(selector: string, { attributes }: BlockTag): boolean {
  const classes = (attributes.get('class') ?? '').split(/\s+/);
  const parts = selector.matchAll(/#([\w-]+)|\.([\w-]+)|\[([\w-]+)(?:=(?:"([^"]*)"|'([^']*)'|([\w-]+)))?\]/g);
  for (const [, id, name, attribute, ...values] of parts) {
    if (id !== undefined && attributes.get('id') !== id) return false;
    if (name !== undefined && !classes.includes(name)) return false;
    if (attribute === undefined) continue;
    const value = values.find((one) => one !== undefined);
    const own = attributes.get(attribute.toLowerCase());
    if (own === undefined || (value !== undefined && own !== value)) return false;
  }
  return true;
}

const STYLE = /<style\b((?:[^>"']|"[^"]*"|'[^']*')*)>([\s\S]*?)<\/style\s*>/gi;
const LINK = /<link\b((?:[^>"']|"[^"]*"|'[^']*')*)>/gi;
const ATTRIBUTE = /([^\s"'<>/=]+)(?:\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s"'=<>`]+)))?/g;

export interface FoundBlock extends BlockTag {
  readonly start: number;
  readonly end: number;
  readonly css: string;
}

export interface FoundLink extends BlockTag {
  readonly start: number;
  readonly end: number;
  readonly address: string;
}

export function styleBlocks(text: string): FoundBlock[] {
  return [...text.matchAll(STYLE)].map((match) => ({
    start: match.index,
    end: match.index + match[0].length,
    attributes: attributesOf(match[1]!),
    css: match[2]!,
  }));
}

export function sheetLinks(text: string): FoundLink[] {
  return [...text.matchAll(LINK)].flatMap((match) => {
    const attributes = attributesOf(match[1]!);
    const address = attributes.get('href');
    const isSheet = /(^|\s)stylesheet(\s|$)/i.test(attributes.get('rel') ?? '');
    if (!isSheet || address === undefined) return [];
    return [{ start: match.index, end: match.index + match[0].length, attributes, address: address.trim() }];
  });
}

function attributesOf(text: string): Map<string, string> {
  const found = new Map<string, string>();
  for (const [, name = '', double, single, bare] of text.matchAll(ATTRIBUTE))
    if (!found.has(name.toLowerCase())) found.set(name.toLowerCase(), plain(double ?? single ?? bare ?? ''));
  return found;
}

function plain(value: string): string {
  return value
    .replaceAll('&amp;', '&')
    .replaceAll('&quot;', '"')
    .replace(/&#0*39;/g, "'");
}

/** A block or a sheet that could be a box. */
export interface BoxCandidate {
  readonly box: Box;
  /** Why: what a person is told who is to say whether it is. */
  readonly why: string;
}

export interface BoxInput {
  /** The texts of the pages. */
  readonly pages: Iterable<string>;
  /** Sheets of the site's own address, by file. */
  readonly sheets: ReadonlyMap<string, string>;
}

const SMALL = 20_000;
const OWN_WORD = /own|custom|user|additional|extra|house|local|site-?css|page-?css|theme-?css/i;

/** Out: the likeliest first. */
export function guessBoxes({ pages, sheets }: BoxInput): BoxCandidate[] {
  const blocks = new Map<string, { pages: number; texts: Set<string>; last: number }>();
  let count = 0;
  for (const text of pages) {
    count++;
    const all = styleBlocks(text);
    for (const [at, block] of all.entries()) {
      const id = block.attributes.get('id');
      const [name] = (block.attributes.get('class') ?? '').split(/\s+/).filter((one) => isMadeOf(one, NAME));
      const selector = id !== undefined && isMadeOf(id, NAME) ? `#${id}` : name && `style.${name}`;
      if (selector === undefined || !isReadable(block.css)) continue;
      const known = blocks.get(selector) ?? { pages: 0, texts: new Set(), last: 0 };
      known.pages++;
      known.texts.add(block.css);
      if (at === all.length - 1) known.last++;
      blocks.set(selector, known);
    }
  }
  const found: (BoxCandidate & { readonly worth: number })[] = [];
  for (const [selector, { pages: on, texts, last }] of blocks) {
    const named = OWN_WORD.test(selector) ? 4 : 0;
    if (on < count / 2 && named === 0) continue;
    const isOne = texts.size === 1 && on > count / 2;
    found.push({
      box: isOne ? { style: selector } : { page: selector },
      why: `a style block on ${on} of ${count} pages${isOne ? ', the same on all' : ', its text differs'}`,
      worth: named + (last >= on / 2 ? 2 : 0) + (isOne ? 1 : 0),
    });
  }
  for (const [file, text] of sheets) {
    const named = OWN_WORD.test(file.slice(file.lastIndexOf('/') + 1)) ? 4 : 0;
    if (!isReadable(text) || named === 0) continue;
    found.push({ box: { sheet: file }, why: 'a small sheet of a telling name', worth: named });
  }
  return found.sort((a, b) => b.worth - a.worth);
}

/** Small, and written by a person: nobody pastes minified text into a box. */
function isReadable(css: string): boolean {
  return css.length < SMALL && !(css.length > 1000 && css.length / css.split('\n').length > 300);
}
