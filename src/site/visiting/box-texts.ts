// The text of each box after a visit: what the site has now, unless changes of one's own wait to be pasted.

import type { SiteFiles } from '../files/files.js';
import { openFolder } from '../files/files.js';
import { readText } from '../files/text.js';
import { keepFile } from './keeper.js';
import { boxesIn, boxFile, type Visited } from './with-boxes.js';

export interface BoxState {
  readonly file: string;
  /** Pages that it stands on. */
  readonly pages: number;
  /**
   * `as on the site`; `waits`: changed here and not pasted yet; `pasted`: what waited is on the site now; `both`: changed here
   * and on the site.
   */
  readonly state: 'as on the site' | 'waits' | 'pasted' | 'both';
  /** Pages on which a block that should say the same says something else. */
  readonly differs: number;
}

/** In: the site's folder; the state of the visit before, where there is one. Writes the boxes' files. */
export function settleBoxes(root: string, visited: Visited, before: SiteFiles | undefined): BoxState[] {
  const files = openFolder(root);
  const live = liveTexts(files, visited);
  const old = before === undefined ? undefined : liveTexts(before, visited);
  const states: BoxState[] = [];
  for (const [file, { css, pages, differs }] of live) {
    const here = textAt(files, file);
    const base = old?.get(file)?.css;
    const isLive = here === undefined || isSameText(here, css);
    let state: BoxState['state'] = 'as on the site';
    if (isLive) {
      if (here !== undefined && base !== undefined && !isSameText(base, css)) state = 'pasted';
    } else if (base === undefined || !isSameText(here, base))
      state = base === undefined || isSameText(base, css) ? 'waits' : 'both';
    if ((state === 'as on the site' || isLive) && here !== css) keepFile(root, file, css);
    states.push({ file, pages, state, differs });
  }
  return states;
}

/** What is around a text in a box, and how its lines end, is the editor's to say. */
export function isSameText(a: string, b: string): boolean {
  return plain(a) === plain(b);
}

function plain(text: string): string {
  return text.replace(/\r\n?/g, '\n').trim();
}

interface LiveText {
  readonly css: string;
  readonly pages: number;
  readonly differs: number;
}

/** By box file, what the site itself says in it: most pages' word, where they differ. */
export function liveTexts(files: SiteFiles, visited: Visited): Map<string, LiveText> {
  const said = new Map<string, Map<string, number>>();
  for (const page of visited.pages) {
    const text = textAt(files, page) ?? '';
    for (const { place, css } of boxesIn(text, page, visited)) {
      const file = boxFile(place, page);
      const own = css ?? textAt(files, place.sheet ?? '');
      if (file === undefined || own === undefined) continue;
      const texts = said.get(file) ?? new Map<string, number>();
      texts.set(own, (texts.get(own) ?? 0) + 1);
      said.set(file, texts);
    }
  }
  const found = new Map<string, LiveText>();
  for (const [file, texts] of said) {
    const pages = [...texts.values()].reduce((all, one) => all + one, 0);
    const [css, most] = [...texts].reduce((a, b) => (b[1] > a[1] ? b : a));
    found.set(file, { css, pages, differs: pages - most });
  }
  return found;
}

function textAt(files: SiteFiles, file: string): string | undefined {
  return file === '' ? undefined : readText(files, file)?.text;
}
