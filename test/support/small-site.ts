// Small sites of two areas whose best answer can be computed: for comparing, not for use.
//
// In every area some of six groups of elements carry some of three declarations: paragraphs and headings in two scopes, items
// of a list in turn, and paragraphs that nothing tells from their neighbours.

import { makeDraft, planAdoption } from '../../src/core/change/consolidate/index.js';
import { applyEdits } from '../../src/core/edit/text/index.js';
import { modelOf, scriptsOf } from './model.js';

interface Numbers {
  number(below: number): number;
  chance(percent: number): boolean;
}

const KEYS = ['letter-spacing: 1px', 'word-spacing: 2px', 'text-indent: 3px'] as const;
const GROUPS = ['tide', 'fare', 'head', 'odd', 'even', 'some', 'rest'] as const;
type Group = (typeof GROUPS)[number];

/** What stands in an area: how many elements of each group, and what they say; keys as bits. */
type Area = ReadonlyMap<Group, { readonly count: number; readonly wants: number }>;

export interface SmallSite {
  readonly files: Readonly<Record<string, string>>;
  readonly areas: readonly Area[];
}

export function smallSite(random: Numbers): SmallSite {
  const areas = ['freight', 'passengers'].map(() => randomArea(random));
  const files: Record<string, string> = {};
  areas.forEach((area, at) => {
    const folder = ['freight', 'passengers'][at]!;
    files[`${folder}/site.css`] = '';
    files[`${folder}/index.html`] = pageOf(area);
  });
  return { files, areas };
}

function randomArea(random: Numbers): Area {
  const area = new Map<Group, { count: number; wants: number }>();
  const bases = [1 + random.number(7), 1 + random.number(7)];
  const wants = (): number => {
    const base = bases[random.number(2)]!;
    return random.chance(60) ? base : random.chance(50) ? base | (1 << random.number(3)) : random.number(8);
  };
  const add = (group: Group, count: number): void => void area.set(group, { count, wants: wants() });
  if (random.chance(70)) add('tide', 3 + random.number(4));
  if (random.chance(70)) add('fare', 3 + random.number(4));
  if (random.chance(50)) add('head', 2 + random.number(3));
  if (random.chance(50)) {
    const rows = 4 + random.number(3);
    add('odd', rows);
    add('even', rows);
  }
  if (random.chance(50)) {
    add('some', 3 + random.number(4));
    area.set('rest', { count: 3 + random.number(3), wants: 0 });
  }
  return area;
}

function pageOf(area: Area): string {
  const tags = (group: Group, name: string): string[] => {
    const { count, wants } = area.get(group) ?? { count: 0, wants: 0 };
    const style = KEYS.filter((_, bit) => wants & (1 << bit)).join('; ');
    return Array.from(
      { length: count },
      () => `<${name}${style === '' ? '' : ` style="${style}"`}>x</${name}>`,
    );
  };
  const items = tags('odd', 'li').flatMap((odd, at) => [odd, tags('even', 'li')[at]!]);
  // Neither a turn nor an end: nothing tells these apart.
  const rest = tags('rest', 'p');
  const notes = [
    ...rest.slice(0, 1),
    ...tags('some', 'p').flatMap((one, at) => [
      one,
      ...(rest[at + 1] === undefined || at === 1 ? [] : [rest[at + 1]!]),
    ]),
    ...rest.slice(0, 1),
  ];
  const block = (name: string, inside: readonly string[]): string =>
    inside.length === 0 ? '' : `<div class="${name}">\n${inside.join('\n')}\n</div>\n`;
  return `<!doctype html>\n<html lang="en"><head><title>x</title>\n<link rel="stylesheet" href="site.css">\n</head>\n<body>\n${block('tides', [...tags('head', 'h3'), ...tags('tide', 'p')])}${block('fares', tags('fare', 'p'))}${items.length === 0 ? '' : `<ul class="turns">\n${items.join('\n')}\n</ul>\n`}${block('notes', notes)}</body></html>\n`;
}

/** What the tool makes of it, counted as the hand counts. */
export async function costFound({ files }: SmallSite): Promise<number> {
  const site = {
    model: modelOf(files),
    scripts: scriptsOf(files),
    sheets: Object.keys(files).flatMap((path) =>
      path.endsWith('.css') ? { path, owner: 'theme' as const } : [],
    ),
    shared: { path: 'shared.css', partNames: {} },
    sharedIsGiven: false,
    unseen: new Map(),
    naming: {},
    styledTags: { pictureSizes: 'keep' as const },
  };
  const options = { atLeast: 2, taste: 'balanced' as const, scope: 'site' as const };
  const { edits } = await planAdoption(site, (await makeDraft(site, options, undefined)).draft, {});
  let cost = 0;
  for (const path of new Set([...Object.keys(files), ...edits.keys()]))
    cost += costOf(path, applyEdits(files[path] ?? '', edits.get(path) ?? []));
  return cost;
}

