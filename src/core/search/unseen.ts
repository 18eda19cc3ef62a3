// What no file shows: content out of a database, pages that are written tomorrow. A rule that asks for a bare name there would
// style what nobody has looked at.

import { getOrInsert } from '../base/get-or-insert.js';
import type { SiteModel } from '../cascade/index.js';
import { mayHoldMore } from '../read/markup/index.js';
import type { Census, ElementGroup } from './census.js';
import { asksForName, existingSelectorOf } from './existing-selectors.js';

/**
 * Out: whether a selector would reach what nobody has seen. It asks for a class or an id; or, where a build makes the pages, for
 * a name within elements whose whole content one source writes.
 */
export function reachesUnseen(model: SiteModel, census: Census): (selector: string) => boolean {
  const { isWritten } = model.sources;
  if (census.pages.some(mayHoldMore)) return (selector) => !asksForName(selector);
  if (isWritten === undefined) return () => false;
  const known = new Map<string, boolean>();
  const isWhole = ({ members }: ElementGroup): boolean => {
    for (let at = 0; at < members.length; at += 2) {
      const page = census.pages[members[at]!]!;
      if (!isWritten(page, page.elements[members[at + 1]!]!)) return false;
    }
    return true;
  };
  return (selector) => {
    if (asksForName(selector)) return false;
    const scope = existingSelectorOf(selector)?.selector.compounds.at(-2);
    if (scope === undefined) return true;
    const key = `${scope.type ?? ''}#${scope.id ?? ''}.${scope.classes.join('.')}`;
    return getOrInsert(known, key, () => {
      const around = census.groups.filter(
        ({ element }) =>
          (scope.type === undefined || element.name === scope.type) &&
          (scope.id === undefined || element.id === scope.id) &&
          scope.classes.every((name) => element.classes.includes(name)),
      );
      return !around.every(isWhole);
    });
  };
}
