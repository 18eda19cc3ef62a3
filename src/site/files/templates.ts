// Files that template engines read: which they are, and which of them are whole pages.

import { readComponent } from '../../core/read/components/index.js';
import {
  isComponentByName,
  isComponentFile,
  pageEvidence,
  unreadEnding,
} from '../../core/read/kinds/index.js';
import {
  engineOf,
  enginePieces,
  holdsEngineText,
  inclusionsOf,
  maskPieces,
  mayHoldEngineText,
} from '../../core/read/templates/index.js';

/** Whether the ending alone says that an engine reads a file. */
function isTemplateName(file: string): boolean {
  return engineOf(file) !== undefined || isComponentByName(file);
}

/** Whether nothing marks a text as a whole page. */
export function isBare(file: string, text: string): boolean {
  return pageEvidence(withoutEngine(file, text)) !== 'frame';
}

/** Whether an engine fills a text, or a framework of scripts. */
export function isFilled(file: string, text: string): boolean {
  return holdsEngineText(text) || isFilledByScripts(file, text);
}

/** Whether a framework of scripts fills a part in the browser, and nobody opens it by itself. */
function isFilledByScripts(file: string, text: string): boolean {
  // Of a component in a file of its own the sheet beside it styles nothing else: that is not known here.
  return (
    text.includes('ng-') &&
    DIRECTIVES.test(text) &&
    pageEvidence(text) !== 'frame' &&
    !/\.component\.html?$/i.test(file)
  );
}

const DIRECTIVES = /<[a-z][^<>]*\s(?:data-)?ng-[a-z][\w-]*(?=[\s=>])/i;

/** Whether a text is a part that pages include: an engine reads it, and nothing marks it as a whole page. */
export function isPart(file: string, text: string): boolean {
  if (isComponentFile(file)) return true;
  if (isFilledByScripts(file, text)) return true;
  if (!isTemplateName(file) && !mayHoldEngineText(text, file)) return false;
  const pieces = mayHoldEngineText(text, file) ? enginePieces(text, file) : [];
  if (pieces.length === 0) return isTemplateName(file) && pageEvidence(text) !== 'frame';
  // What extends a layout fills it, be it with a whole body.
  const isFilling = inclusionsOf(text, pieces).some(({ kind, end }) => kind === 'extends' && end > 0);
  return isFilling || pageEvidence(maskPieces(text, pieces).text) !== 'frame';
}

/** Whether a template holds markup at all: much of a theme in PHP is code alone. */
export function holdsMarkup(file: string, text: string): boolean {
  if (isComponentFile(file))
    return readComponent(file, text)?.roots.some(({ kind }) => kind === 'element') === true;
  return /<[a-z!/]/i.test(withoutEngine(file, text));
}

/** A text as a markup parser gets it: what an engine reads may mention anything. */
function withoutEngine(file: string, text: string): string {
  const pieces = mayHoldEngineText(text, file) ? enginePieces(text, file) : [];
  return pieces.length === 0 ? text : maskPieces(text, pieces).text;
}

/** In: the files of a site. Out: how many of each such ending there are, most first. */
export function unreadEndings(files: readonly string[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const file of files) {
    const ending = unreadEnding(file);
    if (ending !== undefined) counts.set(ending, (counts.get(ending) ?? 0) + 1);
  }
  return new Map([...counts].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1)));
}
