// What `draft` and `adopt` say alike: the styles, and what stays with its reason.

import type { Move } from '../core/edits/index.js';
import { declarationText } from '../core/edits/index.js';
import type { Kept } from '../core/search/index.js';
import { placeIn, showPlace } from '../core/source.js';
import { groupBy, keptText } from '../core/stock/index.js';
import { clean, declarationsLine, dim, heading, more, row } from './paper.js';

export interface StyleShown {
  readonly name: string;
  readonly selector: string;
  /** The rule that made a plain class too weak. */
  readonly beats?: string;
  readonly declarations: string[];
  readonly elements: number;
  readonly pages: number;
}

export function shownStyle(move: Move, shared: string): StyleShown {
  return {
    name: move.name,
    selector: move.selector,
    ...(move.beats === undefined ? {} : { beats: `${move.beats.selector} (${showPlace(move.beats.place)})` }),
    declarations: move.written.map(({ declaration, holder }) => declarationText(declaration, holder, shared)),
    elements: move.members.length,
    pages: new Set(move.members.map(({ carrier }) => carrier.page.path)).size,
  };
}

export function styleLines(styles: readonly StyleShown[], all: boolean): string[] {
  const lines: string[] = [];
  for (const { selector, beats, declarations, elements, pages } of all ? styles : styles.slice(0, 12)) {
    lines.push(
      row({
        count: elements,
        mark: 'made',
        text: `${selector}  ${declarationsLine(declarations)}`,
        place: `${pages} page${pages === 1 ? '' : 's'}`,
      }),
    );
    if (beats !== undefined) lines.push(row({ text: dim(`  to win over ${beats}`) }));
  }
  if (!all && styles.length > 12) lines.push(more(styles.length - 12, '--all'));
  return lines;
}

export interface KeptShown {
  readonly reason: string;
  readonly declarations: number;
  readonly places: string[];
}

/** By reason, most declarations first. */
export function shownKept(kept: readonly Kept[]): KeptShown[] {
  const placeOf = ({ carrier: { page, tag, range } }: Kept): string =>
    showPlace(placeIn(page.path, page.text, tag?.range.start ?? range.start));
  return [...groupBy(kept, ({ reason }) => keptText(reason))]
    .map(([reason, group]) => ({
      reason,
      declarations: group.reduce((sum, { unit }) => sum + unit.declarations.length, 0),
      places: [...new Set(group.map(placeOf))],
    }))
    .sort((a, b) => b.declarations - a.declarations || (a.reason < b.reason ? -1 : 1));
}

export function keptLines(kept: readonly KeptShown[], all: boolean): string[] {
  if (kept.length === 0) return [];
  const lines = [heading('Stays where it is', 'declarations, and why')];
  for (const { reason, declarations, places } of all ? kept : kept.slice(0, 8)) {
    lines.push(row({ count: declarations, mark: 'kept', text: clean(reason), place: places[0] ?? '' }));
    if (all) for (const other of places.slice(1)) lines.push(row({ text: '', place: other }));
  }
  if (!all && kept.length > 8) lines.push(more(kept.length - 8, '--all'));
  return lines;
}
