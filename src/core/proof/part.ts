// What a proof of some pages came to: plain data, joined with that of others.

import { holdsEngineMark, INVISIBLE_MARK } from '../base/engine-marks.js';
import { comparePaths } from '../base/source.js';

import type { Difference } from './describe.js';
import { mergeScripts, type ScriptAssumptions, scriptSentences } from './script-assumptions.js';

/** Plain data: parts that several threads made are merged into one. */
export interface ProofPart {
  readonly differences: Difference[];
  pages: number;
  components: number;
  elements: number;
  /** Addresses of sheets elsewhere, with the number of pages that link them. */
  readonly unread: Map<string, number>;
  readonly scripts: ScriptAssumptions;
  templated: boolean;
  /** Whether the configuration says which sheets style some page. */
  given: boolean;
  /** Whether an engine puts something in between tags. */
  filled: boolean;
  /** Whether templates tell where some part stands. */
  named: boolean;
  /** Whether an engine writes into style blocks. */
  filledBlocks: boolean;
  /** Whether an engine writes values into style attributes. */
  filledValues: boolean;
}

export function emptyPart(): ProofPart {
  return {
    differences: [],
    pages: 0,
    components: 0,
    elements: 0,
    unread: new Map(),
    scripts: new Map(),
    templated: false,
    given: false,
    filled: false,
    named: false,
    filledBlocks: false,
    filledValues: false,
  };
}

/** Adds what another thread found. Out: `into`, changed. */
export function mergeProofs(into: ProofPart, from: ProofPart): ProofPart {
  into.differences.push(...from.differences);
  into.pages += from.pages;
  into.components += from.components;
  into.elements += from.elements;
  mergeScripts(into.scripts, from.scripts);
  into.templated ||= from.templated;
  into.given ||= from.given;
  into.filled ||= from.filled;
  into.named ||= from.named;
  into.filledBlocks ||= from.filledBlocks;
  into.filledValues ||= from.filledValues;
  for (const [address, pages] of from.unread)
    into.unread.set(address, (into.unread.get(address) ?? 0) + pages);
  return into;
}

const NOT_READ = 'and was not read';

/** Whether an assumption is of a sheet that nobody read. */
export function isOfUnread(assumption: string): boolean {
  return assumption.includes(NOT_READ);
}

/** What a proof had to assume, in words. */
export function assumptionsOf({
  unread,
  scripts,
  templated,
  given,
  filled,
  named,
  filledBlocks,
  filledValues,
}: ProofPart): string[] {
  const found: string[] = [];
  // That on which most pages hang comes first.
  for (const [address, pages] of [...unread].sort(([a, one], [b, two]) => two - one || comparePaths(a, b))) {
    found.push(
      `${address.replaceAll(INVISIBLE_MARK, '')} (on ${count(pages, 'page')}) ${whereIs(address)} ${NOT_READ}: taken to style nothing that moved`,
    );
  }
  found.push(...scriptSentences(scripts, (pages) => count(pages, 'page')));
  if (given)
    found.push(
      'sheets that no module imports by name, and "sheets" in acervus.json does not name, are taken to style nothing that moved',
    );
  if (filled)
    found.push(
      'what a template engine or code puts in, and no file shows, is taken to bear no class or id whose rules changed',
    );
  if (named)
    found.push('a part that templates name is taken to be shown where they name it, and nowhere else');
  if (filledBlocks)
    found.push('rules that a template engine writes into style blocks are taken to style nothing that moved');
  if (filledValues)
    found.push(
      'what a template engine writes into a value of a style attribute is taken to end no declaration',
    );
  if (templated) found.push('template text and code are taken never to produce a class name that is new');
  return found;
}

export function count(number: number, word: string): string {
  return `${number} ${word}${number === 1 ? '' : 's'}`;
}

/** Whether an address names no host: it leads to a file of this machine. */
function isFile(address: string): boolean {
  return !/^([a-z][a-z0-9+.-]*:|\/\/|\\\\)/i.test(address.trim());
}

function whereIs(address: string): string {
  if (/^\/.*\.(scss|sass|less|css|\w+~block-\d+)$/.test(address)) return 'is imported';
  return address.startsWith('engine:') || holdsEngineMark(address) || isFile(address)
    ? 'is not in this folder'
    : 'is on another host';
}
