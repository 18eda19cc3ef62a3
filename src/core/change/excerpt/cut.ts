// An excerpt of a page: a shorter page that holds some of its elements, every one of them where it stood, on its line and
// column, so that whatever is declared of the excerpt is declared of the page.

import { applyEdits, type Edit } from '../../edit/text/index.js';
import { givenSheets, type Page, type PageElement, parsePage } from '../../read/markup/index.js';

export interface Excerpt {
  readonly page: Page;
  /** What was cut out of the page's text, and the line ends and spaces in its place. */
  readonly cuts: readonly Edit[];
}

/**
 * In: a page; whether an element stays, by index: with it stay the elements around and beside it.
 * Out: the excerpt; `undefined` where the page does not come apart there.
 */
export function cutPage(page: Page, stays: readonly boolean[]): Excerpt | undefined {
  const { text, elements } = page;
  if (stays.every((one) => one)) return undefined;
  const kept = elements.filter(({ index }) => stays[index]);
  const cuts: Edit[] = [];
  for (const element of kept) {
    if (element.firstChild < 0 || stays[element.firstChild]) continue;
    const from = element.tag?.range.end;
    const to = page.contentEnds[element.index] ?? -1;
    // Tags that overlap leave nothing to cut between.
    if (from === undefined || to <= from || from < (cuts.at(-1)?.end ?? 0)) return undefined;
    cuts.push({ start: from, end: to, text: inPlaceOf(text, from, to) });
  }
  const excerpt = parsePage(page.path, applyEdits(text, cuts), false, givenSheets(page));
  return isSame(kept, excerpt, page) ? { page: excerpt, cuts } : undefined;
}

/** What keeps everything behind a cut on its line and column. */
function inPlaceOf(text: string, from: number, to: number): string {
  let ends = '';
  let last = from;
  for (let at = from; at < to; at++) {
    const code = text.charCodeAt(at);
    if (code !== 10 && (code !== 13 || text.charCodeAt(at + 1) === 10)) continue;
    ends += '\n';
    last = at + 1;
  }
  return ends + ' '.repeat(to - last);
}

/** Whether a page holds these elements, each under the one that it stood under, and nothing else. */
function isSame(kept: readonly PageElement[], excerpt: Page, page: Page): boolean {
  if (kept.length !== excerpt.elements.length || page.quirks !== excerpt.quirks) return false;
  const numbers = new Map(kept.map(({ index }, at) => [index, at]));
  return kept.every((element, at) => {
    const other = excerpt.elements[at]!;
    return (
      other.name === element.name &&
      other.attributes.length === element.attributes.length &&
      other.attributes.every(
        ({ name, value }, of) =>
          name === element.attributes[of]!.name && value === element.attributes[of]!.value,
      ) &&
      other.position === element.position &&
      other.parent === (element.parent < 0 ? -1 : numbers.get(element.parent))
    );
  });
}

/** Edits on an excerpt as edits on its page; `undefined` where one reaches into a cut. */
export function ontoPage(cuts: readonly Edit[], edits: readonly Edit[]): Edit[] | undefined {
  const found: Edit[] = [];
  for (const edit of edits) {
    let shift = 0;
    for (const { start, end, text } of cuts) {
      const at = start + shift;
      // What ends where a cut begins stands in front of it.
      if (edit.end <= at) break;
      if (edit.start < at + text.length) return undefined;
      shift += text.length - (end - start);
    }
    found.push({ start: edit.start - shift, end: edit.end - shift, text: edit.text });
  }
  return found;
}
