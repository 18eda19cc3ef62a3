// What is declared twice, mirrored for two directions of writing, declared once with logical properties (CSS Logical Properties §4).

import { addTo } from '../../base/group-by.js';
import { mirrored } from '../../cascade/index.js';
import { declarationKey, type Movable } from '../../stock/index.js';
import type { Candidate } from './candidate-check.js';
import type { OwnRule, Said } from './own-rules.js';

type Way = 'ltr' | 'rtl';

/** In: rules under one context. Out: for two rules that mirror each other, or a rule and its mirror for one direction. */
export function mirrors(rules: readonly OwnRule[]): Candidate[] {
  const byBase = new Map<string, OwnRule[]>();
  for (const own of rules) if (own.bases.length === 1) addTo(byBase, directed(own).base, own);
  return [...byBase].flatMap(([base, same]): Candidate[] => {
    if (same.every((own) => directed(own).way === undefined)) return [];
    const said = new Map<string, Said[]>();
    const movables = new Map<string, Movable>();
    const back = new Map<string, Said[]>();
    for (const own of same) {
      const { way = 'ltr' } = directed(own);
      for (const one of own.said) {
        // What took the other side back is needless once a side goes with the direction.
        if (directed(own).way !== undefined && takesBack(one.movable)) {
          const key = `back ${one.movable.key} ${own.order}`;
          movables.set(key, { ...one.movable, key, declarations: [] });
          back.set(key, [one]);
        }
        const movable = inFlow(one.movable, way);
        if (movable === undefined) continue;
        movables.set(movable.key, movable);
        addTo(said, movable.key, one);
      }
    }
    for (const [key, own] of said) if (own.length < 2) said.delete(key);
    const [first] = same;
    const { suffix, conditions, context } = first!;
    if (said.size === 0) return [];
    return [
      {
        bases: [base],
        suffix,
        conditions,
        context,
        origin: 'own',
        said: new Map([...said, ...back]),
        movables,
      },
    ];
  });
}

/** `[dir=rtl] .note` is `.note`, written from right to left. */
function directed({ bases: [text] }: OwnRule): { readonly base: string; readonly way: Way | undefined } {
  const match =
    /^(?:html|body)?(?:\[dir=["']?(ltr|rtl)["']?\]|\.(?:is-)?(ltr|rtl)|:dir\((ltr|rtl)\))\s+(.+)$/.exec(
      text!,
    );
  const way = match?.[1] ?? match?.[2] ?? match?.[3];
  return match === null ? { base: text!, way: undefined } : { base: match[4]!, way: way as Way };
}

const SIDED = new Set([
  'margin-left',
  'margin-left-width',
  'margin-left-style',
  'margin-left-color',
  'margin-right',
  'margin-right-width',
  'margin-right-style',
  'margin-right-color',
  'padding-left',
  'padding-left-width',
  'padding-left-style',
  'padding-left-color',
  'padding-right',
  'padding-right-width',
  'padding-right-style',
  'padding-right-color',
  'border-left',
  'border-left-width',
  'border-left-style',
  'border-left-color',
  'border-right',
  'border-right-width',
  'border-right-style',
  'border-right-color',
  'left',
  'right',
  'border-top-left-radius',
  'border-top-right-radius',
  'border-bottom-left-radius',
  'border-bottom-right-radius',
]);

function takesBack({ declarations }: Movable): boolean {
  return declarations.every(
    ({ property, value }) => SIDED.has(property) && ['0', 'none', 'auto'].includes(value),
  );
}

/** A movable declaration in words of the flow of the text; `undefined` where it is not about a side. */
function inFlow(movable: Movable, way: Way): Movable | undefined {
  const { declarations, holder } = movable;
  if (!declarations.every(({ property }) => SIDED.has(property))) return undefined;
  const renamed = declarations.map((one) => ({
    ...one,
    property: logicalName(way === 'ltr' ? one.property : mirrored(one.property)),
  }));
  const key = renamed.map((one) => declarationKey(one, holder)).join('; ');
  return { ...movable, key, declarations: renamed };
}

/** In: a side, or a corner, of what is written from left to right. */
function logicalName(property: string): string {
  const corner = /^border-(top|bottom)-(left|right)-radius$/.exec(property);
  if (corner !== null)
    return `border-${corner[1] === 'top' ? 'start' : 'end'}-${corner[2] === 'left' ? 'start' : 'end'}-radius`;
  const name = property
    .replace(/(?<![a-z])left(?![a-z])/, 'inline-start')
    .replace(/(?<![a-z])right(?![a-z])/, 'inline-end');
  return name.startsWith('inline-') ? `inset-${name}` : name;
}
