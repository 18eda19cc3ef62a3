// Four sides that make one shorthand are written as one.

import { either, isMadeOf, WORD } from '../../base/characters.js';
import { startsWithAny } from '../../base/phrases.js';
import type { Placed } from '../../search/index.js';

const SIDES = ['top', 'right', 'bottom', 'left'] as const;

/** `margin-top: 0; margin-right: auto; margin-bottom: 0; margin-left: auto` becomes `margin: 0 auto`. */
export function joinShorthands(declarations: readonly Placed[]): Placed[] {
  let result = [...declarations];
  for (const box of ['margin', 'padding']) {
    const sides = SIDES.map((side) =>
      result.filter(({ declaration }) => declaration.property === `${box}-${side}`),
    );
    const four = sides.flatMap((found) => (found.length === 1 ? found : []));
    const competing = result.some(
      ({ declaration: { property } }) =>
        property.startsWith(box) && !SIDES.some((side) => property === `${box}-${side}`),
    );
    if (four.length < 4 || competing) continue;
    const [first] = four;
    const values = four.map(({ declaration }) => declaration.value);
    const plain = values.every(
      (value) =>
        isMadeOf(value, either(WORD, '.%-')) &&
        !startsWithAny(value.toLowerCase(), ['inherit', 'initial', 'unset', 'revert']),
    );
    if (!plain || four.some(({ declaration }) => declaration.important !== first!.declaration.important))
      continue;
    const joined = {
      ...first!,
      declaration: { ...first!.declaration, property: box, value: shortest(values) },
    };
    result = result.flatMap((one) => (one === first ? [joined] : four.includes(one) ? [] : [one]));
  }
  return result;
}

function shortest([top, right, bottom, left]: readonly string[]): string {
  if (right !== left) return [top, right, bottom, left].join(' ');
  if (top !== bottom) return [top, right, bottom].join(' ');
  return top === right ? top! : `${top} ${right}`;
}
