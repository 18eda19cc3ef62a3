// The style block of a component, which a framework makes style the elements of that component alone: rules that no other
// needs are written into it, as the block is written.

import { readComponent, type StyleBlock } from '../../read/components/index.js';
import { componentKind } from '../../read/kinds/index.js';
import type { SharedRule } from '../../search/index.js';
import type { Edit } from './edit.js';
import { newline } from './newline.js';
import { indentUnit } from './rules.js';
import { isCompact, ruleText } from './shared-sheet.js';

/** A plain rule means there what it means in CSS. */
const TAKES_CSS = new Set(['css', 'scss', 'postcss']);

/** Whether a component has a block of its own: one that can be written into, one that cannot, or none. */
export function ownBlockOf(path: string, text: string): 'open' | 'closed' | 'none' {
  const blocks = readComponent(path, text)?.blocks;
  if (blocks === undefined || componentKind(path) === 'jsx') return 'closed';
  if (openBlock(blocks) !== undefined) return 'open';
  return blocks.length === 0 ? 'none' : 'closed';
}

function openBlock(blocks: readonly StyleBlock[]): StyleBlock | undefined {
  return blocks.findLast(
    ({ isScoped, unread, lang }) => isScoped && unread === undefined && TAKES_CSS.has(lang.toLowerCase()),
  );
}

/** In: the path and text of a component; rules that style its elements alone. Out: a block of its own where it has none. */
export function planOwnBlock(path: string, text: string, rules: readonly SharedRule[]): Edit {
  const eol = newline(text);
  const block = openBlock(readComponent(path, text)?.blocks ?? []);
  const content = block === undefined ? '' : text.slice(block.offset, block.end);
  const { margin, unit, compact } = formOf(path, text, content);
  const css = rules
    .map((rule) => ruleText(rule, path, unit, eol, compact).trimEnd())
    .join(compact ? eol : eol + eol)
    .replace(/^(?=.)/gm, margin);
  if (block === undefined) {
    const scoped = componentKind(path) === 'vue' ? ' scoped' : '';
    const end = text.trimEnd().length;
    return {
      start: end,
      end: text.length,
      text: `${eol}${eol}<style${scoped}>${eol}${css}${eol}</style>${eol}`,
    };
  }
  const filled = content.trimEnd();
  if (filled === '') return { start: block.offset, end: block.end, text: `${eol}${css}${eol}` };
  const at = block.offset + filled.length;
  const behind = /^[ \t]*[\r\n]/.test(text.slice(at)) ? '' : eol;
  return { start: at, end: at, text: `${eol}${compact ? '' : eol}${css}${behind}` };
}

interface BlockForm {
  /** In front of every line of a rule. */
  readonly margin: string;
  readonly unit: string;
  readonly compact: boolean;
}

/** How the rules of a block are set out; where it has none, as most people do with what the file indents by. */
function formOf(path: string, text: string, content: string): BlockForm {
  const margin = /^([ \t]*)\S/m.exec(content)?.[1];
  if (margin !== undefined) {
    const inner = indentUnit(content);
    const unit = inner.startsWith(margin) && inner !== margin ? inner.slice(margin.length) : inner;
    return { margin, unit, compact: isCompact(content) };
  }
  const unit = /^(\t| {2,4})\S/m.exec(text)?.[1] ?? '  ';
  return { margin: componentKind(path) === 'vue' ? '' : unit, unit, compact: false };
}
