// What tells nothing apart: a browser's own words for aligned text where no box stands inside, and importance where nothing
// but the cascade asks for it.

import type { Outcomes } from './outcome-model.js';
import type { Program } from './program.js';
import type { Block } from './rule-index.js';

export const OWN_WORD = /^-webkit-(center|left|right)$/;

const blocks = new WeakMap<Block, boolean>();
const programs = new WeakMap<Program, boolean>();

export function blockHasOwnWords(block: Block): boolean {
  let has = blocks.get(block);
  if (has === undefined) {
    has = [...block.normal, ...block.important].some(({ value }) => OWN_WORD.test(value));
    blocks.set(block, has);
  }
  return has;
}

export function programHasOwnWords(program: Program): boolean {
  let has = programs.get(program);
  if (has === undefined) {
    has = /-webkit-(center|left|right)/i.test(program.sheet.text);
    programs.set(program, has);
  }
  return has;
}

const animated = new WeakMap<Program, boolean>();

/** What keyframes declare loses to what is important, and beats what is not (CSS Cascade 5 §6.1). */
export function mayAnimate(program: Program): boolean {
  let may = animated.get(program);
  if (may === undefined) {
    may = /animation|@[-\w]*keyframes/i.test(program.sheet.text);
    animated.set(program, may);
  }
  return may;
}

/** The width of a border that is taken from the element around: it counts there, whether or not it has a line. */
export const INHERITS_BORDER =
  /(?<![\w-])(all|border(-(top|right|bottom|left|(block|inline)(-start|-end)?))?(-width)?)\s*:[^;{}]*\binherit\b/i;

const inheriting = new WeakMap<Program, boolean>();

export function mayInheritBorders(program: Program): boolean {
  let may = inheriting.get(program);
  if (may === undefined) {
    may = INHERITS_BORDER.test(program.sheet.text);
    inheriting.set(program, may);
  }
  return may;
}

/** In: the outcomes of an element without boxes in it. */
export function inStandardWords(outcomes: Outcomes): Outcomes {
  const list = outcomes.get('text-align');
  if (list?.some(({ value }) => OWN_WORD.test(value)) !== true) return outcomes;
  const plain = list.map((one) => ({ ...one, value: one.value.replace(OWN_WORD, '$1') }));
  return new Map([...outcomes, ['text-align', plain]]);
}
