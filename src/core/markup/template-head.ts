// Template text in front of a page and in its head. A browser never sees it: read as text it would end the head, and
// before the doctype it would put the page into quirks mode.

import { hasTemplateText, TEMPLATE_TEXT } from './template-text.js';

/** What may stand in front of a body, with what a browser reads as text in it. */
const TAG = new RegExp(
  `<!--[\\s\\S]*?(?:-->|$)|</?([a-z!][^\\s/>]*)(?:${TEMPLATE_TEXT.source}|[^>"']|"[^"]*"|'[^']*')*>`,
  'iy',
);
const HEAD = /^(!doctype|html|head|meta|link|base|script|style|title|noscript|template)$/i;
const RAW = /^(script|style|title|noscript|template)$/i;

export interface HeadText {
  /** The page with that template text as spaces: every offset is the same. */
  readonly text: string;
  /** The pieces that were there. */
  readonly pieces: readonly string[];
}

/** Out: the text itself where no template text stands before the body. */
export function withoutHeadText(text: string): HeadText {
  if (!hasTemplateText(text)) return { text, pieces: [] };
  const pieces: string[] = [];
  let out = '';
  let at = 0;
  const marker = new RegExp(TEMPLATE_TEXT, 'y');
  while (at < text.length) {
    marker.lastIndex = at;
    const [piece] = marker.exec(text) ?? [];
    if (piece !== undefined) {
      pieces.push(piece);
      out += piece.replace(/[^\r\n]/g, ' ');
      at += piece.length;
      continue;
    }
    if (/\s/.test(text[at]!)) {
      out += text[at++];
      continue;
    }
    TAG.lastIndex = at;
    const tag = TAG.exec(text);
    if (tag === null || (tag[1] !== undefined && !HEAD.test(tag[1]))) break;
    const end = at + tag[0].length;
    const closing = RAW.test(tag[1] ?? '') && !tag[0].startsWith('</') ? endOf(text, tag[1]!, end) : end;
    out += text.slice(at, closing);
    at = closing;
  }
  return pieces.length === 0 ? { text, pieces } : { text: out + text.slice(at), pieces };
}

/** Behind the end tag of what holds raw text. */
function endOf(text: string, name: string, from: number): number {
  const end = new RegExp(`</${name}[^>]*>`, 'ig');
  end.lastIndex = from;
  return end.exec(text) === null ? text.length : end.lastIndex;
}
