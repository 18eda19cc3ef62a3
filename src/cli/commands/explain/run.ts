// Everything that styles one element, and why.

import { type Circumstances, explainElement } from '../../../core/ask/explain/index.js';
import { ALWAYS, compileSelectorList, NEVER, type StyleReader } from '../../../core/cascade/index.js';
import { everyLonghand } from '../../../core/sheets/index.js';
import { lineStart, offsetAt } from '../../../core/source.js';
import { UsageError } from '../../../core/usage-error.js';
import { openBuilt } from '../../../site/building/build.js';
import { inSources } from '../../../site/building/places.js';
import { renderingOf } from '../../../site/building/renderings.js';
import { openFolder } from '../../../site/files/files.js';
import { type OpenedPage, openPage } from '../../../site/rendering/one-page.js';
import type { ExplainDocument } from './document.js';

export interface ExplainOptions {
  /** Only these properties; a shorthand stands for its longhands. */
  readonly property?: readonly string[] | undefined;
  /** In these states, such as `hover`. */
  readonly state?: readonly string[] | undefined;
  /** In a window of this width, in pixels. */
  readonly width?: number | undefined;
  /** Hears what is done now. */
  readonly onStep?: ((step: string) => void) | undefined;
}

/** @internal */
export interface ExplainedElement {
  readonly document: ExplainDocument;
  /** For a component: how many different sets of sheets it may be shown with; the first is taken. */
  readonly settings: number;
}

/**
 * What styles one element, what wins and why the rest does not.
 * In: the site's folder; the page's path in it; a selector, or `line` or `line:column` of its tag.
 * Throws `UsageError` for what points at nothing.
 */
export async function explain(
  site: string,
  page: string,
  element: string,
  options: ExplainOptions = {},
): Promise<ExplainDocument> {
  return (await explainOn(site, page, element, options)).document;
}

/** @internal */
export async function explainOn(
  folder: string,
  file: string,
  asked: string,
  { property, state, width, onStep }: ExplainOptions,
): Promise<ExplainedElement> {
  const states =
    state === undefined ? undefined : new Set(state.map((one) => one.replace(/^:+/, '').toLowerCase()));
  const circumstances: Circumstances = { width, states };
  const built = await openBuilt(folder, openFolder(folder), onStep);
  const meant = built === undefined ? { page: file, element: asked } : renderingOf(built, file, asked);
  const opened = await openPage(built?.folder ?? folder, meant.page);
  const { reader, isPlatform, unread, settings } = opened;
  const { index, of } = findElement(reader, meant.element);
  const explanation = explainElement(
    { reader, element: index, isPlatform, circumstances },
    propertyFilter(property),
  );
  const document: ExplainDocument = {
    format: 1,
    command: 'explain',
    page: reader.page.path,
    asked,
    matching: of,
    ...explanation,
    site: siteKind(opened, explanation.selectors.kindOnSite.selector),
    unread,
  };
  if (built === undefined) return { document, settings };
  const { document: moved, built: how } = inSources(built, document);
  return { document: { ...moved, built: how }, settings };
}

function siteKind(opened: OpenedPage, selector: string): ExplainDocument['site'] {
  const names = [...selector.matchAll(/[.#]([\w-]+)/g)].map(([, name]) => name!);
  const tag = names.length === 0 ? [selector] : names;
  return { selector, ...opened.pagesWith(tag) };
}

function propertyFilter(names: readonly string[] | undefined): ((longhand: string) => boolean) | undefined {
  if (names === undefined || names.length === 0) return undefined;
  const wanted = new Set(
    names.flatMap((name) => {
      const property = name.startsWith('--') ? name : name.toLowerCase();
      return [property, ...everyLonghand(property)];
    }),
  );
  return (longhand) => wanted.has(longhand);
}

/** Throws `UsageError` for what points at nothing. */
function findElement(reader: StyleReader, asked: string): { index: number; of: number } {
  const { page } = reader;
  const position = /^(\d+)(?::(\d+))?$/.exec(asked);
  if (position !== null) {
    const offset = offsetOf(page.text, Number(position[1]), position[2]);
    let found = -1;
    for (const { index, tag } of page.elements)
      if (tag !== undefined && tag.range.start <= offset) found = index;
    if (found >= 0) return { index: found, of: 1 };
    throw new UsageError('no-element-there', { place: `${page.path}:${asked}` });
  }
  const list = compileSelectorList(asked);
  if (list.kind === 'invalid') throw new UsageError('explain-selector', { text: asked, reason: list.reason });
  const matched = page.elements.filter(({ index }) =>
    list.selectors.some((one) => reader.matches(one, index) !== NEVER),
  );
  const sure = matched.find(({ index }) =>
    list.selectors.some((one) => reader.matches(one, index) === ALWAYS),
  );
  const first = sure ?? matched[0];
  if (first !== undefined) return { index: first.index, of: matched.length };
  throw new UsageError('explain-nothing', { text: asked, page: page.path });
}

/** A line alone stands for the first tag on it: its last character. */
function offsetOf(text: string, line: number, column: string | undefined): number {
  if (column !== undefined) return offsetAt(text, line, Number(column));
  const start = lineStart(text, line);
  return start + Math.max(0, text.slice(start, lineStart(text, line + 1)).search(/<[a-z]/i));
}
