// `acervus family`: rules for many sections, positions or states from one small table; and tables for what was copied.

import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { z } from 'zod';
import type { Edit } from '../../../core/edits/index.js';
import { findFamilies, planFamily, replaceCopies } from '../../../core/change/family/index.js';
import { differenceText, elementsIn } from '../../../core/proof/index.js';
import { placeIn, showPlace } from '../../../core/source.js';
import { familyText, parseFamily } from '../../../core/change/family/table-file.js';
import { UsageError } from '../../../core/usage-error.js';
import {
  carryOut,
  isPlatformIn,
  openForChange,
  strayLines,
  themesOf,
  type WriteOptions,
} from '../../shared/carry-out.js';
import { splitSite } from '../../shared/declarations.js';
import type { familyDocument } from '../../everyday-documents.js';
import { doneLine, movedLines, onSite } from '../../shared/moved-lines.js';
import {
  amber,
  clean,
  dim,
  grouped,
  heading,
  more,
  next,
  print,
  printJson,
  quoted,
  row,
  shortSelector,
  swatch,
} from '../../shared/paper.js';
import { Progress } from '../../shared/progress.js';

export interface FamilyOptions extends WriteOptions {
  readonly find?: boolean;
  readonly all?: boolean;
}

type FamilyJson = z.infer<typeof familyDocument>;

/** Out: 1 when it is refused or left something that was changed by hand, else 0. */
export function runFamily(words: readonly string[], options: FamilyOptions): number {
  const { rest, folder } = splitSite(words);
  if (options.find === true) return find(folder, options);
  const [file, extra] = rest;
  if (file === undefined || extra !== undefined)
    throw new UsageError(
      `${extra ?? 'family'}: name one table file, such as harbours.family.yaml; --find writes one for you`,
    );
  const progress = new Progress();
  progress.say('reading the site');
  const full = [path.resolve(folder, file), path.resolve(file)].find((one) => existsSync(one));
  if (full === undefined) throw new UsageError(`${file}: there is no such file, in the site or here`);
  const { table, into } = parseFamily(readFileSync(full, 'utf8'), file);
  const site = openForChange(folder);
  const target = into ?? site.shared;
  if (isPlatformIn(site)(target))
    throw new UsageError(`${file}: into: ${target} is a platform sheet; name one of your own`);
  if (into !== undefined && !site.model.sources.sheets.has(into))
    throw new UsageError(
      `${file}: into: no page uses a sheet ${into}; name one that pages link, or leave it out`,
    );
  progress.say('proving');
  const plan = planFamily(site.model, target, table, path.basename(file));
  const refused = plan.proof.strays.length > 0;
  const done = refused
    ? { files: [], written: false }
    : carryOut(folder, site, 'family', plan.edits, options);
  progress.end();
  const text = site.model.sources.sheets.get(target) ?? '';
  const { elements, pages } = elementsIn(plan.proof.moved);
  const document: FamilyJson = {
    format: 1,
    command: 'family',
    families: [
      {
        name: table.name,
        into: target,
        rows: [...table.rows].map(([name, values]) => ({ name, values: Object.fromEntries(values) })),
        rules: plan.written.map(({ selector, declarations }) => ({
          selector,
          declarations: [...declarations],
        })),
        same: plan.same,
        byHand: plan.byHand.map(({ what, selector, offset }) => ({
          what,
          selector,
          place: placeIn(target, text, offset),
        })),
        empty: [...plan.empty],
        refused,
      },
    ],
    moved: { elements, pages: [...pages] },
    ...done,
    strays: plan.proof.strays.length,
  };
  if (options.json === true) printJson(document);
  else if (done.patch !== undefined) process.stdout.write(done.patch);
  else {
    const lines = familyLines(document, options.all === true);
    if (refused)
      lines.push(
        heading('Refused', 'it would change what the table does not speak of; nothing was written'),
        ...strayLines(plan.proof.strays, options.all === true),
      );
    lines.push(
      next(
        refused
          ? `acervus reach ${quoted(table.where.replace('{row}', [...table.rows.keys()][0] ?? ''))}${onSite(folder)}`
          : `acervus undo${onSite(folder)}`,
        refused ? 'tells what has a say there' : 'takes it back, byte for byte',
      ),
    );
    print(lines);
  }
  return refused || plan.byHand.length > 0 ? 1 : 0;
}

