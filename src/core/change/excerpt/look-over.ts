// Before any page of a large site is parsed: what a look at its text tells, so that pages can be taken one by one, in any
// order. Whatever is taken for a tag here and is none only makes excerpts longer.

import { neutralFor, OLD_ATTRIBUTES, OLD_ELEMENTS } from '../../read/hints/index.js';

/** What the pages of a site have in common. */
export interface Overview {
  /** Ids that stand on several pages. */
  readonly sharedIds: ReadonlySet<string>;
  /** Names of elements that say how they look, and classes of these, a point in front. */
  readonly styledWords: ReadonlySet<string>;
}

const ID = /\sid\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s"'>]+))/gi;
const CLASS = /\sclass\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s"'>]+))/i;
const OLD_NAMES = new Set([...OLD_ATTRIBUTES.values()].flatMap((own) => [...own.keys()]));
const STYLING = new RegExp(`\\s(style(?=\\s*=)|(?:${[...OLD_NAMES].join('|')})(?=[\\s=>/]))`, 'gi');
const OLD_ELEMENT = new RegExp(`<(?:${[...OLD_ELEMENTS.keys()].join('|')})[\\s>]`, 'gi');
const NAME = /^<([a-z][a-z0-9-]*)/i;

/** Takes the texts of pages one by one. */
export class LookOver {
  readonly #sharedIds = new Set<string>();
  readonly #styledWords = new Set<string>();
  readonly #ids = new Set<string>();

  add(text: string): void {
    const own = new Set<string>();
    for (const [, double, single, bare] of text.matchAll(ID)) own.add(double ?? single ?? bare ?? '');
    for (const id of own) (this.#ids.has(id) ? this.#sharedIds : this.#ids).add(id);
    for (const { index, 1: attribute } of text.matchAll(STYLING)) this.#noteTag(text, index, attribute!);
    for (const { index } of text.matchAll(OLD_ELEMENT)) this.#noteTag(text, index, undefined);
  }

  get overview(): Overview {
    return { sharedIds: this.#sharedIds, styledWords: this.#styledWords };
  }

  /** In: an offset, and the attribute there, if it stands in a tag; without one a tag begins there. */
  #noteTag(text: string, at: number, attribute: string | undefined): void {
    const start = text.lastIndexOf('<', at);
    const name = NAME.exec(text.slice(start, at + 20))?.[1]?.toLowerCase();
    if (name === undefined || text.lastIndexOf('>', at) > start) return;
    const lower = attribute?.toLowerCase();
    if (lower !== undefined && lower !== 'style' && OLD_ATTRIBUTES.get(name)?.has(lower) !== true) return;
    this.#styledWords.add(name);
    const neutral = neutralFor(name);
    if (neutral !== undefined) this.#styledWords.add(neutral);
    const end = text.indexOf('>', at);
    const [, double, single, bare] = CLASS.exec(text.slice(start, end < 0 ? undefined : end)) ?? [];
    for (const one of (double ?? single ?? bare ?? '').split(/\s+/))
      if (one !== '') this.#styledWords.add(`.${one}`);
  }
}
