// `acervus-hold.json`: what a house has written down as there; whatever is not in it is new. Counts by kind, file and item,
// sorted, one entry a line, so that a review reads it and branches merge.

import { z } from 'zod';
import { firstIssue } from '../../base/choices.js';
import { UsageError } from '../../base/usage-error.js';
import { DEBT_KINDS, type Debt, type DebtKind } from './debts.js';

export const HOLD_FILE = 'acervus-hold.json';

const counts = z.record(z.string(), z.record(z.string(), z.int().min(1)));

export const heldSchema = z
  .strictObject({
    format: z.literal(1),
    held: z
      .partialRecord(z.enum(DEBT_KINDS), counts)
      .describe('By kind, file and what is written: how often it is there. It may only become less.'),
  })
  .describe('acervus-hold.json: what is there, and may only become less');

/** By kind, file and item. */
export type Held = ReadonlyMap<DebtKind, ReadonlyMap<string, ReadonlyMap<string, number>>>;
type Counts = Map<DebtKind, Map<string, Map<string, number>>>;

/** Throws `UsageError` for a text that is none. */
export function parseHeld(text: string): Held {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new UsageError('hold-file', { problem: (error as Error).message });
  }
  const read = heldSchema.safeParse(value);
  if (!read.success) throw new UsageError('hold-file', { problem: firstIssue(read.error) });
  return new Map(
    Object.entries(read.data.held).map(([kind, files]) => [
      kind as DebtKind,
      new Map(Object.entries(files).map(([file, items]) => [file, new Map(Object.entries(items))])),
    ]),
  );
}

export function heldOf(debts: readonly Debt[]): Held {
  const found: Counts = new Map();
  for (const { kind, item, place } of debts) add(found, kind, place.path, item, 1);
  return found;
}

function add(to: Counts, kind: DebtKind, file: string, item: string, count: number): void {
  const files = to.get(kind) ?? new Map<string, Map<string, number>>();
  to.set(kind, files);
  const items = files.get(file) ?? new Map<string, number>();
  files.set(file, items);
  items.set(item, (items.get(item) ?? 0) + count);
}

export function renderHeld(held: Held): string {
  const byKey = <T>(map: ReadonlyMap<string, T>): [string, T][] =>
    [...map].sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0));
  const kinds = DEBT_KINDS.flatMap((kind) => {
    const files = held.get(kind);
    if (files === undefined || files.size === 0) return [];
    const lines = byKey(files).map(([file, items]) => {
      const entries = byKey(items).map(([item, count]) => `    ${JSON.stringify(item)}: ${count}`);
      return `   ${JSON.stringify(file)}: {\n${entries.join(',\n')}\n   }`;
    });
    return [`  ${JSON.stringify(kind)}: {\n${lines.join(',\n')}\n  }`];
  });
  return `{\n "format": 1,\n "held": {\n${kinds.join(',\n')}\n }\n}\n`;
}

export function totalOf(held: Held, kind: DebtKind): number {
  let total = 0;
  for (const items of held.get(kind)?.values() ?? []) for (const count of items.values()) total += count;
  return total;
}

/** What is there now against what was written down. */
export interface Compared {
  /** What was not there: of several alike in a file, the last. */
  readonly fresh: readonly Debt[];
  /** What may be written down now: never more than before, but for what only moved from file to file. */
  readonly held: Held;
  /** How much less there is, by kind. */
  readonly less: ReadonlyMap<DebtKind, number>;
}

/**
 * In: what was written down; what is there now. `isLookedAt`: whether a file is among those that were read; the others are as
 * they were. What moved to another file is not new.
 */
export function compareHeld(
  before: Held,
  debts: readonly Debt[],
  isLookedAt: (file: string) => boolean = () => true,
): Compared {
  const now = heldOf(debts);
  const fresh: Debt[] = [];
  const after: Counts = new Map();
  const less = new Map<DebtKind, number>();
  for (const kind of DEBT_KINDS) {
    const [old, current] = [before.get(kind), now.get(kind)];
    // What went away in one file may have come up in another.
    const spare = new Map<string, number>();
    for (const [file, items] of old ?? []) {
      for (const [item, count] of items) {
        if (!isLookedAt(file)) add(after, kind, file, item, count);
        else {
          const gone = count - (current?.get(file)?.get(item) ?? 0);
          if (gone > 0) spare.set(item, (spare.get(item) ?? 0) + gone);
        }
      }
    }
    for (const [file, items] of current ?? []) {
      for (const [item, count] of items) {
        const held = old?.get(file)?.get(item) ?? 0;
        const moved = Math.min(Math.max(0, count - held), spare.get(item) ?? 0);
        spare.set(item, (spare.get(item) ?? 0) - moved);
        const kept = Math.min(count, held + moved);
        if (kept > 0) add(after, kind, file, item, kept);
        if (count > kept)
          fresh.push(
            ...debts
              .filter((one) => one.kind === kind && one.item === item && one.place.path === file)
              .slice(kept - count),
          );
      }
    }
    const rest = [...spare.values()].reduce((all, one) => all + one, 0);
    if (rest > 0) less.set(kind, rest);
  }
  return { fresh, held: after, less };
}
