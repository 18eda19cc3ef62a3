// Colours, fonts, sizes and their kind by name: out to design tokens, and in from them.

import { existsSync } from 'node:fs';
import path from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import { kindOf, planValues, readTokens, toTokens, type Values } from '../../core/ask/values/index.js';
import { UsageError } from '../../core/base/usage-error.js';
import type { Sheet } from '../../core/read/sheets/index.js';
import { openForReading } from '../../site/building/read.js';
import { readPlain } from '../../site/files/inside.js';
import { othersWith } from '../../site/files/unread.js';
import { carryOut, NOTHING_DONE, openForChange } from '../../site/ledger/carry-out.js';
import type { WriteOptions } from '../../site/ledger/write-options.js';
import { isReadIn, type Site } from '../../site/rendering/load.js';
import { variablesIn, writtenInSources } from '../../site/rendering/written-sheets.js';
import type { ValuesDocument } from './document.js';
import { nearIn, pairsIn, valuesIn } from './read.js';

export interface ValuesOptions extends WriteOptions {
  /** Write the named values as a token file. */
  readonly out?: string | undefined;
  /** Take values in from a token file. */
  readonly in?: string | undefined;
  /** Tell which colours stand on each other. */
  readonly pairs?: boolean | undefined;
  /** Hears what is done now. */
  readonly onStep?: ((step: string) => void) | undefined;
}

/**
 * The values of a theme; with `in`, custom properties are written and changed as a token file says, unless anything else would
 * look different. In: the site's folder. Throws `UsageError`.
 */
export async function values(site: string, options: ValuesOptions = {}): Promise<ValuesDocument> {
  const { onStep } = options;
  const { site: opened, sourceOf } =
    options.in === undefined
      ? await openForReading(site, onStep)
      : { site: openForChange(site), sourceOf: undefined };
  // What is taken in is written into plain sheets alone.
  const sources = options.in === undefined ? writtenInSources(opened) : new Map<string, Sheet>();
  const found = valuesIn(opened, sourceOf, sources);
  const document: ValuesDocument = {
    format: 1,
    command: 'values',
    named: [
      ...found.named.map(({ name, kind, value, place, note, sets, uses }) => ({
        ...{ name, value, place, uses },
        ...(note === undefined ? {} : { note }),
        ...(kind === undefined ? {} : { kind }),
        sets: sets.map(({ declaration: _declaration, ...one }) => one),
      })),
      ...variablesIn(sources).map((one) => {
        const kind = kindOf(one.name, one.value);
        return { ...one, ...(kind === undefined ? {} : { kind }), sets: [] };
      }),
    ],
    unnamed: found.unnamed.map(({ named, properties, ...one }) => ({
      ...one,
      properties: [...properties],
      ...(named === undefined ? {} : { named }),
    })),
    near: nearIn(opened, sourceOf).map(({ places, ...one }) => ({ ...one, place: places[0]! })),
    ...(options.pairs === true
      ? { pairs: pairsIn(opened, sourceOf).map(({ place, ...one }) => ({ ...one, ...(place && { place }) })) }
      : {}),
    ...NOTHING_DONE,
    files: [],
  };
  if (options.in !== undefined) {
    onStep?.('proving');
    return { ...document, ...takeIn(site, opened, found, options.in, options) };
  }
  return options.out === undefined ? document : { ...document, out: writeOut(options.out, found) };
}

/** A file of a person's own choosing: it may lie anywhere, and is not written over unless it holds tokens. */
function writeOut(file: string, { named }: Values): NonNullable<ValuesDocument['out']> {
  if (existsSync(file) && typeof readTokens(readPlain(file, file).toString('utf8')) === 'string')
    throw new UsageError('values-out', { file });
  if (!existsSync(path.dirname(path.resolve(file)))) throw new UsageError('values-folder', { file });
  const { tokens, left } = toTokens(named);
  writeFileAtomic.sync(file, `${JSON.stringify(tokens, null, 2)}\n`);
  return { file, tokens: named.length - left.length, left: [...left] };
}

function takeIn(
  folder: string,
  site: Site,
  { named }: Values,
  file: string,
  options: ValuesOptions,
): Pick<ValuesDocument, 'in' | 'written' | 'files' | 'patch'> {
  if (!existsSync(file)) throw new UsageError('visit-file', { file });
  const tokens = readTokens(readPlain(file, file).toString('utf8'));
  if (typeof tokens === 'string') throw new UsageError('values-tokens', { file, problem: tokens });
  const { model, shared, config, isPlatform } = site;
  const plan = planValues({
    model,
    shared: { path: shared, partNames: config.parts ?? {} },
    named,
    tokens,
    texts: {
      scripts: site.scriptTexts,
      othersWith: (name) => othersWith(name, site.files, (one) => isReadIn(site, one)),
      isOwn: (one) => !isPlatform(one) && (model.sources.sheets.has(one) || site.scriptTexts.has(one)),
    },
  });
  const isRefused = plan.strays.length > 0 || plan.refused.length > 0;
  const done = isRefused ? NOTHING_DONE : carryOut(folder, site, 'values', plan.edits, options);
  return {
    in: {
      file,
      changes: plan.changes.map(({ before, where, ...one }) => ({
        ...one,
        ...(where === undefined ? {} : { where }),
        ...(before === undefined ? {} : { before }),
      })),
      renamed: plan.renamed.map((one) => ({ ...one })),
      same: plan.same,
      unsaid: [...plan.unsaid],
      refused: plan.refused.map((one) => ({ ...one })),
      strays: plan.strays.length,
    },
    ...done,
    files: [...done.files],
  };
}
