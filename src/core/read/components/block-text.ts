// Style blocks in the language of a preprocessor, as its own compiler makes them.

import type { BlockCompiler, ComponentFile, StyleBlock } from './model.js';
import { parserNamed } from './parsers.js';

interface Sass {
  readonly compileString: (text: string, options: object) => { readonly css: string };
  readonly Logger: { readonly silent: unknown };
}

/** The blocks of a component; those that take in other files made by who knows these. In: its path and text. */
export function blocksWith(
  { blocks }: ComponentFile,
  path: string,
  text: string,
  compile: BlockCompiler | undefined,
): readonly StyleBlock[] {
  if (compile === undefined) return blocks;
  return blocks.map((block) => {
    const css = block.toCompile ? compile(path, text.slice(block.offset, block.end), block.lang) : undefined;
    return css === undefined ? block : { ...block, text: css, unread: undefined };
  });
}

/** Out: `undefined` for another language, and for what needs something that stands in other files. */
export function compiledBlock(text: string, lang: string): string | undefined {
  if (lang !== 'scss' && lang !== 'sass') return undefined;
  const sass = parserNamed('sass') as Sass | undefined;
  try {
    return sass?.compileString(text, {
      syntax: lang === 'sass' ? 'indented' : 'scss',
      charset: false,
      logger: sass.Logger.silent,
      quietDeps: true,
    }).css;
  } catch {
    return undefined;
  }
}
