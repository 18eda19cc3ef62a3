// What elements are told apart by, in short: it is put together for every element of a site.

import { getOrInsert, newMap } from '../get-or-insert.js';
import type { PageElement } from '../markup/index.js';

/** Attributes that say what an element is, and that a selector may ask for. */
const HOOK_ATTRIBUTES = new Set(['type', 'role', 'dir', 'scope', 'rel', 'open']);

export function hookAttributes({ attributes }: Pick<PageElement, 'attributes'>): PageElement['attributes'] {
  return attributes.filter(({ name }) => HOOK_ATTRIBUTES.has(name));
}

/** Short numbers for long texts. */
export class Numbers {
  readonly #numbers = new Map<string, number>();

  of(text: string): number {
    let number = this.#numbers.get(text);
    if (number === undefined) {
      number = this.#numbers.size;
      this.#numbers.set(text, number);
    }
    return number;
  }
}

/** The text of each item, put together once. */
export class Remembered<Item extends object> {
  readonly #known = new WeakMap<Item, string>();
  readonly #textOf: (item: Item) => string;

  constructor(textOf: (item: Item) => string) {
    this.#textOf = textOf;
  }

  of(item: Item): string {
    let text = this.#known.get(item);
    if (text === undefined) {
      text = this.#textOf(item);
      this.#known.set(item, text);
    }
    return text;
  }
}

/** The name, the classes and the telling attributes of elements: tags that are alike share their lists of these. */
export class ElementNames {
  readonly #classes = new Remembered((classes: readonly string[]) => classes.join('.'));
  readonly #attributes = new Remembered((attributes: PageElement['attributes']) =>
    hookAttributes({ attributes })
      .map(({ name, value }) => `${name}=${value}`)
      .join(),
  );
  readonly #numbers = new Numbers();
  /** By the list of attributes, which says all but the name. */
  readonly #known = new WeakMap<PageElement['attributes'], Map<string, number>>();

  of(element: PageElement): number {
    const { namespace, name, attributes } = element;
    const own = namespace === 'html' ? name : namespace + name;
    const known = getOrInsert(this.#known, attributes, newMap<string, number>);
    return known.get(own) ?? getOrInsert(known, own, () => this.#find(own, element));
  }

  #find(own: string, { classes, attributes }: PageElement): number {
    const worn = classes.length === 0 ? '' : this.#classes.of(classes);
    const telling = attributes.length === 0 ? '' : this.#attributes.of(attributes);
    return this.#numbers.of(`${own}.${worn}[${telling}`);
  }
}
