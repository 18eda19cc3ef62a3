// A move of a draft on one tag that it changes: the tag as it was, and as it is.

import { withSingleSpaces } from '../core/base/phrases.js';
import { placeIn } from '../core/base/source.js';
import { type Page, parsePage } from '../core/read/markup/index.js';
import type { SiteFiles } from '../site/files/files.js';
import { readConfig } from '../site/files/pages.js';
import { SiteReader } from '../site/rendering/reader.js';

export interface TagChange {
  readonly place: string;
  readonly before: string;
  readonly after: string;
}

/** Tags of two states of a site, by their places in the first. */
export class TagChanges {
  readonly #sides: readonly [SiteReader, SiteReader];
  readonly #pages = new Map<string, readonly [Page, Page] | undefined>();

  private constructor(sides: readonly [SiteReader, SiteReader]) {
    this.#sides = sides;
  }

  static async between(before: SiteFiles, after: SiteFiles): Promise<TagChanges> {
    const open = async (files: SiteFiles): Promise<SiteReader> =>
      new SiteReader(files, await readConfig(files));
    return new TagChanges([await open(before), await open(after)]);
  }

  /** In: `page.html:12:5`. Out: `undefined` where no tag of a page begins there. */
  at(place: string): TagChange | undefined {
    const [, file = '', line, column] = /^(.*):(\d+):(\d+)$/.exec(place) ?? [];
    const [before, after] = this.#pagesOf(file) ?? [];
    if (before === undefined || after === undefined) return undefined;
    const element = before.elements.find(({ tag }) => {
      if (tag === undefined) return false;
      const own = placeIn(file, before.text, tag.range.start);
      return own.line === Number(line) && own.column === Number(column);
    });
    if (element === undefined) return undefined;
    // Only links in the head come in: counted from the end every element has its number.
    const is = after.elements.at(element.index - before.elements.length);
    if (is?.tag === undefined) return undefined;
    return { place, before: tagText(before, element.index), after: tagText(after, is.index) };
  }

  #pagesOf(file: string): readonly [Page, Page] | undefined {
    if (!this.#pages.has(file)) {
      const [before, after] = this.#sides;
      const [was, is] = [before.page(file), after.page(file)];
      this.#pages.set(
        file,
        was === undefined || is === undefined
          ? undefined
          : [parsePage(file, was, before.isComponent(file)), parsePage(file, is, after.isComponent(file))],
      );
    }
    return this.#pages.get(file);
  }
}

/** The start tag of an element as it is written, on one line. */
export function tagText({ text, elements }: Page, index: number): string {
  const { start, end } = elements[index]!.tag!.range;
  return withSingleSpaces(text.slice(start, end));
}
