// Rules for many sections, positions or states from one small table.

import { existsSync } from 'node:fs';
import path from 'node:path';
import { placeIn } from '../../core/base/source.js';
import { UsageError } from '../../core/base/usage-error.js';
import { type FamilyTable, planFamily } from '../../core/change/family/index.js';
import { parseFamily } from '../../core/change/family/table-file.js';
import { groupUnmoved, type Unmoved } from '../../core/change/restyle/index.js';
import { elementsIn, type IntentProof, isAsWished } from '../../core/proof/index.js';
import { readPlain } from '../../site/files/inside.js';
import { carryOut, NOTHING_DONE, openForChange } from '../../site/ledger/carry-out.js';
import type { WriteOptions } from '../../site/ledger/write-options.js';
import type { FamilyDocument } from './document.js';

export interface FamilyOptions extends WriteOptions {
  /** Hears what is done now. */
  readonly onStep?: ((step: string) => void) | undefined;
}

/** @internal */
export interface FamilyResult {
  readonly document: FamilyDocument;
  readonly table: FamilyTable;
  readonly proof: IntentProof;
  readonly unmoved: readonly Unmoved[];
}

/**
 * Writes the rules of a table; nothing where an element that the table does not mention would look different.
 * In: the site's folder; path of the table file, in the site or here. Throws `UsageError`.
 * @internal
 */
export function family(folder: string, file: string, options: FamilyOptions = {}): FamilyResult {
  const full = [path.resolve(folder, file), path.resolve(file)].find((one) => existsSync(one));
  if (full === undefined) throw new UsageError('family-missing', { file });
  const { table, into } = parseFamily(readPlain(full, file).toString('utf8'), file);
  const site = openForChange(folder);
  const sheet = into ?? site.shared;
  if (site.sheets.some((one) => one.path === sheet && one.owner === 'platform'))
    throw new UsageError('family-into-platform', { file, sheet });
  if (into !== undefined && !site.model.sources.sheets.has(into))
    throw new UsageError('family-into-unused', { file, sheet: into });
  options.onStep?.('proving');
  const plan = planFamily(site.model, sheet, table, path.basename(file));
  if (plan.isOpen) throw new UsageError('sheet-open', { sheet });
  const { proof } = plan;
  const { strays, moved } = proof;
  const refused = !isAsWished(proof);
  const done = refused ? NOTHING_DONE : carryOut(folder, site, 'family', plan.edits, options);
  const text = site.model.sources.sheets.get(sheet) ?? '';
  const document: FamilyDocument = {
    format: 1,
    command: 'family',
    families: [
      {
        name: table.name,
        into: sheet,
        rows: rowsOf(table),
        rules: plan.written.map(({ selector, declarations }) => ({ selector, declarations })),
        same: plan.same,
        byHand: plan.byHand.map(({ what, selector, offset }) => ({
          what,
          selector,
          place: placeIn(sheet, text, offset),
        })),
        empty: plan.empty,
        refused,
      },
    ],
    moved: elementsIn(moved),
    ...done,
    strays: strays.length + proof.wrong.length,
  };
  const edited = new Set(plan.edits.keys());
  return { document, table, proof, unmoved: groupUnmoved(proof.kept, edited, site.isPlatform) };
}

/** The rows of a table with their values, as its document tells them. @internal */
export function rowsOf({ rows }: FamilyTable): FamilyDocument['families'][number]['rows'] {
  return [...rows].map(([name, values]) => ({ name, values: Object.fromEntries(values) }));
}
