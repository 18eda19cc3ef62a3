// How overrides are shown: one that was written, one that was taken away, and all that stand.

import type { OverrideDocument } from '../../commands/override/document.js';
import type { DropResult, OverrideResult } from '../../commands/override/override.js';
import { placeIn, showPlace } from '../../core/base/source.js';
import { placeInSource } from '../../core/cascade/index.js';
import { changeText } from '../../core/edit/text/index.js';
import { assumptionLines, assumptionsOfChange } from '../shared/assumption-lines.js';
import { doneLine, movedLines, onSite, plural } from '../shared/moved-lines.js';
import {
  amber,
  clean,
  declarationsLine,
  dim,
  grouped,
  heading,
  more,
  next,
  quoted,
  row,
  shortSelector,
} from '../shared/paper.js';
import { strayLines } from '../shared/stray-lines.js';

export function overrideLines(folder: string, { document, result }: OverrideResult, all: boolean): string[] {
  const lines = [
    heading('Override', `${clean(document.selector ?? '')} { ${clean(document.asked.join('; '))} }`),
  ];
  for (const { selector, medium, declarations, role, did } of document.rules) {
    const around = medium === undefined ? '' : dim(`${clean(medium)} `);
    const said = `${around}${shortSelector(selector)} { ${declarationsLine(declarations)} }`;
    const aside =
      role === 'kept'
        ? 'written again: it stays as it was in that state or medium'
        : did === 'written'
          ? 'the weakest selector that wins'
          : `there already, ${did}`;
    lines.push(
      row({
        mark: role === 'kept' ? 'kept' : 'made',
        text: `${said}  ${dim(aside)}`,
        place: result.paths.length === 1 ? result.paths[0]! : `${result.paths.length} pages`,
      }),
    );
  }
  if (document.rules.length === 0)
    lines.push(
      row({
        mark: 'kept',
        text: `all ${grouped(document.meant)} elements have it already: nothing to write`,
      }),
    );
  if (document.important)
    lines.push(
      row({
        mark: 'needs',
        text: amber(
          '!important: what it must beat is !important or a style attribute, and nothing less wins',
        ),
      }),
    );
  lines.push(heading('Beats', 'elements on which each has won until now'));
  const beats = new Map<string, { count: number; text: string; place: string }>();
  for (const { one, elements } of result.beats) {
    const { writtenIn, entry, important } = one;
    const from = writtenIn.kind === 'rule' ? writtenIn.rule.selector.text : writtenIn.kind;
    const said = `${entry.declaration.property}: ${entry.declaration.value}${important ? ' !important' : ''}`;
    const place =
      writtenIn.kind === 'rule'
        ? showPlace(placeInSource(writtenIn.use.source, entry.declaration.range.start))
        : '';
    const key = `${from} ${said} ${place}`;
    beats.set(key, {
      count: Math.max(elements, beats.get(key)?.count ?? 0),
      text: `${declarationsLine([said])}  ${dim(clean(from))}`,
      place,
    });
  }
  const shown = all ? [...beats.values()] : [...beats.values()].slice(0, 5);
  for (const { count, text, place } of shown) lines.push(row({ count, mark: 'taken', text, place }));
  if (beats.size > shown.length) lines.push(more(beats.size - shown.length, '--all'));
  if (beats.size === 0) lines.push(row({ count: 0, text: 'rules: nothing declared it' }));
  lines.push(
    heading('Moved', `of ${grouped(document.meant)} that were meant`),
    ...movedLines(document.moved, all),
  );
  if (document.refused) {
    lines.push(heading('Refused', 'it would reach further than asked, or not as asked; nothing was written'));
    lines.push(...strayLines({ strays: result.proof.strays, wrong: result.unmet }, all));
    lines.push(
      next(
        `acervus reach ${quoted(document.selector ?? '')}${onSite(folder)}`,
        'shows which rules compete there',
      ),
    );
    return lines;
  }
  lines.push(...assumptionLines(assumptionsOfChange(result.proof.proof.assumptions), all));
  lines.push(heading('Proof'), doneLine('other elements changed', document.files));
  lines.push(
    next(`acervus override --list${onSite(folder)}`, 'shows every override, and whether it is needed'),
  );
  return lines;
}

