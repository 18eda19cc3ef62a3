// What `outlast` found, as its document tells it: blocks that are pasted into many pages once, and like changes once.

import type { Fate, Outlast } from '../../core/change/outlast/index.js';
import { type Difference, isHiddenText } from '../../core/proof/index.js';
import type { OutlastDocument } from './document.js';

type Rule = OutlastDocument['rules'][number];
type Change = OutlastDocument['changes'][number];

/** A block pasted into many pages is told once. */
export function joinBlocks(rules: Outlast['rules']): Rule[] {
  const found = new Map<string, Rule>();
  for (const { written, fate, elements, pages } of rules) {
    const selector = written.rule.selector;
    const key = written.isBlock
      ? `block ${selector} ${written.rule.declarations.map(({ property, value }) => property + value)}`
      : `${written.path} ${written.rule.range.start}`;
    const known = found.get(key);
    if (known !== undefined) found.set(key, { ...known, times: known.times + 1 });
    else found.set(key, { selector, place: written.place, times: 1, elements, pages, ...fateJson(fate) });
  }
  return [...found.values()];
}

function fateJson(
  fate: Fate,
): Pick<Rule, 'fate' | 'names' | 'likely' | 'properties' | 'important' | 'by' | 'lost'> {
  switch (fate.kind) {
    case 'holds':
    case 'not needed':
      return { fate: fate.kind };
    case 'name gone': {
      const names = fate.names.map(({ old }) => old);
      return { fate: fate.kind, names, ...(fate.likely === undefined ? {} : { likely: fate.likely }) };
    }
    case 'matches nothing':
      return { fate: fate.kind, ...(fate.likely === undefined ? {} : { likely: fate.likely }) };
    case 'beaten': {
      const { properties, by, elements, fix } = fate;
      const rival = { selector: by.selector, value: by.value, place: by.place };
      return {
        fate: fate.kind,
        properties: [...properties],
        by: rival,
        lost: elements,
        ...(fix === undefined ? {} : { likely: fix.selector }),
        ...(fix === undefined || fix.important.length === 0 ? {} : { important: [...fix.important] }),
      };
    }
  }
}

/** The same change of looks on many elements is one. */
export function groupChanges(differences: readonly Difference[]): Change[] {
  const found = new Map<string, { one: Change; pages: Map<string, Set<number>> }>();
  for (const difference of differences) {
    if (difference.kind !== 'style') {
      const key = `${difference.kind} ${difference.what}`;
      const known = found.get(key);
      const one = {
        property: '',
        target: '',
        before: '',
        after: difference.what,
        selector: '',
        shown: '',
        elements: 0,
        pages: [],
      };
      found.set(key, known ?? { one, pages: new Map() });
      found.get(key)!.pages.set(difference.page, new Set([0]));
      continue;
    }
    const { property, target, before, after, page, element, shown } = difference;
    const text = (list: typeof before): string =>
      list
        .filter(({ condition }) => !isHiddenText(condition))
        .map(({ value, condition }) => `${value}${condition === '' ? '' : ` when ${condition}`}`)
        .join(', else ') || 'unset';
    const isShown = ({ condition }: { readonly condition: string }): boolean => !isHiddenText(condition);
    const selector = (after.find(isShown) ?? before.find(isShown))?.from ?? '';
    const key = [property, target, text(before), text(after), selector].join('|');
    let known = found.get(key);
    if (known === undefined) {
      const one = {
        property,
        target,
        before: text(before),
        after: text(after),
        selector,
        shown,
        elements: 0,
        pages: [],
      };
      known = { one, pages: new Map() };
      found.set(key, known);
    }
    const own = known.pages.get(page);
    if (own === undefined) known.pages.set(page, new Set([element]));
    else own.add(element);
  }
  const counted = [...found.values()].map(({ one, pages }) => {
    const list = [...pages].map(([file, indexes]) => ({ path: file, elements: indexes.size }));
    return { ...one, elements: list.reduce((sum, { elements }) => sum + elements, 0), pages: list };
  });
  return joinLonghands(counted).sort((a, b) => b.elements - a.elements || (a.property < b.property ? -1 : 1));
}

/** The four sides of a padding that all change alike are told as one. */
function joinLonghands(changes: readonly Change[]): Change[] {
  const groups = new Map<string, Change[]>();
  for (const one of changes) {
    const key = JSON.stringify([one.before, one.after, one.selector, one.target, one.shown, one.pages]);
    groups.set(key, [...(groups.get(key) ?? []), one]);
  }
  return [...groups.values()].map((group) => ({
    ...group[0]!,
    property: group
      .map(({ property }) => property)
      .sort()
      .join(', '),
  }));
}
