// Where the link to the shared sheet goes on a page: in the head, after what it must beat.

import { addressFrom, sheetPath } from '../addresses.js';
import { isPlainLink, type Page, type SheetReference } from '../markup/index.js';
import type { SharedRule } from '../search/index.js';
import type { Edit } from './edit.js';
import { newline } from './newline.js';
import { ruleText } from './shared-sheet.js';

export interface LinkPlan {
  /** `undefined` where the page links the sheet already. */
  readonly edit: Edit | undefined;
  /** How many of the page's sheet references stand before the shared sheet. */
  readonly before: number;
}

/** Plans the link to `shared` (a site path) on a whole page. */
export function planLink(
  page: Page,
  shared: string,
  copyOf: (address: string) => string | undefined,
): LinkPlan {
  const present = page.sheets.findIndex(
    (one) => one.kind === 'link' && sheetPath(one.address, page.path, copyOf) === shared && isPlainLink(one),
  );
  if (present >= 0) return { edit: undefined, before: present };
  const inHead = page.sheets.filter((one) => !one.scriptingOff && isInHead(page, one.element));
  const last = inHead.at(-1);
  const anchor = last === undefined ? undefined : page.elements[last.element];
  const closes = /\/>$/.test(
    anchor?.tag === undefined ? '' : page.text.slice(anchor.tag.range.start, anchor.tag.range.end),
  );
  const link = `<link rel="stylesheet" href="${addressFrom(page.path, shared)}"${closes ? ' />' : '>'}`;
  const at = last === undefined ? undefined : referenceEnd(page, last);
  if (at !== undefined && anchor?.tag !== undefined) {
    return {
      edit: { start: at, end: at, text: `${lineBreakBefore(page.text, anchor.tag.range.start)}${link}` },
      before: inHead.length,
    };
  }
  const { endTag, start, first } = page.head;
  if (endTag !== undefined) {
    // On a line of its own, indented as the line before `</head>`.
    const own = /(?:^|[\r\n])[ \t]*$/.exec(page.text.slice(0, endTag));
    const line = own === null ? endTag : own.index + (/[\r\n]/.test(own[0]) ? 1 : 0);
    const indent = /(?:^|[\r\n])([ \t]*)[^\r\n]+[\r\n]*$/.exec(page.text.slice(0, line))?.[1] ?? '';
    const text = own === null ? link : `${indent}${link}${newline(page.text)}`;
    return { edit: { start: line, end: line, text }, before: inHead.length };
  }
  const where = start ?? first;
  return {
    edit: {
      start: where,
      end: where,
      text: `${where === 0 ? '' : newline(page.text)}${link}${where === 0 ? newline(page.text) : ''}`,
    },
    before: 0,
  };
}

/** Puts rules into a style block of the page itself, where a link would go. */
export function planBlock(page: Page, rules: readonly SharedRule[]): Edit[] {
  const { edit } = planLink(page, '\0', () => undefined);
  if (edit === undefined) return [];
  const indent = /^[ \t]*/.exec(edit.text.replace(/^[\r\n]+/, ''))?.[0] ?? '';
  const eol = newline(page.text);
  const inner = indent === '' ? '  ' : indent.repeat(2);
  const css = rules
    .map((rule) => ruleText(rule, page.path, '  ', eol).trimEnd())
    .join(eol)
    .replace(/^(?=.)/gm, inner);
  const block = `<style>${eol}${css}${eol}${indent}</style>`;
  return [{ ...edit, text: edit.text.replace(/<link[^>]*>/, () => block) }];
}

function isInHead(page: Page, element: number): boolean {
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
  return /(?:\r\n|\n|\r)[ \t]*$/.exec(text.slice(0, offset))?.[0] ?? '';
}