type OverrideEntry = NonNullable<OverrideDocument['overrides']>[number];

const VERDICTS: Readonly<Record<OverrideEntry['verdict'], string>> = {
  needed: 'needed',
  'matches nothing': 'matches nothing on any page',
  beaten: 'beaten wherever it matches',
  'not needed': 'not needed: it declares what would win anyway',
};

export function listLines(
  folder: string,
  { overrides = [] }: OverrideDocument,
  shared: string,
  all: boolean,
): string[] {
  const lines = [heading('Overrides', `in ${shared}: elements that each matches, and what it beats there`)];
  if (overrides.length === 0) lines.push(row({ count: 0, text: 'overrides in the section of that name' }));
  for (const { selector, medium, place, elements, pages, verdict, declarations } of overrides) {
    const around = medium === undefined ? '' : dim(`${clean(medium)} `);
    const reach = plural(pages, 'page');
    lines.push(
      row({
        count: elements,
        mark: verdict === 'needed' ? 'kept' : 'needs',
        text: `${around}${shortSelector(selector)}  ${verdict === 'needed' ? dim(`needed, on ${reach}`) : amber(VERDICTS[verdict])}`,
        place: showPlace(place),
      }),
    );
    for (const one of declarations) {
      const said = `${one.property}: ${one.value}${one.important ? ' !important' : ''}`;
      lines.push(
        row({
          count: one.wins,
          text: `  ${declarationsLine([said])}${one.waits > 0 ? dim(`  in some state or medium on ${grouped(one.waits)}`) : ''}`,
        }),
      );
      for (const { selector: from, value, elements: on, place: where } of one.beats.slice(
        0,
        all ? undefined : 2,
      ))
        lines.push(
          row({
            count: on,
            mark: 'taken',
            text: `  ${dim(`${clean(value)}  ${shortSelector(from)}`)}`,
            place: where.path === '' ? '' : showPlace(where),
          }),
        );
      for (const { selector: from, value, elements: on, place: where } of one.by.slice(
        0,
        all ? undefined : 2,
      ))
        lines.push(
          row({
            count: on,
            mark: 'needs',
            text: `  ${amber('beaten by')} ${clean(value)}  ${shortSelector(from)}`,
            place: where.path === '' ? '' : showPlace(where),
          }),
        );
    }
  }
  const idle = overrides.find(({ verdict }) => verdict !== 'needed');
  lines.push(
    idle === undefined
      ? next(`acervus outlast --platform OLD=NEW${onSite(folder)}`, 'shows which of them survive an update')
      : next(
          `acervus override --drop ${quoted(idle.selector)}${onSite(folder)}`,
          'takes away what does nothing',
        ),
  );
  return lines;
}

export function dropLines(folder: string, { document, dropped, sheet }: DropResult, all: boolean): string[] {
  const { selector = '', moved, refused } = document;
  const lines = [heading('Override', `${clean(selector)} taken away`)];
  for (const rule of dropped.rules)
    lines.push(
      row({
        mark: 'taken',
        text: clean(`${rule.selector} { ${rule.declarations.map(changeText).join('; ')} }`),
        place: showPlace(placeIn(sheet.path, sheet.text, rule.selectorRange.start)),
      }),
    );
  lines.push(
    row({
      count: moved.elements,
      mark: 'made',
      text: `${moved.elements === 1 ? 'element looks' : 'elements look'} again as without it, on ${plural(moved.pages.length, 'page')}`,
    }),
  );
  if (refused)
    lines.push(
      heading('Refused', 'it would change other elements; nothing was written'),
      ...strayLines(dropped.proof, all),
    );
  lines.push(next(`acervus undo${onSite(folder)}`, 'puts it back'));
  return lines;
}