function costOf(path: string, text: string): number {
  const count = (pattern: RegExp): number => text.match(pattern)?.length ?? 0;
  if (path.endsWith('.css')) {
    const selectors = [...text.matchAll(/([^{}]+)\{/g)].reduce(
      (all, [, list]) => all + list!.replace(/\/\*.*?\*\//g, '').split(',').length,
      0,
    );
    return count(/-(?:spacing|indent):/g) + selectors / 2;
  }
  const words = [...text.matchAll(/class="([^"]*)"/g)].reduce(
    (all, [, list]) => all + list!.split(' ').length,
    0,
  );
  const own = count(/class="(?:tides|fares|turns|notes)"/g);
  return count(/-(?:spacing|indent):/g) + (words - own) / 4;
}

/** The least that any answer costs which gives no element what it does not have. */
export function leastCostOf({ areas }: SmallSite): number {
  return areas.reduce((all, area) => all + leastInArea(area), 0);
}

const SCOPES: Readonly<Record<Group, string>> = {
  tide: 'tides',
  head: 'tides',
  fare: 'fares',
  odd: 'turns',
  even: 'turns',
  some: 'notes',
  rest: 'notes',
};

/** Selectors that pick out groups as they are. */
const HOOKS: readonly (readonly Group[])[] = [
  ['tide', 'fare', 'some', 'rest'],
  ['tide'],
  ['fare'],
  ['head'],
  ['odd', 'even'],
  ['odd'],
  ['even'],
  ['some', 'rest'],
];

function leastInArea(area: Area): number {
  const groups = GROUPS.filter((group) => area.has(group));
  const bit = (group: Group): number => (groups.includes(group) ? 1 << groups.indexOf(group) : 0);
  const all = (1 << groups.length) - 1;
  // A name by itself says something of all that have it.
  const paragraphs = HOOKS[0]!.filter((group) => groups.includes(group));
  const isOne = new Set(paragraphs.map((group) => area.get(group)!.wants)).size === 1;
  const hooks = (isOne ? HOOKS : HOOKS.slice(1))
    .map((own) => own.reduce((mask, group) => mask | bit(group), 0))
    .filter((mask) => mask > 0);
  const plain = leastWith(area, groups, selectorCounts(hooks, all), all);
  if (!area.has('some')) return plain;
  // What nothing tells apart may wear a class; all else has selectors of its own.
  const worn = selectorCounts([...hooks, bit('some')], all);
  return Math.min(plain, area.get('some')!.count / 4 + leastWith(area, groups, worn, all));
}

/** By set of groups, the fewest selectors that pick out exactly these. */
function selectorCounts(reaches: readonly number[], all: number): number[] {
  const fewest = new Array<number>(all + 1).fill(Number.POSITIVE_INFINITY);
  fewest[0] = 0;
  for (let set = 1; set <= all; set++)
    for (const reach of reaches) {
      if ((reach & set) !== reach) continue;
      // What others pick out may overlap.
      for (let rest = set & ~reach, more = reach; ; more = (more - 1) & reach) {
        fewest[set] = Math.min(fewest[set]!, 1 + fewest[rest | (reach & ~more)]!);
        if (more === 0) break;
      }
    }
  return fewest;
}

/** Rules for every set of keys: which groups each reaches, so that what is said and what is left inline cost least. */
function leastWith(area: Area, groups: readonly Group[], selectors: readonly number[], all: number): number {
  const wants = groups.map((group) => area.get(group)!.wants);
  const width = groups.length;
  const scopes = groups.map((group) => SCOPES[group]);
  // A list of selectors is about one part of the page, or about things that look alike altogether.
  const isOneThought = (set: number, keys: number): boolean => {
    const own = groups.flatMap((_, at) => (set & (1 << at) ? at : []));
    const several = (keys & (keys - 1)) !== 0;
    // A turn is about its list, and about nothing else.
    const isWhole = own.every((at) => wants[at] === keys && scopes[at] !== 'turns');
    return several && (isWhole || own.every((at) => scopes[at] === scopes[own[0]!]));
  };
  let states = new Map<number, number>([[0, 0]]);
  for (let keys = 1; keys < 1 << KEYS.length; keys++) {
    let may = 0;
    for (let at = 0; at < width; at++) if ((wants[at]! & keys) === keys) may |= 1 << at;
    const size = [0, 1, 2].filter((bit) => keys & (1 << bit)).length;
    const next = new Map(states);
    for (let set = may; set > 0; set = (set - 1) & may) {
      const price = selectors[set]! / 2 + size;
      if (!Number.isFinite(price) || (selectors[set]! > 1 && !isOneThought(set, keys))) continue;
      let given = 0;
      for (let bit = 0; bit < KEYS.length; bit++) if (keys & (1 << bit)) given |= set << (bit * width);
      for (const [state, cost] of states) {
        const known = next.get(state | given) ?? Number.POSITIVE_INFINITY;
        if (cost + price < known) next.set(state | given, cost + price);
      }
    }
    states = next;
  }
  let least = Number.POSITIVE_INFINITY;
  for (const [state, cost] of states) {
    let inline = 0;
    for (let bit = 0; bit < KEYS.length; bit++)
      for (let at = 0; at < width; at++)
        if (wants[at]! & (1 << bit) && !((state >> (bit * width + at)) & 1))
          inline += area.get(groups[at]!)!.count;
    least = Math.min(least, cost + inline);
  }
  return all === 0 ? 0 : least;
}
