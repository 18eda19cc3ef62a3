// What elements are told apart by, in short: it is put together for every element of a site.

import type { PageElement } from '../read/markup/index.js';

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

/** The name, the classes and the telling attributes of elements, as numbers. */
export class ElementNames {
  readonly #numbers = new Numbers();

  of({ namespace, name, classes, attributes }: PageElement): number {
    let text = namespace === 'html' ? name : namespace + name;
    for (const one of classes) text += ` ${one}`;
    for (const one of attributes) if (HOOK_ATTRIBUTES.has(one.name)) text += `\n${one.name}=${one.value}`;
    return this.#numbers.of(text);
  }
}
