// Where the link to the shared sheet goes on a page: in the head, after what it must beat.

import { addressFrom, fileAt } from '../../base/addresses.js';
import { hasOneOf, trimmedBefore } from '../../base/characters.js';
import { withoutEnd } from '../../base/phrases.js';
import type { SiteSources } from '../../cascade/index.js';
import { isServedInPlace } from '../../read/kinds/index.js';
import { isPlainLink, mayShow, type Page, parsePage, type SheetReference } from '../../read/markup/index.js';
import { holdsEngineText } from '../../read/templates/index.js';
import type { SharedRule } from '../../search/index.js';
import type { Edit } from './edit.js';
import { newline } from './newline.js';
import { ruleText } from './shared-sheet.js';

export interface LinkPlan {
  /** `undefined` where the page links the sheet already. */
  readonly edit: Edit | undefined;
  /** How many of the page's sheet references stand before the shared sheet. */
  readonly before: number;
}

/** Plans the link to `shared` (a site path) on a whole page. In: `line`, how a template links a sheet, where a person says so. */
export function planLink(
  page: Page,
  shared: string,
  copyOf: (address: string) => string | undefined,
  line?: string,
): LinkPlan {
  const present = linkOf(page, shared, copyOf);
  if (present >= 0) return { edit: undefined, before: present };
  const { before, closes, edit } = inHead(page);
  if (isServed(page) && line !== undefined) return { edit: edit(lineFor(line, shared)), before };
  const address = linkAddress(page, shared, copyOf);
  // Where an engine writes the addresses, and none of them shows how, a link would lead nowhere.
  if (address === undefined) return { edit: undefined, before };
  const quote = address.includes('"') ? "'" : '"';
  return {
    edit: edit(`<link rel="stylesheet" href=${quote}${address}${quote}${closes ? ' />' : '>'}`),
    before,
  };
}

function linkOf(page: Page, shared: string, copyOf: (address: string) => string | undefined): number {
  return page.sheets.findIndex(
    (one) => one.kind === 'link' && fileAt(one.address, page.path, copyOf) === shared && isPlainLink(one),
  );
}

/** Whether a page links a sheet, in its own text or by a part, whatever happens. */
export function isLinked(
  page: Page,
  shared: string,
  copyOf: (address: string) => string | undefined,
): boolean {
  return linkOf(page, shared, copyOf) >= 0;
}

/** Of a page whose last sheet a part brings, the path of that part: its links stand there. */
export function linksIn(page: Page): string | undefined {
  const last = page.sheets.findLast(
    (one) => !one.scriptingOff && one.kind === 'link' && one.by !== 'engine at times',
  );
  return last?.kind === 'link' && last.by === undefined ? last.broughtBy?.path : undefined;
}

/** Whether an engine writes into a page, be it the addresses of its sheets alone. */
function isServed(page: Page): boolean {
  return page.isFilled || page.sheets.some((one) => one.kind === 'link' && holdsEngineText(one.address));
}

/** Whether a page affects what all pages link: mail links nothing, and no more does what an engine fills and nothing shows how. */
export function saysWhatAllLink(page: Page, { copies, link }: Pick<SiteSources, 'copies' | 'link'>): boolean {
  if (page.kind !== 'page' || page.isMail) return false;
  return (
    !page.isFilled ||
    link !== undefined ||
    page.sheets.some((one) => one.kind === 'link' && isPlainLink(one)) ||
    linkAddress(page, 'shared.css', (address) => copies.get(address)) !== undefined
  );
}

