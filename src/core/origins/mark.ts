// Sources with every tag numbered, so that a page that is built of them tells where each of its tags comes from.

import { ORIGIN_MARK } from '../markup/index.js';
import { sourceTags, type TagInSource } from './source-tags.js';

/** A tag of a source. */
export interface OriginTag extends TagInSource {
  readonly path: string;
}

export interface MarkedSource {
  readonly text: string;
  /** In the order of their numbers. */
  readonly tags: readonly OriginTag[];
}

/** Elements that a mark could do harm to: what stands in them is read by programs. */
const LEFT_ALONE = /^(script|template|svelte:.*|astro:.*|meta|title|noscript)$/i;
/** Where values without quotes are no markup. */
const QUOTED = /\.(vue|svelte|astro|jsx|tsx)$/i;

/**
 * Numbers the tags of a source.
 * In: its path and text; the number of the first tag. Out: the text with a mark in each tag, and the tags.
 */
export function markTags(path: string, text: string, first: number): MarkedSource {
  const tags: OriginTag[] = [];
  const quote = QUOTED.test(path) ? '"' : '';
  let marked = '';
  let at = 0;
  for (const tag of sourceTags(path, text)) {
    if (LEFT_ALONE.test(tag.name)) continue;
    const behind = tag.range.start + 1 + tag.name.length;
    const mark = ` ${ORIGIN_MARK}=${quote}${first + tags.length}${quote}`;
    // A slash would be taken for a part of the number.
    marked += text.slice(at, behind) + mark + (text[behind] === '/' && quote === '' ? ' ' : '');
    at = behind;
    tags.push({ ...tag, path });
  }
  return { text: marked + text.slice(at), tags };
}
