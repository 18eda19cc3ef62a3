// Styling that code writes into markup: in strings, which nobody but a person can change.

import { parseSheet } from '../../core/sheets/parse.js';
import { comparePlaces, type Place, placeIn } from '../../core/source.js';
import { enginePieces, mayHoldEngineText } from '../../core/templates/index.js';
import { decodeFile } from './encoding.js';
import type { SiteFiles } from './files.js';
import { APART } from './owner.js';
import { isTemplate } from './templates.js';

const CODE = /\.(php|phtml|inc|rb|py|js|mjs|cjs|ts|java|cs|vb|go|pl|pm|ex|exs|lua)$/i;
/** Characters. */
const LARGEST = 500_000;
/** A tag with a style attribute that says something, in a string of most languages. */
const STYLED = /<[a-z][\w-]*\s(?:[^<>\n]*\s)?style\s*=\s*\\?["'][^"'<>\n]*[\w-]\s*:/gi;

/** A style block, in a string or put together of some. */
const BLOCK = /<style\b[^<>]*>((?:(?!<\/style)[\s\S])*)<\\?\/style/gi;

export interface StylingInCode {
  /** Tags with a style attribute, in order. */
  readonly tags: readonly Place[];
  /** Style blocks, with how much each says. */
  readonly blocks: readonly { readonly place: Place; readonly declarations: number }[];
}

/** In: the files of a site, and which of them are its libraries. Out: styling that code writes into markup. */
export function stylingInCode(files: SiteFiles, isPlatform: (file: string) => boolean): StylingInCode {
  const tags: Place[] = [];
  const blocks: { place: Place; declarations: number }[] = [];
  for (const file of files.list()) {
    const isPage = isTemplate(file);
    if (!(isPage || CODE.test(file)) || APART.test(file)) continue;
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
    for (const { 1: css = '', index } of text.matchAll(BLOCK)) {
      const declarations = isInside(index) ? declarationsIn(css) : 0;
      if (declarations > 0) blocks.push({ place: placeIn(file, text, index), declarations });
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