function familyLines({ families: [family], moved, files }: FamilyJson, all: boolean): string[] {
  if (family === undefined) return [];
  const lines = [heading('Family', `${clean(family.name)}, into ${family.into}`)];
  const rows = all ? family.rows : family.rows.slice(0, 10);
  const width = Math.min(24, Math.max(...rows.map(({ name }) => name.length)));
  for (const { name, values } of rows) {
    const said = Object.entries(values).map(
      ([value, text]) => `${dim(clean(value))} ${swatch(text)}${clean(text)}`,
    );
    lines.push(row({ text: `${clean(name).padEnd(width)}  ${said.join('  ')}` }));
  }
  if (family.rows.length > rows.length) lines.push(more(family.rows.length - rows.length, 'rows, --all'));
  lines.push(heading('Rules'));
  lines.push(
    row({ count: family.rules.length, mark: 'made', text: 'written' }),
    row({ count: family.same, mark: 'kept', text: 'as they were' }),
  );
  for (const { selector, declarations } of all ? family.rules : family.rules.slice(-4))
    lines.push(row({ text: dim(`${shortSelector(selector)} { ${clean(declarations.join('; '))} }`) }));
  for (const { what, selector, place } of family.byHand)
    lines.push(
      row({
        mark: 'needs',
        text: amber(
          `${shortSelector(selector)} was ${what} by hand: left as it is; put it into the table, or outside the section`,
        ),
        place: showPlace(place),
      }),
    );
  for (const name of family.empty)
    lines.push(
      row({ mark: 'needs', text: amber(`${clean(name)}: no element of the site belongs to this row`) }),
    );
  lines.push(heading('Moved'), ...movedLines(moved, all));
  lines.push(heading('Proof'), doneLine('other elements changed', files));
  return lines;
}

/** Looks for families that were copied out by hand, and puts tables in their place. */
function find(folder: string, options: FamilyOptions): number {
  const site = openForChange(folder);
  const edits = new Map<string, readonly Edit[]>();
  const families: FamilyJson['families'] = [];
  const lines = [heading('Families copied by hand', folder)];
  for (const copied of findFamilies(site.model, themesOf(site))) {
    const { table, path: sheet } = copied;
    const file = freeFile(folder, site.model.sources.sheets, sheet, table.name);
    const {
      edits: own,
      differences,
      assumed,
      places,
    } = replaceCopies(site.model, copied, path.posix.basename(file));
    // A table that takes more lines than what it stands for helps nobody.
    if (places.after >= places.before) continue;
    const refused = differences.length > 0 || edits.has(sheet);
    if (!refused) {
      edits.set(sheet, own);
      edits.set(file, [{ start: 0, end: 0, text: familyText(table, sheet) }]);
    }
    families.push({
      name: table.name,
      into: sheet,
      table: file,
      rows: [...table.rows].map(([name, values]) => ({ name, values: Object.fromEntries(values) })),
      rules: [...table.rules].map(([selector, all]) => ({
        selector,
        declarations: [...all].map(([property, value]) => `${property}: ${value}`),
      })),
      same: 0,
      byHand: [],
      empty: [],
      places,
      refused,
    });
    lines.push(
      row({
        count: copied.rules.length,
        mark: refused ? 'needs' : 'taken',
        text: `rules copied out by hand, for ${grouped(table.rows.size)} rows: ${clean([...table.rows.keys()].slice(0, 6).join(', '))}`,
        place: sheet,
      }),
    );
    for (const [part, all] of table.rules)
      lines.push(
        row({
          text: dim(
            `${shortSelector(part)} { ${clean([...all].map(([property, value]) => `${property}: ${value}`).join('; '))} }`,
          ),
        }),
      );
    if (differences[0] !== undefined)
      lines.push(
        row({ mark: 'needs', text: amber(`left as it is: ${clean(differenceText(differences[0]))}`) }),
      );
    else if (refused)
      lines.push(
        row({
          mark: 'needs',
          text: amber('left for the next run: another family of this sheet was written now'),
        }),
      );
    else {
      if (assumed)
        lines.push(row({ mark: 'needs', text: dim('assumed: a component stands in one row at a time') }));
      const text = `declarations instead of ${grouped(places.before)}; the table is ${file}`;
      lines.push(row({ count: places.after, mark: 'made', text }));
    }
  }
  if (families.length === 0)
    lines.push(
      row({
        count: 0,
        text: 'found: no three classes of the theme have the same rules with other values, and enough of them',
      }),
    );
  const done = carryOut(folder, site, 'family --find', edits, options);
  const document: FamilyJson = {
    format: 1,
    command: 'family',
    families,
    moved: { elements: 0, pages: [] },
    ...done,
    strays: 0,
  };
  if (options.json === true) printJson(document);
  else if (done.patch !== undefined) process.stdout.write(done.patch);
  else {
    const written = families.find(({ refused }) => !refused);
    if (written !== undefined) {
      lines.push(
        heading('Proof'),
        row({ count: 0, text: 'differences on any element, in any medium and state' }),
      );
      lines.push(
        next(
          `acervus family ${written.table}${onSite(folder)}`,
          'writes the rules again, once you have added a row to the table',
        ),
      );
    } else lines.push(next(`acervus survey${onSite(folder)}`, 'shows what else is repeated'));
    print(lines);
  }
  return 0;
}

function freeFile(folder: string, sheets: ReadonlyMap<string, string>, sheet: string, name: string): string {
  const base = path.posix.join(path.posix.dirname(sheet), name);
  for (let n = 1; ; n++) {
    const file = `${base}${n === 1 ? '' : `-${n}`}.family.yaml`;
    if (!sheets.has(file) && !existsSync(path.join(folder, file))) return file;
  }
}
