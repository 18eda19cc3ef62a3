// What is sure of an element and of what stands around it, whatever holds of the open conditions.

import { ALWAYS, type Outcomes, type StyleReader } from '../../cascade/index.js';
import type { PageElement } from '../../read/markup/index.js';
import { isReplaced, usualDisplay } from './browser-sheet.js';

/** A value in normal form; `undefined` where the text does not describeDeclaration (a `var()`, part of a shorthand). */
export type Known = string | undefined;

const IN_ROWS = ['flex', 'grid', 'inline-flex', 'inline-grid'];

export class Surroundings {
  readonly element: PageElement;
  readonly #reader: StyleReader;
  readonly #target: string;
  readonly #outcomes: Outcomes;
  #parent: Surroundings | undefined;

  constructor(reader: StyleReader, element: number, target = '') {
    this.#reader = reader;
    this.element = reader.page.elements[element]!;
    this.#target = target;
    this.#outcomes = reader.outcomes(element).get(target) ?? new Map();
  }

  /** For a pseudo-element, its element. */
  get parent(): Surroundings | undefined {
    const above = this.#target === '' ? this.element.parent : this.element.index;
    if (above < 0) return undefined;
    this.#parent ??= new Surroundings(this.#reader, above);
    return this.#parent;
  }

  get isQuirks(): boolean {
    return this.#reader.page.quirks;
  }

  get hasChildren(): boolean {
    return this.element.firstChild >= 0 || this.element.hasTemplateText;
  }

  /** A table stands inside, which would inherit what is declared of tables. */
  get holdsTable(): boolean {
    const { elements } = this.#reader.page;
    for (let at = this.element.index + 1; at < elements.length; at++) {
      if (elements[at]!.parent < this.element.index) return false;
      if (elements[at]!.name === 'table') return true;
    }
    return false;
  }

  get isPseudo(): boolean {
    return this.#target !== '';
  }

  get isReplaced(): boolean {
    return !this.isPseudo && (isReplaced(this.element.name) || this.element.namespace !== 'html');
  }

  /** Every value the longhand could come to. In: `usual`, where no sheet declares. */
  values(longhand: string, usual: string): Known[] {
    const list = this.#outcomes.get(longhand) ?? [];
    const values = list.map(({ value }): Known => {
      if (value === 'initial') return usual;
      return /^part of |var\(|^(inherit|unset|revert|revert-layer)/.test(value) ? undefined : value;
    });
    return list.some(({ condition }) => condition === ALWAYS) ? values : [...values, usual];
  }

  every(longhand: string, usual: string, test: (value: string) => boolean): boolean {
    return this.values(longhand, usual).every((value) => value !== undefined && test(value));
  }

  get displays(): readonly Known[] {
    const usual = this.isPseudo ? 'inline' : usualDisplay(this.element.name);
    return this.values('display', usual).map((value) => (value === 'initial' ? 'inline' : value));
  }

  /** Whether it is always displayed as one of these. */
  isDisplayed(...as: readonly string[]): boolean {
    return this.displays.every((value) => value !== undefined && as.includes(value));
  }

  /** Whether it is never displayed as one of these. */
  isNotDisplayed(...as: readonly string[]): boolean {
    return this.displays.every((value) => value !== undefined && !as.includes(value));
  }

  get isStatic(): boolean {
    return this.every('position', 'static', (value) => value === 'static');
  }

  get isOutOfFlow(): boolean {
    return this.every('position', 'static', (value) => ['absolute', 'fixed'].includes(value));
  }

  get isInFlow(): boolean {
    return this.every('position', 'static', (value) => ['static', 'relative', 'sticky'].includes(value));
  }

  get isFloated(): boolean {
    return this.every('float', 'none', (value) => value !== 'none');
  }

  get isUnfloated(): boolean {
    return this.every('float', 'none', (value) => value === 'none');
  }

  /** Certainly no item of a flexible or grid container. */
  get isNoItem(): boolean {
    return this.parent?.isNotDisplayed(...IN_ROWS, 'contents') ?? false;
  }

  get isItem(): boolean {
    return this.isInFlow && (this.parent?.isDisplayed(...IN_ROWS) ?? false);
  }

  /** An inline box: sizes and transforms do not apply to it. */
  get isInlineBox(): boolean {
    return (
      !this.isReplaced &&
      this.isDisplayed('inline') &&
      this.isInFlow &&
      this.isUnfloated &&
      this.isNoItem &&
      this.element.name !== 'br'
    );
  }

  /** A block in the flow whose width is what its line leaves. */
  get isBlockInFlow(): boolean {
    return (
      !this.isReplaced &&
      this.isDisplayed('block', 'list-item', 'flow-root', 'flex', 'grid') &&
      this.isInFlow &&
      this.isUnfloated &&
      this.isNoItem &&
      !['fieldset', 'legend', 'hr', 'dialog'].includes(this.element.name)
    );
  }
}
