// Whether every element that an override is for has what was asked, below what was to stay.

import { undefeatedFor } from '../../ask/reach/index.js';
import {
  ALWAYS,
  type ComplexSelector,
  type Outcome,
  type SiteModel,
  type Stack,
  StyleReader,
  type Truth,
  withoutIdle,
} from '../../cascade/index.js';
import { changeText, type DeclarationChange } from '../../edits/index.js';
import type { Page } from '../../markup/index.js';
import { alignPages, isHidden } from '../../proof/index.js';
import { expandDeclaration, parseDeclarations } from '../../sheets/index.js';

export interface UnmetAsked {
  readonly selector: ComplexSelector;
  /** Elements that are meant, by page, as they are numbered before the change. */
  readonly meant: ReadonlyMap<string, ReadonlySet<number>>;
  readonly changes: readonly DeclarationChange[];
  readonly medium: Truth;
  readonly everywhere: boolean;
}

/** Out: in words, what would not be as asked; empty when all is. */
export function findUnmet(before: SiteModel, after: SiteModel, asked: UnmetAsked): string[] {
  const { selector, meant, changes, medium, everywhere } = asked;
  const unmet = new Set<string>();
  const values = new Map(
    parseDeclarations(changes.map(changeText).join(';')).declarations.flatMap(({ property, value }) =>
      expandDeclaration(property, value, '').map((part): [string, string] => [part.longhand, part.value]),
    ),
  );
  for (const [path, indexes] of meant) {
    const [page, later] = [before.page(path), after.page(path)];
    const alignment = page && later && alignPages(page, later);
    if (page === undefined || later === undefined || alignment?.kind !== 'aligned') {
      unmet.add(`${path}: its markup would change`);
      continue;
    }
    const toAfter = new Map(alignment.pairs);
    for (const [reader, second] of readerPairs(before, after, page, later)) {
      const known = new Set<string>();
      for (const index of indexes) {
        const own = toAfter.get(index);
        const pair = `${reader.outcomeNumber(index)} ${own === undefined ? '' : second.outcomeNumber(own)} ${reader.matches(selector, index)}`;
        if (known.has(pair)) continue;
        known.add(pair);
        const when = before.table.truths.and(reader.matches(selector, index), medium);
        const isShown = ({ condition }: Outcome): boolean => !isHidden(condition, before.table.truths);
        const was = reader.weighed(index).get(selector.pseudoElement);
        const is = own === undefined ? undefined : second.weighed(own).get(selector.pseudoElement);
        for (const [longhand, value] of values) {
          const wanted = everywhere
            ? [`${value}?${when}`]
            : wantedForm(undefeatedFor(was, longhand).filter(isShown), value, when);
          const now = undefeatedFor(is, longhand)
            .filter(isShown)
            .filter(({ condition }) => when === ALWAYS || condition !== ALWAYS);
          if (idleForm(now) === withoutIdleText(wanted)) continue;
          const text = now[0]?.entry.declaration.value ?? 'unset';
          unmet.add(
            `${path}: ${longhand} of ${selector.text} would be ${text}${now.length > 1 ? ' in some state or medium' : ''}`,
          );
        }
      }
    }
  }
  return [...unmet];
}

/** A component is read under the sheets of every page, before and after. */
function readerPairs(
  before: SiteModel,
  after: SiteModel,
  page: Page,
  later: Page,
): (readonly [StyleReader, StyleReader])[] {
  const stacks = new Map<string, readonly [Stack, Stack]>();
  for (const whole of page.kind === 'page' ? [page] : before.pages) {
    const other = whole.kind === 'page' ? after.page(whole.path) : undefined;
    if (other === undefined) continue;
    const pair = [before.stackOf(whole), after.stackOf(other)] as const;
    stacks.set(`${pair[0].key}|${pair[1].key}`, pair);
  }
  return [...stacks.values()].map(([a, b]) => [
    new StyleReader(page, a, before.table),
    new StyleReader(later, b, after.table),
  ]);
}

/** The asked value in the place of what it replaces; other media and states as they are. */
function wantedForm(list: readonly Outcome[], value: string, when: Truth): string[] {
  const wanted: string[] = [];
  const own = `${value}?${when}`;
  for (const one of list) {
    if (one.condition === ALWAYS) break;
    if (one.condition !== when) wanted.push(valueWhen(one));
    else if (!wanted.includes(own)) wanted.push(own);
  }
  return wanted.includes(own) ? wanted : [...wanted, own];
}

function valueWhen({ value, condition }: Outcome): string {
  return `${value}?${condition}`;
}

function idleForm(list: readonly Outcome[]): string {
  return withoutIdle(list.map((one) => ({ ...one, important: false })))
    .map(valueWhen)
    .join('|');
}

/** The same for texts: what gives the same as the last, unconditional one right below it says nothing. */
function withoutIdleText(list: readonly string[]): string {
  const last = list.at(-1) ?? '';
  if (!last.endsWith(`?${ALWAYS}`)) return list.join('|');
  const value = last.slice(0, last.lastIndexOf('?'));
  let end = list.length - 1;
  while (end > 0 && list[end - 1]!.slice(0, list[end - 1]!.lastIndexOf('?')) === value) end--;
  return [...list.slice(0, end), last].join('|');
}
