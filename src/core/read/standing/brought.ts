// The sheets and scripts that the parts of a page bring to it: those of a head that is a file of its own.

import type { SourceRange } from '../../base/source.js';
import { isGiven, type Page, type ScriptReference, type SheetReference } from '../markup/index.js';

export interface Sources {
  /** The files that an inclusion of a page may mean. */
  readonly targetsOf: (path: string, at: number) => readonly string[];
  /** A page as it is by itself. */
  readonly pageAt: (path: string) => Page | undefined;
  /** The blocks of a layout that other files fill. */
  readonly fillingsOf: (layout: string) => readonly Filling[];
}

/** A block of a layout, as a file fills it that extends the layout. */
export interface Filling {
  readonly name: string;
  readonly page: Page;
  readonly range: SourceRange;
  /** Whether what stands in the layout's own comes as well. */
  readonly keeps: boolean;
}

const KEEPS = /\bblock\.super\b|\bsuper\s*\(|\bparent\s*\(|@parent\b/;

/** In: a file that extends a layout. */
export function fillingsIn(page: Page): readonly Filling[] {
  return page.inclusions.flatMap(({ kind, names, start, until }) => {
    if (kind !== 'block') return [];
    const keeps = KEEPS.test(page.text.slice(start, until));
    return names.map((name) => ({ name, page, range: { start, end: until }, keeps }));
  });
}

interface Brought {
  readonly sheets: readonly SheetReference[];
  readonly scripts: readonly ScriptReference[];
}

/** In: a page as it is by itself. Out: with what its parts bring, in order; itself where they bring nothing. */
export function withBrought(page: Page, sources: Sources): Page {
  const { sheets: all, scripts } = ofPage(page, sources, [page.path]);
  // Where a person says which sheets style a page, these do.
  const sheets = page.sheets.some(isGiven) ? page.sheets : all.filter((one) => !isGiven(one));
  const isSame = sheets.length === page.sheets.length && sheets.every((one, at) => one === page.sheets[at]);
  if (isSame && scripts.length === page.scripts.length) return page;
  return { ...page, sheets, scripts };
}

/** In: the files on the way to it, itself the last. */
function ofPage(page: Page, sources: Sources, on: readonly string[]): Brought {
  const scripts = [...page.scripts];
  const blocks = page.inclusions.filter(({ kind }) => kind === 'block');
  const fillings = blocks.length === 0 ? [] : sources.fillingsOf(page.path);
  const isFilledAnew = (offset: number): boolean =>
    blocks.some(
      ({ start, until, names }) =>
        start < offset &&
        offset < until &&
        fillings.some(({ name, keeps }) => !keeps && names.includes(name)),
    );
  const sheets = page.sheets.map((one) => {
    const at = startOf(one);
    return { at, one: isFilledAnew(at) ? { ...one, ...AT_TIMES } : one };
  });
  // What a page puts into its layout's head styles the layout's own elements, too.
  for (const { names, until } of blocks)
    for (const { name, page: part, range } of fillings)
      if (names.includes(name) && !on.includes(part.path))
        for (const one of part.sheets)
          if (range.start < startOf(one) && startOf(one) < range.end)
            sheets.push({ at: until, one: broughtSheet(one, part, true) });
  for (const [number, inclusion] of page.inclusions.entries()) {
    if (inclusion.kind !== 'include') continue;
    const files = sources.targetsOf(page.path, number);
    for (const file of files) {
      const part = on.includes(file) ? undefined : sources.pageAt(file);
      // What a page brings that a part opens or fills, the part has of the pages that show it.
      if (part === undefined || (page.kind === 'component' && part.kind === 'page')) continue;
      const own = ofPage(part, sources, [...on, file]);
      const isAtTimes = inclusion.isAtTimes || files.length > 1 || isFilledAnew(inclusion.start);
      for (const one of own.sheets)
        sheets.push({ at: inclusion.start, one: broughtSheet(one, part, isAtTimes) });
      for (const one of own.scripts) scripts.push({ ...one, broughtBy: one.broughtBy ?? part });
    }
  }
  return { sheets: sheets.sort((a, b) => a.at - b.at).map(({ one }) => one), scripts };
}

function startOf(one: SheetReference): number {
  return one.kind === 'link' ? one.range.start : (one.offset ?? one.madeAt ?? 0);
}

/** It stands in no element of the page, and is edited in no text of it. */
function broughtSheet(one: SheetReference, part: Page, isAtTimes: boolean): SheetReference {
  const own = { ...one, element: -1, broughtBy: one.broughtBy ?? part, ...(isAtTimes ? AT_TIMES : {}) };
  if (own.kind === 'link') return own;
  const madeAt = own.offset ?? own.madeAt;
  return { ...own, offset: undefined, isFixed: true, ...(madeAt === undefined ? {} : { madeAt }) };
}

const AT_TIMES = { by: 'engine at times' } as const;
