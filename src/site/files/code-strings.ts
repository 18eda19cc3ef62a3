// Styling that code writes into markup: in strings, which nobody but a person can change.

import { comparePaths, type Place, placeIn } from '../../core/source.js';
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

/** In: the files of a site, and which of them are its libraries. Out: where code writes a tag with a style attribute, in order. */
export function styledStrings(files: SiteFiles, isPlatform: (file: string) => boolean): Place[] {
  const found: Place[] = [];
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
    for (const { index } of text.matchAll(STYLED)) {
      const isInside = pieces?.some(({ start, end }) => start < index && index < end) ?? true;
      if (isInside) found.push(placeIn(file, text, index));
    }
  }
  return found.sort((a, b) => comparePaths(a.path, b.path) || a.line - b.line || a.column - b.column);
}
