// What is asked of the nodes and errors that the HTML parser gives.

import type { ParserError, Token, DefaultTreeAdapterTypes as Tree } from 'parse5';
import type { MarkupDefect } from './page.js';
import { SOURCE_MARK } from './source-mark.js';
import type { SourceElement } from './tree.js';

export function noteParseError(error: ParserError, text: string, defects: MarkupDefect[]): void {
  if (error.code !== 'duplicate-attribute') return;
  const end = error.startOffset;
  const name = /[^\s"'<>/=]*$/.exec(text.slice(Math.max(0, end - 80), end))?.[0] ?? '';
  defects.push({ kind: 'doubled attribute', detail: name, range: { start: end - name.length, end } });
}

/** Elements made anew from one tag share its list of attributes. */
export function dropMark(attributes: Token.Attribute[]): void {
  const at = attributes.findIndex(({ name }) => name === SOURCE_MARK);
  if (at >= 0) attributes.splice(at, 1);
}

export function isTemplate(node: Tree.Element): node is Tree.Template {
  return 'content' in node;
}

/** Offsets of what stands between the tags; no start where the source has no start tag, no end where it has no end. */
export function contentRange({
  startTag,
  endTag,
  end,
}: SourceElement): [number | undefined, number | undefined] {
  return [startTag?.endOffset, endTag >= 0 ? endTag : end >= 0 ? end : undefined];
}
