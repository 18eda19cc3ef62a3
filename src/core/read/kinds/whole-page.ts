// What marks a text as a whole page.

/**
 * `frame`: a doctype, or an element that only a whole page has; `head`: a head, which a part may be; `metadata`: what a page
 * without these tags begins with; `none`: nothing.
 */
export type PageEvidence = 'frame' | 'head' | 'metadata' | 'none';

const FRAME = new Set(['html', 'body', 'frameset']);
const METADATA = new Set(['title', 'link', 'meta']);

/** In: markup, with what an engine reads in it written over. Out: the strongest evidence in it. */
export function pageEvidence(markup: string): PageEvidence {
  let found: PageEvidence = 'none';
  for (const { 1: mark = '', 2: name = '' } of markup.matchAll(/<(!?)([a-z]+)(?=[\s>])/gi)) {
    const tag = name.toLowerCase();
    if (mark === '!' ? tag === 'doctype' : FRAME.has(tag)) return 'frame';
    if (mark === '!') continue;
    if (tag === 'head') found = 'head';
    else if (found === 'none' && METADATA.has(tag)) found = 'metadata';
  }
  return found;
}
