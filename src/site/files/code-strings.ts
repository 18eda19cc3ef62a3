// Styling that code writes into markup: in strings, which nobody but a person can change.

import { parse } from 'css-tree/dist/csstree.esm';
import { includesAny } from '../../core/base/phrases.js';
import { refusalText } from '../../core/base/reasons/index.js';
import { comparePlaces, type Place, placeIn, type SourceRange } from '../../core/base/source.js';
import { isCode, isTemplate } from '../../core/read/kinds/index.js';
import { parseSheet } from '../../core/read/sheets/parse.js';
import { enginePieces, mayHoldEngineText } from '../../core/read/templates/index.js';
import { decodeFile } from './encoding.js';
import type { SiteFiles } from './files.js';
import { APART } from './owner.js';

/** Characters. */
const LARGEST = 500_000;
/** A tag with a style attribute that says something, in a string of most languages. */
const STYLED = /<[a-z][\w-]*\s(?:[^<>\n]*\s)?style\s*=\s*\\?["'][^"'<>\n]*[\w-]\s*:/gi;

/** A style block, in a string or put together of some. */
const BLOCK = /(<style\b[^<>]*>)((?:(?!<\/style)[\s\S])*)<\\?\/style\s*>?/gi;

/** A style block that code writes. */
export interface CodeBlock {
  readonly place: Place;
  readonly declarations: number;
  /** All of the file. */
  readonly text: string;
  /** From the start tag to the end tag. */
  readonly range: SourceRange;
  /** The start tag. */
  readonly tag: string;
  readonly css: string;
}

export interface StylingInCode {
  /** Tags with a style attribute, in order. */
  readonly tags: readonly Place[];
  readonly blocks: readonly CodeBlock[];
}

/** In: the files of a site, and which of them are its libraries. Out: styling that code writes into markup. */
export function stylingInCode(files: SiteFiles, isPlatform: (file: string) => boolean): StylingInCode {
  const tags: Place[] = [];
  const blocks: CodeBlock[] = [];
  for (const file of files.list()) {
    const isPage = isTemplate(file);
    if (!(isPage || isCode(file)) || APART.test(file)) continue;
    const bytes = files.read(file);
    if (bytes === undefined || bytes.length > LARGEST || !bytes.includes('style')) continue;
    const text = decodeFile(bytes)?.text;
    if (text === undefined || isPlatform(file)) continue;
    // Of a template only what stands in the engine's own words.
    const pieces = isPage && mayHoldEngineText(text, file) ? enginePieces(text, file) : undefined;
    if (isPage && pieces === undefined) continue;
    const isInside = (at: number): boolean =>
      pieces?.some(({ start, end }) => start < at && at < end) ?? true;
    for (const { index } of text.matchAll(STYLED)) if (isInside(index)) tags.push(placeIn(file, text, index));
    for (const { 0: whole, 1: tag = '', 2: css = '', index } of text.matchAll(BLOCK)) {
      const declarations = isInside(index) ? declarationsIn(css) : 0;
      const range = { start: index, end: index + whole.length };
      if (declarations > 0)
        blocks.push({ place: placeIn(file, text, index), declarations, text, range, tag, css });
    }
  }
  return {
    tags: tags.sort(comparePlaces),
    blocks: blocks.sort((a, b) => comparePlaces(a.place, b.place)),
  };
}

/** What is said in a sheet that strings are joined to. */
function declarationsIn(text: string): number {
  const css = text
    .replace(/["'`]\s*[+.]?\s*(?:\r?\n\s*)?["'`]/g, '')
    .replace(/\\[nrt]/g, ' ')
    .replace(/\\(["'])/g, '$1');
  return parseSheet(css).rules.reduce((all, { declarations }) => all + declarations.length, 0);
}

/**
 * What a block says wherever it is read. Out: why it cannot be told, where code writes into it, or where it means something else in a
 * sheet of its own.
 */
export function blockInWords({
  tag,
  css,
}: CodeBlock): { readonly css: string } | { readonly reason: string } {
  if (!/^<style(\s+type=["']?text\/css["']?)?\s*>$/i.test(tag))
    return { reason: refusalText('block tag says more', {}) };
  if (/\\|["'`]\s*[+.,&]?\s*(?:\r?\n\s*)?[rbuf]?["'`](?!\s*[,;)}\]])/.test(css))
    return { reason: refusalText('block of strings', {}) };
  if (/[$]|#\{|\{\{|\}\}|<[?%]|\{%|%(?![;,\s)}!/*-])/.test(css) || !isWhole(css))
    return { reason: refusalText('block with values', {}) };
  if (
    includesAny(css.toLowerCase(), ['@import', '@charset', 'src(', 'image-set(']) ||
    /url\(\s*["']?(?![a-z][\w+.-]*:|\/)/i.test(css)
  )
    return { reason: refusalText('block with addresses', {}) };
  return { css };
}

/** Whether all of it is read as rules. */
function isWhole(css: string): boolean {
  let isRead = true;
  parse(css, {
    parseCustomProperty: true,
    onParseError: () => {
      isRead = false;
    },
  });
  return isRead;
}
