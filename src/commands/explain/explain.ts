// Everything that styles one element, and why.

import { type Circumstances, explainElement } from '../../core/ask/explain/index.js';
import { readAddress } from '../../core/ask/visit/index.js';
import { trimmedBefore } from '../../core/base/characters.js';
import { UsageError } from '../../core/base/usage-error.js';
import { everyLonghand } from '../../core/read/sheets/index.js';
import { openBuilt } from '../../site/building/build.js';
import { inSources } from '../../site/building/places.js';
import { renderingOf } from '../../site/building/renderings.js';
import { openFolder, type SiteFiles } from '../../site/files/files.js';
import { type OpenedPage, openPage } from '../../site/rendering/one-page.js';
import { withPlaces } from '../../site/rendering/places-in.js';
import { configOf } from '../../site/visiting/own-boxes.js';
import { readVisited } from '../../site/visiting/visited.js';
import type { ExplainDocument } from './document.js';
import { findElement } from './find-element.js';

export interface ExplainOptions {
  /** Only these properties; a shorthand stands for its longhands. */
  readonly property?: readonly string[] | undefined;
  /** In these states, such as `hover`. */
  readonly state?: readonly string[] | undefined;
  /** In a window of this width, in pixels. */
  readonly width?: number | undefined;
  /** Hears of the element that is explained: its page, and its number on it. */
  readonly onElement?: ((page: string, element: number) => void) | undefined;
  /** Hears what is done now. */
  readonly onStep?: ((step: string) => void) | undefined;
}

/** @internal */
export interface ExplainResult {
  readonly document: ExplainDocument;
  /** For a component: how many different sets of sheets it may be shown with; the first is taken. */
  readonly settings: number;
}

/**
 * What styles one element, what wins and why the rest does not.
 * In: the site's folder; the page's path in it; a selector, or `line` or `line:column` of its tag.
 * Throws `UsageError` for what points at nothing.
 * @internal
 */
export async function explain(
  folder: string,
  file: string,
  asked: string,
  { property, state, width, onStep, onElement }: ExplainOptions = {},
): Promise<ExplainResult> {
  const states =
    state === undefined ? undefined : new Set(state.map((one) => trimmedBefore(one, ':').toLowerCase()));
  const circumstances: Circumstances = { width, states };
  const built = await openBuilt(folder, openFolder(folder), onStep);
  const meant =
    built === undefined
      ? { page: pageAt(openFolder(folder), file), element: asked }
      : renderingOf(built, file, asked);
  if (built !== undefined && onElement !== undefined) throw new UsageError('built-no-picture', {});
  const opened = await openPage(built?.folder ?? folder, meant.page);
  const { reader, isPlatform, unread, settings } = opened;
  const { index, of } = findElement(reader, meant.element);
  onElement?.(reader.page.path, index);
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
  if (built === undefined) return { document: withPlaces(document, opened.writtenAt), settings };
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

/** The page that an address of the running system means; any other text is a path. */
function pageAt(files: SiteFiles, text: string): string {
  if (!/^(?:https?:\/\/|\/)/i.test(text)) return text;
  const visited = readVisited(files, configOf(files));
  const address = visited === undefined ? undefined : readAddress(text, visited.origin);
  const known = address === undefined ? undefined : visited?.files.get(address);
  if (known !== undefined) return known;
  if (visited === undefined) return text;
  throw new UsageError('address-not-visited', { address: text });
}
