// The gate of a house: what is there is written down, and may only become less.

import writeFileAtomic from 'write-file-atomic';
import { DEBT_KINDS, HOLD_FILE, totalOf } from '../../core/ask/hold/index.js';
import { insideSite } from '../../site/files/inside.js';
import { holdSite } from '../../site/holding/hold.js';
import type { HoldDocument } from './document.js';

export interface HoldOptions {
  /** Only files that changed since this commit. */
  readonly since?: string | undefined;
  /** Write nothing: neither what is there the first time, nor what became less. */
  readonly writesNothing?: boolean | undefined;
  /** Hears of each page that is read. */
  readonly onPage?: ((done: number, of: number) => void) | undefined;
}

/**
 * What is new in a site since its counts were written down, with the home that it should have had.
 * In: the site's folder. `acervus-hold.json` is written the first time, and whenever something became less. Throws `UsageError`.
 */
export async function hold(site: string, options: HoldOptions = {}): Promise<HoldDocument> {
  const found = await holdSite(site, options);
  const writes = found.text !== undefined && options.writesNothing !== true;
  if (writes) writeFileAtomic.sync(insideSite(site, HOLD_FILE), found.text!);
  return {
    format: 1,
    command: 'hold',
    first: found.isFirst,
    ...(options.since === undefined ? {} : { since: options.since }),
    files: found.files,
    written: writes,
    fresh: found.fresh.map(({ debt: { kind, item, place }, home }) => ({
      ...{ kind, item, place },
      home: {
        todo: home.todo,
        ...(home.place === undefined ? {} : { place: home.place }),
        ...(home.command === undefined ? {} : { command: home.command }),
      },
    })),
    held: DEBT_KINDS.map((kind) => ({
      kind,
      count: totalOf(found.held, kind),
      less: found.less.get(kind) ?? 0,
    })),
    budgets: found.spent.map(({ name, allowed, spent, isOver, at }) => ({
      ...{ name, allowed, spent, over: isOver },
      ...(at === undefined ? {} : { at }),
    })),
    exceptions: found.exceptions.map(({ place, reason }) => ({ place, reason })),
  };
}

/** Whether the gate is shut: something is new, or a budget is spent. */
export function isHeld({ fresh, budgets }: HoldDocument): boolean {
  return fresh.length === 0 && budgets.every(({ over }) => !over);
}
