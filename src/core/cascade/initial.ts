// What says no more than saying nothing would: initial values of properties that do not inherit, on elements of which no
// browser's own sheet speaks (https://html.spec.whatwg.org/multipage/rendering.html).

import type { PageElement } from '../read/markup/index.js';
import { interactionGroup } from '../read/sheets/index.js';
import type { Outcomes } from './outcome-model.js';

/** Elements without any side of their own; and those with a margin above and below. */
const BARE = new Set(
  (
    'div span main section article header footer nav aside a b strong i em small s u code label abbr cite dfn kbd ' +
    'samp var time'
  ).split(' '),
);
const BLOCK = new Set('p h1 h2 h3 h4 h5 h6 dl'.split(' '));

/** `told`: what stands inside may take the width of a border that has no line. */
export type Sides = 'bare' | 'block' | 'bare, told' | 'block, told' | 'unknown';

/** In: whether something on the page inherits the width of a border. */
export function sidesOf({ name, namespace, attributes }: PageElement, widthsInherit: boolean): Sides {
  const sides = BARE.has(name) ? 'bare' : BLOCK.has(name) ? 'block' : 'unknown';
  if (sides === 'unknown' || namespace !== 'html') return 'unknown';
  if (attributes.some((one) => one.name === 'popover')) return 'unknown';
  return widthsInherit ? `${sides}, told` : sides;
}

const SIDE = 'top|right|bottom|left';
const LENGTHS = new RegExp(`^(?:margin|padding)-(?:${SIDE})$`);
const STYLE = new RegExp(`^border-(${SIDE})-style$`);
const LINE = new RegExp(`^border-(${SIDE})-(?:width|color)$`);
const INSET = new RegExp(`^(?:${SIDE})$`);

/** The outcomes of an element without those that a browser would come to by itself. */
export function withoutInitial(outcomes: Outcomes, sides: Sides): Outcomes {
  if (sides === 'unknown' || outcomes.has('all')) return outcomes;
  const left = new Map(outcomes);
  const competing = new Set(
    [...outcomes.keys()].map(interactionGroup).flatMap(({ name, kind }) => (kind === 'plain' ? [] : name)),
  );
  const drop = (name: string, isInitial: (value: string) => boolean): void => {
    // What is stronger than another name for the same side is needed to beat it.
    if (competing.size > 0 && competing.has(interactionGroup(name).name)) return;
    const list = left.get(name)!;
    if (list.some(({ value }) => /revert|^part of/.test(value))) return;
    // What comes under a condition says no more either, where only the browser speaks below it.
    const kept = list.findLastIndex(({ value }) => !isInitial(value)) + 1;
    if (kept === 0) left.delete(name);
    else if (kept < list.length) left.set(name, list.slice(0, kept));
  };
  for (const name of outcomes.keys()) {
    if (LENGTHS.test(name)) {
      const isOwn = sides.startsWith('block') && /^margin-(top|bottom)$/.test(name);
      if (!isOwn) drop(name, (value) => value === '0' || value === 'initial');
    } else if (STYLE.test(name)) drop(name, (value) => value === 'none' || value === 'initial');
    else if (INSET.test(name)) drop(name, (value) => value === 'auto' || value === 'initial');
    else if (name.startsWith('border-image-')) drop(name, (value) => value === 'initial');
    else if (name === 'float') drop(name, (value) => value === 'none' || value === 'initial');
  }
  // Without a line its width and colour are not seen, but a line that comes under a condition has them.
  for (const name of outcomes.keys()) {
    const side = LINE.exec(name)?.[1];
    if (side === undefined) continue;
    const isBare =
      !sides.endsWith('told') && !left.has(`border-${side}-style`) && !left.has('border-image-source');
    drop(name, (value) => value === 'initial' || (isBare && name.endsWith('width') && value === '0'));
  }
  return left;
}
