// Which way an element is written, and so which physical side a logical property sets (CSS Logical Properties §4.1).
//
// Known only where the markup alone decides it: no sheet, style, attribute or script of the page mentions directions.

import { attributeOf, type Page } from '../read/markup/index.js';
import type { OwnStyling, TrialRule } from './outcome-model.js';
import type { Program } from './program.js';
import type { Block } from './rule-index.js';
import type { SheetOrder } from './sheet-order.js';

export type Direction = 'ltr' | 'rtl';

/** What decides the direction or the writing mode, in the text of a sheet. */
const DECIDES = /(?<![-\w])(direction|all)\s*:|writing-mode|text-orientation/i;
/** A logical property, in the text of a sheet. */
const LOGICAL_TEXT = /(inline|block)-(size|start|end)|-(inline|block)\s*:|(start|end)-(start|end)-radius/i;

export class Directions {
  readonly #page: Page;
  #isKnown: boolean | undefined;
  /** Whether a sheet of the page holds a logical property. */
  readonly #inSheets: boolean;
  readonly #known = new Map<number, Direction | undefined>();

  readonly #uses: SheetOrder['uses'];

  constructor(page: Page, { uses }: SheetOrder) {
    this.#page = page;
    this.#uses = uses;
    this.#inSheets = uses.some(({ program }) => test(program, logical, LOGICAL_TEXT));
  }

  /** Whether it makes a difference which way an element is written. */
  matters({ style, hints }: OwnStyling, trials: readonly TrialRule[]): boolean {
    return (
      this.#inSheets ||
      (style !== undefined && LOGICAL_TEXT.test(style)) ||
      hints.some(({ property }) => LOGICAL.has(property)) ||
      trials.some(({ block }) => blockIsLogical(block))
    );
  }

  of(index: number): Direction | undefined {
    // Few sites mention directions at all: the elements are looked through where it matters.
    this.#isKnown ??= this.#isToldByMarkup();
    if (!this.#isKnown) return undefined;
    if (!this.#known.has(index)) this.#known.set(index, this.#read(index));
    return this.#known.get(index);
  }

  #isToldByMarkup(): boolean {
    return (
      this.#page.kind === 'page' &&
      this.#page.scripts.length === 0 &&
      !this.#uses.some(({ program }) => test(program, deciding, DECIDES)) &&
      !this.#page.elements.some(
        ({ style, attributes }) =>
          (style !== undefined && DECIDES.test(style)) ||
          attributes.some(({ name }) => /^on|^direction$|^writing-mode$/i.test(name)),
      )
    );
  }

  #read(index: number): Direction | undefined {
    const element = this.#page.elements[index]!;
    const said = attributeOf(element.attributes, 'dir')?.toLowerCase();
    // A browser tells these by what is written in them, or has a direction of its own for them.
    if (
      said === 'auto' ||
      element.templated !== 'no' ||
      ['bdi', 'bdo', 'input', 'textarea'].includes(element.name)
    )
      return undefined;
    if (said === 'ltr' || said === 'rtl') return said;
    return element.parent < 0 ? 'ltr' : this.of(element.parent);
  }
}

const deciding = new WeakMap<Program, boolean>();
const logical = new WeakMap<Program, boolean>();

function test(program: Program, known: WeakMap<Program, boolean>, pattern: RegExp): boolean {
  let found = known.get(program);
  if (found === undefined) {
    found = pattern.test(program.sheet.text);
    known.set(program, found);
  }
  return found;
}

const blocks = new WeakMap<Block, boolean>();

function blockIsLogical(block: Block): boolean {
  let is = blocks.get(block);
  if (is === undefined) {
    is = [...block.normal, ...block.important].some(({ longhand }) => LOGICAL.has(longhand));
    blocks.set(block, is);
  }
  return is;
}

/** Physical longhand by logical one, written from left to right. */
const LOGICAL: ReadonlyMap<string, string> = new Map(pairs());

/** In: a longhand. Out: the one that sets the same side of an element. */
export function physicalName(longhand: string, direction: Direction): string {
  const name = LOGICAL.get(longhand);
  if (name === undefined) return longhand;
  return direction === 'ltr' ? name : mirrored(name);
}

/** `margin-left` is `margin-right` in a mirror. */
export function mirrored(name: string): string {
  return name.replace(/(?<![a-z])(left|right)(?![a-z])/, (side) => (side === 'left' ? 'right' : 'left'));
}

function pairs(): [string, string][] {
  const sides = [
    ['inline-start', 'left'],
    ['inline-end', 'right'],
    ['block-start', 'top'],
    ['block-end', 'bottom'],
  ] as const;
  const found: [string, string][] = [];
  for (const [logicalSide, side] of sides) {
    for (const box of ['margin', 'padding', 'scroll-margin', 'scroll-padding'])
      found.push([`${box}-${logicalSide}`, `${box}-${side}`]);
    for (const part of ['width', 'style', 'color'])
      found.push([`border-${logicalSide}-${part}`, `border-${side}-${part}`]);
    found.push([`inset-${logicalSide}`, side]);
  }
  for (const bound of ['', 'min-', 'max-'])
    found.push([`${bound}inline-size`, `${bound}width`], [`${bound}block-size`, `${bound}height`]);
  for (const [block, vertical] of [
    ['start', 'top'],
    ['end', 'bottom'],
  ])
    for (const [inline, horizontal] of [
      ['start', 'left'],
      ['end', 'right'],
    ])
      found.push([`border-${block}-${inline}-radius`, `border-${vertical}-${horizontal}-radius`]);
  return found;
}
