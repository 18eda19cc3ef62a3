// What is said twice, mirrored for two directions of writing, said once with logical properties (CSS Logical Properties §4).

import { addTo } from '../../base/group-by.js';
import { mirrored } from '../../cascade/index.js';
import { declarationKey, type Unit } from '../../stock/index.js';
import type { OwnRule, Said } from './own-rules.js';
import type { Candidate } from './weigh.js';

type Way = 'ltr' | 'rtl';

/** In: rules under one context. Out: for two rules that mirror each other, or a rule and its mirror for one direction. */
export function mirrors(rules: readonly OwnRule[]): Candidate[] {
  const byBase = new Map<string, OwnRule[]>();
  for (const own of rules) if (own.bases.length === 1) addTo(byBase, directed(own).base, own);
  return [...byBase].flatMap(([base, same]): Candidate[] => {
    if (same.every((own) => directed(own).way === undefined)) return [];
    const said = new Map<string, Said[]>();
    const units = new Map<string, Unit>();
    const back = new Map<string, Said[]>();
    for (const own of same) {
      const { way = 'ltr' } = directed(own);
      for (const one of own.said) {
        // What took the other side back is needless once a side goes with the direction.
        if (directed(own).way !== undefined && takesBack(one.unit)) {
          const key = `back ${one.unit.key} ${own.order}`;
          units.set(key, { ...one.unit, key, declarations: [] });
          back.set(key, [one]);
        }
        const unit = inFlow(one.unit, way);
        if (unit === undefined) continue;
        units.set(unit.key, unit);
        addTo(said, unit.key, one);
      }
    }
    for (const [key, own] of said) if (own.length < 2) said.delete(key);
    const [first] = same;
    const { suffix, conditions, context } = first!;
    if (said.size === 0) return [];
    return [
      { bases: [base], suffix, conditions, context, origin: 'own', said: new Map([...said, ...back]), units },
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

const SIDED =
  /^(?:(?:margin|padding|border)-(?:left|right)(?:-(?:width|style|color))?|left|right|border-(?:top|bottom)-(?:left|right)-radius)$/;

function takesBack({ declarations }: Unit): boolean {
  return declarations.every(({ property, value }) => SIDED.test(property) && /^(0|none|auto)$/.test(value));
}

/** A unit in words of the flow of the text; `undefined` where it is not about a side. */
function inFlow(unit: Unit, way: Way): Unit | undefined {
  const { declarations, holder } = unit;
  if (!declarations.every(({ property }) => SIDED.test(property))) return undefined;
  const renamed = declarations.map((one) => ({
    ...one,
    property: logicalName(way === 'ltr' ? one.property : mirrored(one.property)),
  }));
  const key = renamed.map((one) => declarationKey(one, holder)).join('; ');
  return { ...unit, key, declarations: renamed };
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