/** In: how a link is written, with `{path}`, `{file}` or `{name}` for the sheet. */
export function lineFor(line: string, target: string): string {
  const file = target.replace(/^.*\//, '');
  const own: Readonly<Record<string, string>> = { path: target, file, name: withoutEnd(file, '.css') };
  return line.replace(/\{(path|file|name)\}/g, (_, word: string) => own[word]!);
}

interface HeadPlace {
  /** How many of the page's sheet references stand before it. */
  readonly before: number;
  /** Whether the page closes its tags as XML does. */
  readonly closes: boolean;
  readonly edit: (text: string) => Edit;
}

/** Behind the last sheet of the head; else at its end, as where an engine links that sheet at times only. */
function inHead(page: Page): HeadPlace {
  const all = page.sheets.filter(
    (one) => !one.scriptingOff && one.broughtBy === undefined && isInHead(page, one.element),
  );
  const isSure = (one: SheetReference): boolean => one.by !== 'engine at times';
  const sheets = page.head.endTag === undefined ? all.slice(0, 1 + all.findLastIndex(isSure)) : all;
  const last = sheets.at(-1);
  const anchor = last === undefined ? undefined : page.elements[last.element];
  const source =
    anchor?.tag === undefined ? '' : page.text.slice(anchor.tag.range.start, anchor.tag.range.end);
  const closes = source.endsWith('/>');
  const at = last === undefined ? undefined : referenceEnd(page, last);
  if (last !== undefined && isSure(last) && at !== undefined && anchor?.tag !== undefined) {
    const start = last.kind === 'link' ? last.range.start : anchor.tag.range.start;
    const line = lineBreakBefore(page.text, start);
    return { before: sheets.length, closes, edit: (text) => ({ start: at, end: at, text: line + text }) };
  }
  const { endTag, start, first } = page.head;
  if (endTag !== undefined) {
    // On a line of its own, indented as the line before `</head>`.
    const own = /(?:^|[\r\n])[ \t]*$/.exec(page.text.slice(0, endTag));
    const line = own === null ? endTag : own.index + (hasOneOf(own[0], '\r\n') ? 1 : 0);
    const indent = /(?:^|[\r\n])([ \t]*)[^\r\n]+[\r\n]*$/.exec(page.text.slice(0, line))?.[1] ?? '';
    const edit = (text: string): Edit => ({
      ...{ start: line, end: line },
      text: own === null ? text : `${indent}${text}${newline(page.text)}`,
    });
    return { before: sheets.length, closes, edit };
  }
  const where = start ?? first;
  const [front, behind] = where === 0 ? ['', newline(page.text)] : [newline(page.text), ''];
  return { before: 0, closes, edit: (text) => ({ start: where, end: where, text: front + text + behind }) };
}

/**
 * How a page would write the address of a sheet: relative, or as the addresses of other sheets are written in it, where a
 * template engine makes them. Out: `undefined` where none of these shows how.
 */
export function linkAddress(
  page: Page,
  target: string,
  copyOf: (address: string) => string | undefined,
): string | undefined {
  const links = page.sheets.flatMap((one) => (one.kind === 'link' ? [one.address] : []));
  // In a part an address means what it does on the page that shows it.
  const isRelative =
    !isServed(page) ||
    (links.length === 0 && isServedInPlace(page.path)) ||
    links.some((address) => RELATIVE.test(address) && copyOf(address.trim()) === undefined);
  if (page.kind === 'page' && isRelative) return addressFrom(page.path, target);
  for (const address of links.reverse()) {
    const { root, shown } = shownPart(address, page, copyOf) ?? {};
    if (root !== undefined && shown !== undefined && target.startsWith(root))
      return address.replace(shown, () => target.slice(root.length));
  }
  return undefined;
}

const RELATIVE = /^(?:\.{1,2}\/|[\w-]+(?![\w-:]))/;

/** Copies, with the addresses by which pages that an engine fills would link a sheet that is to come. */
export function copiesWith(
  copies: ReadonlyMap<string, string>,
  pages: readonly Page[],
  target: string,
  line?: string,
): ReadonlyMap<string, string> {
  if (line === 'none') return copies;
  if (line !== undefined) {
    const page = parsePage('', `<head>${lineFor(line, target)}</head>`);
    const said = page.sheets.flatMap((one) => (one.kind === 'link' ? [[one.address, target] as const] : []));
    return new Map([...copies, ...said]);
  }
  const copyOf = (address: string): string | undefined => copies.get(address);
  const addresses = pages
    .filter((page) => mayShow(page) || isServed(page))
    .map((page) => [page, linkAddress(page, target, copyOf)] as const);
  const found = addresses.filter(
    ([page, address]) => address !== undefined && fileAt(address, page.path, copyOf) !== target,
  );
  return found.length === 0
    ? copies
    : new Map([...copies, ...found.map(([, address]) => [address!, target] as const)]);
}

/** Where sheets of its own can be linked from pages whose addresses an engine writes: beside those that they link, then above. */
export function sheetsBeside(
  pages: readonly Page[],
  name: string,
  copyOf: (address: string) => string | undefined,
): string[] {
  for (const page of pages.filter(mayShow)) {
    const links = page.sheets.flatMap((one) => (one.kind === 'link' ? [one.address] : []));
    for (const address of links.reverse()) {
      const part = shownPart(address, page, copyOf);
      if (part === undefined) continue;
      const [folder] = part.shown.split('/').slice(0, -1);
      const above = `${part.root}${name}`;
      return folder === undefined ? [above] : [`${part.root}${folder}/${name}`, above];
    }
  }
  return [];
}

/** What of a sheet's path an address shows, and what it leaves to the engine or the server. */
function shownPart(
  address: string,
  page: Page,
  copyOf: (address: string) => string | undefined,
): { readonly root: string; readonly shown: string } | undefined {
  if (address.startsWith('engine:')) return undefined;
  const parts = fileAt(address, page.path, copyOf)?.split('/') ?? [];
  for (let from = 0; from < parts.length; from++) {
    const shown = parts.slice(from).join('/');
    if (address.includes(shown))
      return {
        root: parts
          .slice(0, from)
          .map((part) => `${part}/`)
          .join(''),
        shown,
      };
  }
  return undefined;
}

/** Puts rules into a style block of the page itself, where a link would go. */
export function planBlock(page: Page, rules: readonly SharedRule[]): Edit[] {
  const { edit } = inHead(page);
  const indent = /^[ \t]*/.exec(trimmedBefore(edit('').text, '\r\n'))?.[0] ?? '';
  const eol = newline(page.text);
  const inner = indent === '' ? '  ' : indent.repeat(2);
  const css = rules
    .map((rule) => ruleText(rule, page.path, '  ', eol).trimEnd())
    .join(eol)
    .replace(/^(?=.)/gm, inner);
  return [edit(`<style>${eol}${css}${eol}${indent}</style>`)];
}

function isInHead(page: Page, element: number): boolean {
  // The head of a page may be a file of its own.
  if (page.kind === 'component') return element >= 0;
  for (let at = element; at >= 0; at = page.elements[at]!.parent)
    if (page.elements[at]!.name === 'head') return true;
  return false;
}

function referenceEnd(page: Page, reference: SheetReference): number | undefined {
  if (reference.kind === 'link') return reference.range.end;
  if (reference.offset === undefined) return undefined;
  const closing = page.text.slice(reference.offset + reference.text.length);
  const tag = /^<\/style[^>]*>/i.exec(closing);
  return tag === null ? undefined : page.text.length - closing.length + tag[0].length;
}

/** The line break and indentation in front of an offset, or nothing where its line starts with other text. */
function lineBreakBefore(text: string, offset: number): string {
  const before = /(?:^|\r\n|\n|\r)[ \t]*$/.exec(text.slice(0, offset));
  if (before === null) return '';
  return before.index === 0 && !hasOneOf(before[0], '\r\n') ? newline(text) + before[0] : before[0];
}
