// Sources with every tag numbered, so that a page that is built of them tells where each of its tags comes from.

import type { SourceRange } from '../../base/source.js';
import { type ComponentNode, isTagged, readComponent } from '../../read/components/index.js';
import { componentKind, endingOf, isComponentFile } from '../../read/kinds/index.js';
import { SOURCE_MARK } from '../../read/markup/index.js';
import { sourceTags, type TagInSource } from '../../read/templates/index.js';

/** A tag of a source. */
export interface MarkedTag extends TagInSource {
  readonly path: string;
  /** Where its style is an object in code: what that says, and where each entry stands. */
  readonly styleObject?: { readonly style: string; readonly entries: readonly SourceRange[] } | undefined;
}

export interface MarkedSource {
  readonly text: string;
  /** In the order of their numbers. */
  readonly tags: readonly MarkedTag[];
}

/** Elements that a mark could do harm to: what stands in them is read by programs. */
const LEFT_ALONE = /^(script|template|svelte:.*|astro:.*|meta|title|noscript)$/i;
/** Where values without quotes are no markup. */

function tagsOf(path: string, text: string): Omit<MarkedTag, 'path'>[] {
  if (componentKind(path) !== 'jsx') return sourceTags(path, text);
  if (endingOf(path) === 'js' && !isTagged(path, text)) return [];
  const found: Omit<MarkedTag, 'path'>[] = [];
  const take = (node: ComponentNode): void => {
    if (node.kind === 'text') return;
    const style = node.attributes.find(({ name }) => name === 'style')?.value;
    const entries = node.styleObject?.entries;
    found.push({
      name: node.name,
      range: node.tag,
      attributes: new Map(node.attributes.map(({ name, range }) => [name, range])),
      styleObject: entries === undefined || style === undefined ? undefined : { style, entries },
    });
    node.children.forEach(take);
  };
  readComponent(path, text)?.roots.forEach(take);
  return found.sort((a, b) => a.range.start - b.range.start);
}

/**
 * Numbers the tags of a source.
 * In: its path and text; the number of the first tag. Out: the text with a mark in each tag, and the tags.
 */
export function markTags(path: string, text: string, first: number): MarkedSource {
  const tags: MarkedTag[] = [];
  const quote = isComponentFile(path) ? '"' : '';
  let marked = '';
  let at = 0;
  for (const tag of tagsOf(path, text)) {
    if (LEFT_ALONE.test(tag.name)) continue;
    const behind = tag.range.start + 1 + tag.name.length;
    const mark = ` ${SOURCE_MARK}=${quote}${first + tags.length}${quote}`;
    // A slash would be taken for a part of the number.
    marked += text.slice(at, behind) + mark + (text[behind] === '/' && quote === '' ? ' ' : '');
    at = behind;
    tags.push({ ...tag, path });
  }
  return { text: marked + text.slice(at), tags };
}
