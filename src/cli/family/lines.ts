// How families are shown: one that was written from its table, and those that were found copied out by hand.

import type { FamilyDocument } from '../../commands/family/document.js';
import type { FamilyResult } from '../../commands/family/family.js';
import type { FoundFamilies, FoundFamily } from '../../commands/family/find.js';
import { showPlace } from '../../core/base/source.js';
import { isAsWished } from '../../core/proof/index.js';
import { doneLine, movedLines, onSite } from '../shared/moved-lines.js';
import {
  amber,
  clean,
  dim,
  grouped,
  heading,
  more,
  next,
  quoted,
  row,
  shortSelector,
  swatch,
} from '../shared/paper.js';
import { strayLines } from '../shared/stray-lines.js';
import { unmovedLines } from '../shared/unmoved-lines.js';

export function familyLines(folder: string, made: FamilyResult, all: boolean): string[] {
  const lines = writtenLines(made.document, all);
  const refused = !isAsWished(made.proof);
  if (made.unmoved.length > 0) lines.push(...unmovedLines(made.unmoved));
  if (refused)
    lines.push(
      heading('Refused', 'it would change elements that the table does not name; nothing was written'),
      ...strayLines(made.proof, all),
    );
  const [first = ''] = made.table.rows.keys();
  lines.push(
    refused
      ? next(
          `acervus reach ${quoted(made.table.where.replace('{row}', first))}${onSite(folder)}`,
          'shows which rules compete there',
        )
      : next(`acervus undo${onSite(folder)}`, 'takes it back, byte for byte'),
  );
  return lines;
}

function writtenLines({ families: [family], moved, files }: FamilyDocument, all: boolean): string[] {
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
  if (family.rows.length > rows.length) lines.push(more(family.rows.length - rows.length, '--all', 'rows'));
  lines.push(heading('Rules'));
  lines.push(
    row({ count: family.rules.length, mark: 'made', text: 'written' }),
    row({ count: family.same, mark: 'kept', text: 'unchanged' }),
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

export function foundLines(folder: string, { found }: FoundFamilies): string[] {
  const lines = [heading('Families copied by hand', folder), ...found.flatMap(foundFamilyLines)];
  if (found.length === 0)
    lines.push(
      row({
        count: 0,
        text: 'found: no three classes of the theme have the same rules with other values, and enough of them',
      }),
    );
  const written = found.find(({ entry }) => !entry.refused)?.entry;
  if (written === undefined)
    lines.push(next(`acervus survey${onSite(folder)}`, 'shows what else is repeated'));
  else
    lines.push(
      heading('Proof'),
      row({ count: 0, text: 'differences on any element, in any medium and state' }),
      next(
        `acervus family ${written.table}${onSite(folder)}`,
        'writes the rules again, once you have added a row to the table',
      ),
    );
  return lines;
}

function foundFamilyLines({ entry, rules, difference, assumed }: FoundFamily): string[] {
  const { rows, into, table, places = { before: 0, after: 0 }, refused } = entry;
  const names = rows.slice(0, 6).map(({ name }) => name);
  const lines = [
    row({
      count: rules,
      mark: refused ? 'needs' : 'taken',
      text: `rules copied out by hand, for ${grouped(rows.length)} rows: ${clean(names.join(', '))}`,
      place: into,
    }),
    ...entry.rules.map(({ selector, declarations }) =>
      row({ text: dim(`${shortSelector(selector)} { ${clean(declarations.join('; '))} }`) }),
    ),
  ];
  if (difference !== undefined)
    return [...lines, row({ mark: 'needs', text: amber(`left as it is: ${clean(difference)}`) })];
  if (refused)
    return [
      ...lines,
      row({
        mark: 'needs',
        text: amber('left for the next run: another family of this sheet was written now'),
      }),
    ];
  if (assumed)
    lines.push(row({ mark: 'needs', text: dim('assumed: a component stands in one row at a time') }));
  const text = `declarations instead of ${grouped(places.before)}; the table is ${table}`;
  return [...lines, row({ count: places.after, mark: 'made', text })];
}
