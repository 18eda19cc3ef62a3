// Whether two movable declarations set one thing differently, so that one rule cannot declare both.

import { BoundedMap } from '../base/bounded.js';
import { everyLonghand, interactionGroup } from '../read/sheets/index.js';
import type { Movable } from '../stock/index.js';

interface Slots {
  readonly longhands: ReadonlySet<string>;
  readonly groups: ReadonlySet<string>;
  /** Groups in which a logical or vendor name stands. */
  readonly mixed: ReadonlySet<string>;
}

const known = new BoundedMap<string, Slots>(20_000);

export function areRivals(a: Movable, b: Movable): boolean {
  const [one, other] = [slotsOf(a), slotsOf(b)];
  return (
    meet(one.longhands, other.longhands) || meet(one.mixed, other.groups) || meet(other.mixed, one.groups)
  );
}

function meet(a: ReadonlySet<string>, b: ReadonlySet<string>): boolean {
  for (const item of a) if (b.has(item)) return true;
  return false;
}

function slotsOf({ key, declarations, cells = [] }: Movable): Slots {
  return known.get(key, () => {
    const names = [
      ...declarations.flatMap(({ property }) => everyLonghand(property)),
      ...cells.flatMap(({ property }) => everyLonghand(property).map((name) => `cells ${name}`)),
    ];
    const groups = names.map((name) => interactionGroup(name));
    return {
      longhands: new Set(names),
      groups: new Set(groups.map(({ name }) => name)),
      mixed: new Set(
        groups.flatMap(({ name, kind }) => (kind === 'plain' ? [] : interactionGroup(name).name)),
      ),
    };
  });
}
