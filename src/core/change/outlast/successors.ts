// What a platform's names became: classes that only the old sheets have, and the new one that is styled most alike.

import { distance } from 'fastest-levenshtein';
import { classesIn, compileSelectorList } from '../../cascade/index.js';
import { parseSheet } from '../../read/sheets/index.js';

export interface Successor {
  readonly old: string;
  /** `undefined` where nothing new is like it. */
  readonly likely: string | undefined;
}

/** Least share of what is declared of a class that its successor declares too. */
const ALIKE = 0.34;

/** In: texts of the old sheets and of the new. Out: every class that is gone, in order. */
export function findSuccessors(old: readonly string[], fresh: readonly string[]): Successor[] {
  const [was, is] = [saidOfClasses(old), saidOfClasses(fresh)];
  const added = [...is.keys()].filter((name) => !was.has(name));
  return [...was.keys()]
    .filter((name) => !is.has(name))
    .sort()
    .map((name) => {
      const scored = added
        .map((other) => ({
          other,
          score: share(was.get(name)!, is.get(other)!) + nameShare(name, other) / 4,
        }))
        .filter(({ score }) => score >= ALIKE)
        .sort((a, b) => b.score - a.score || (a.other < b.other ? -1 : 1));
      return { old: name, likely: scored[0]?.other };
    });
}

/** Class to what is declared under it: its selector with the name left out, and the declaration. */
function saidOfClasses(texts: readonly string[]): Map<string, Set<string>> {
  const said = new Map<string, Set<string>>();
  for (const text of texts) {
    for (const { selector: own, declarations } of parseSheet(text).rules) {
      const list = compileSelectorList(own);
      if (list.kind === 'invalid') continue;
      for (const selector of list.selectors) {
        for (const name of classesIn([selector])) {
          const without = selector.text.replaceAll(`.${name}`, '.*');
          const known = said.get(name) ?? new Set();
          for (const { property, value } of declarations) known.add(`${without} ${property}: ${value}`);
          said.set(name, known);
        }
      }
    }
  }
  return said;
}

function share(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  const both = [...a].filter((one) => b.has(one)).length;
  return both / Math.max(1, a.size + b.size - both);
}

function nameShare(a: string, b: string): number {
  return 1 - distance(a, b) / Math.max(a.length, b.length);
}
