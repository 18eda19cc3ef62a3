// Style blocks in the language of a preprocessor, as its compiler makes them.

import { undecidedText } from '../../base/reasons/index.js';
import type { BlockCompiler, ComponentFile, StyleBlock } from './model.js';

/** The blocks of a component as browsers get them. In: its path and text; what compiles blocks, which knows the files that they take in. */
export function blocksWith(
  { blocks }: ComponentFile,
  path: string,
  text: string,
  compile: BlockCompiler | undefined,
): readonly StyleBlock[] {
  return blocks.map((block) => {
    if (!block.toCompile) return block;
    const css = compile?.(path, text.slice(block.offset, block.end), block.lang);
    return css === undefined
      ? { ...block, unread: undecidedText('block language', { lang: block.lang }) }
      : { ...block, text: css };
  });
}
