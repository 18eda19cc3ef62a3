// What of a page's scripts a proof takes for granted: each with its script and line.

import { inOneLine } from '../base/phrases.js';
import { comparePaths, placeIn, showPlace } from '../base/source.js';
import type { SiteStyles } from '../cascade/index.js';
import type { Page } from '../read/markup/index.js';
import { notUnderstood, type ScriptReading, scriptReading } from '../read/scripts/index.js';

/** What is assumed, of how many pages: plain data, by script and what it does. */
export type ScriptAssumptions = Map<string, ScriptAssumption>;

export interface ScriptAssumption {
  /** `path:line:column`, or an address. */
  readonly where: string;
  readonly does: Does;
  /** What is said of it that its kind does not tell: the name that it calls. */
  readonly of: string;
  pages: number;
}

type Does = keyof typeof TAKEN;

const NOT_UNDERSTOOD = 'which is not understood: taken to mean nothing that its words do not name';

const TAKEN = {
  'was not read': 'taken to change nothing that moved',
  'is no script that can be read': 'taken to mean nothing that its words do not name',
  'is a library': 'taken to change only elements whose id or class it names, and what it names outright',
  'puts a class or attribute together': 'taken to be made of words in the script',
  'puts in, moves or takes out elements': 'taken to leave the others under the same rules',
  'adds elements behind others': 'which come under the rules that count them',
  'adds a sheet': 'taken to beat nothing that moved',
  'makes a shadow root': 'taken to say nothing of the elements around it and in its slots',
  'reads or clears styles': 'taken to find what it found before',
  calls: 'which no script here defines: taken to mean nothing that the words of the script do not name',
  'calls what it names only as it runs': NOT_UNDERSTOOD,
  'sets a property that it names only as it runs': NOT_UNDERSTOOD,
  'runs code that it puts together': NOT_UNDERSTOOD,
  'sets the properties of another object': NOT_UNDERSTOOD,
  'keeps a method that changes elements': NOT_UNDERSTOOD,
  'uses what is not followed': NOT_UNDERSTOOD,
} as const;

/** In: a page whose look is compared, and the styles of its state. Out: adds to `into`. */
export function noteScripts(page: Page, styles: SiteStyles, into: ScriptAssumptions): void {
  const seen = new Set<string>();
  const note = (script: string, where: () => string, does: Does, of = ''): void => {
    const key = `${does}\0${script}`;
    if (seen.has(key)) return;
    seen.add(key);
    const known = into.get(key);
    if (known === undefined) into.set(key, { where: where(), does, of, pages: 1 });
    else known.pages++;
  };
  const scripts = styles.scriptsIn(page);
  const unread = styles.unreadScripts(page);
  for (const name of unread) note(name, () => name, 'was not read');
  const unclear = notUnderstood(
    scripts.map(({ text, isLibrary }) => ({ reading: scriptReading(text), isLibrary })),
    unread.length === 0,
  );
  for (const [index, script] of scripts.entries()) {
    const { text, isLibrary, path } = script;
    const name = path === page.path ? text : path;
    const at = (offset: number): string => showPlace(placeIn(path, script.whole, script.offset + offset));
    if (isLibrary) note(name, () => path, 'is a library');
    else {
      for (const { does, offset } of unfollowed(scriptReading(text))) note(name, () => at(offset), does);
      for (const { does, name: called, offset } of unclear[index]!)
        note(name, () => at(offset), does, called);
    }
  }
}

const DOES = {
  elements: 'puts in, moves or takes out elements',
  'elements behind': 'adds elements behind others',
  sheet: 'adds a sheet',
  shadow: 'makes a shadow root',
} as const satisfies Record<string, Does>;

function unfollowed(reading: ScriptReading): { does: Does; offset: number }[] {
  if (!reading.readable) return [{ does: 'is no script that can be read', offset: 0 }];
  const found: { does: Does; offset: number }[] = [];
  const computed = reading.writes.find((write) => write.computed);
  if (computed) found.push({ does: 'puts a class or attribute together', offset: computed.offset });
  for (const { kind, offset } of reading.doings) {
    // What it adds is read, where it is written out.
    if (kind === 'text' || (kind === 'sheet' && reading.sheets.length > 0)) continue;
    found.push({ does: DOES[kind], offset });
  }
  const [touch] = reading.touches;
  if (touch) found.push({ does: 'reads or clears styles', offset: touch.offset });
  return found;
}

export function mergeScripts(into: ScriptAssumptions, from: ScriptAssumptions): void {
  for (const [key, one] of from) {
    const known = into.get(key);
    if (known === undefined) into.set(key, { ...one });
    else {
      const where = comparePaths(known.where, one.where) <= 0 ? known.where : one.where;
      into.set(key, { ...one, where, pages: known.pages + one.pages });
    }
  }
}

/** One sentence each, those of most pages first. */
export function scriptSentences(assumptions: ScriptAssumptions, count: (pages: number) => string): string[] {
  return [...assumptions.values()]
    .sort((a, b) => b.pages - a.pages || comparePaths(a.where, b.where) || (a.does < b.does ? -1 : 1))
    .map(({ where, does, of, pages }) => {
      const taken = TAKEN[does];
      const what = of === '' ? does : `${does} ${inOneLine(of)}`;
      return taken.startsWith('which')
        ? `${where} ${what} (on ${count(pages)}), ${taken}`
        : `${where} ${what} (on ${count(pages)}): ${taken}`;
    });
}
