// Style blocks of components that take in sheets of a preprocessor: what is changed in these comes up in them, too.

import { type BlockCompiler, readComponent } from '../../core/read/components/index.js';
import { hasStyleBlocks } from '../../core/read/kinds/index.js';
import { blockCompiler } from '../files/compiled.js';
import { decodeFile } from '../files/encoding.js';
import type { SiteFiles } from '../files/files.js';
import { APART } from '../files/owner.js';

/** A block that names other files. */
const TAKES_IN = /<style\b[^>]*\b(?:scss|sass|less)\b[^>]*>(?:(?!<\/style)[\s\S])*@(?:import|use|forward)\b/i;

/** Out: whether the blocks of a state of a site say what they say in this one, and if not, the first component of which one does not. */
export function blockComparer(files: SiteFiles): (after: SiteFiles) => string | undefined {
  let found: readonly Block[] | undefined;
  const compile = blockCompiler(files);
  return (after) => {
    found ??= blocksIn(files);
    const compileAfter = blockCompiler(after);
    return found.find(({ file, text, lang }) => compile(file, text, lang) !== compileAfter(file, text, lang))
      ?.file;
  };
}

/** What the blocks of a component that take in other files come to, as one text; empty for all other files. */
export function takenIn(file: string, text: Buffer | string, compile: BlockCompiler): string {
  if (!hasStyleBlocks(file)) return '';
  return blocksOf(file, text.toString())
    .map((block) => `${compile(file, block.text, block.lang)}`)
    .join('\0');
}

interface Block {
  readonly file: string;
  readonly text: string;
  readonly lang: string;
}

function blocksIn(files: SiteFiles): Block[] {
  return files.list().flatMap((file) => {
    if (!hasStyleBlocks(file) || APART.test(file)) return [];
    return blocksOf(file, decodeFile(files.read(file) ?? Buffer.alloc(0))?.text ?? '');
  });
}

function blocksOf(file: string, text: string): Block[] {
  if (!hasStyleBlocks(file) || !TAKES_IN.test(text)) return [];
  return (readComponent(file, text)?.blocks ?? []).map(({ offset, end, lang }) => ({
    file,
    text: text.slice(offset, end),
    lang,
  }));
}
