// Looks for families that were copied out by hand, and puts tables in their place.

import { existsSync } from 'node:fs';
import path from 'node:path';
import {
  type CopiedFamily,
  findFamilies as lookForFamilies,
  replaceCopies,
} from '../../core/change/family/index.js';
import { familyText } from '../../core/change/family/table-file.js';
import type { Edit } from '../../core/edit/text/index.js';
import { type Difference, differenceText } from '../../core/proof/index.js';
import { carryOut, openForChange } from '../../site/ledger/carry-out.js';
import type { WriteOptions } from '../../site/ledger/write-options.js';
import type { FamilyDocument } from './document.js';
import { rowsOf } from './family.js';

/** A family as it was found. @internal */
export interface FoundFamily {
  readonly entry: FamilyDocument['families'][number];
  /** How many rules were copied out. */
  readonly rules: number;
  /** Why its table was not put in their place, as a difference; `undefined` where it was, or waits for the next run. */
  readonly difference: string | undefined;
  /** Whether the proof takes it that a component stands in one row at a time. */
  readonly assumed: boolean;
}

/** @internal */
export interface FoundFamilies {
  readonly document: FamilyDocument;
  readonly found: readonly FoundFamily[];
}

/**
 * Finds families of rules that were copied out by hand, and puts a table in the place of each that nothing looks
 * different by. In: the site's folder. Throws `UsageError`.
 * @internal
 */
export function findFamilies(folder: string, options: WriteOptions = {}): FoundFamilies {
  const site = openForChange(folder);
  const { model, themes } = site;
  const edits = new Map<string, readonly Edit[]>();
  const found: FoundFamily[] = [];
  for (const copied of lookForFamilies(model, themes)) {
    const { table, path: sheet } = copied;
    const file = freeFile(folder, model.sources.sheets, sheet, table.name);
    const replaced = replaceCopies(model, copied, path.posix.basename(file));
    const { differences, assumed, places } = replaced;
    // A table that takes more lines than what it stands for helps nobody.
    if (places.after >= places.before) continue;
    const refused = differences.length > 0 || edits.has(sheet);
    if (!refused) {
      edits.set(sheet, replaced.edits);
      edits.set(file, [{ start: 0, end: 0, text: familyText(table, sheet) }]);
    }
    found.push({
      entry: entryOf(copied, { table: file, places, refused }),
      rules: copied.rules.length,
      difference: firstText(differences),
      assumed,
    });
  }
  const document: FamilyDocument = {
    format: 1,
    command: 'family',
    families: found.map(({ entry }) => entry),
    moved: { elements: 0, pages: [] },
    ...carryOut(folder, site, 'family --find', edits, options),
    strays: 0,
  };
  return { document, found };
}

function entryOf(
  { table, path: into }: CopiedFamily,
  outcome: Pick<FoundFamily['entry'], 'table' | 'places' | 'refused'>,
): FoundFamily['entry'] {
  const rules = [...table.rules].map(([selector, all]) => ({
    selector,
    declarations: [...all].map(([property, value]) => `${property}: ${value}`),
  }));
  const { table: file, places, refused } = outcome;
  return {
    ...{ name: table.name, into, table: file, rows: rowsOf(table), rules },
    ...{ same: 0, byHand: [], empty: [], places, refused },
  };
}

function firstText([first]: readonly Difference[]): string | undefined {
  return first === undefined ? undefined : differenceText(first);
}

function freeFile(folder: string, sheets: ReadonlyMap<string, string>, sheet: string, name: string): string {
  const base = path.posix.join(path.posix.dirname(sheet), name);
  for (let n = 1; ; n++) {
    const file = `${base}${n === 1 ? '' : `-${n}`}.family.yaml`;
    if (!sheets.has(file) && !existsSync(path.join(folder, file))) return file;
  }
}
