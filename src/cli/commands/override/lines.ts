// How overrides are shown: one that was written, and all that stand.

import { placeInSource } from '../../../core/cascade/index.js';
import type { OverrideState, Planned } from '../../../core/change/override/index.js';
import { placeIn, showPlace } from '../../../core/source.js';
import { strayLines } from '../../shared/carry-out.js';
import { doneLine, movedLines, onSite, plural } from '../../shared/moved-lines.js';
import type { OverrideJson } from './command.js';
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
} from '../../shared/paper.js';

export function overrideLines(folder: string, told: OverrideJson, result: Planned, all: boolean): string[] {
  const lines = [heading('Override', `${clean(told.selector ?? '')} { ${clean(told.asked.join('; '))} }`)];
  for (const { selector, medium, declarations, role, did } of told.rules) {
    const around = medium === undefined ? '' : dim(`${clean(medium)} `);
    const said = `${around}${shortSelector(selector)} { ${declarationsLine(declarations)} }`;
    const aside =
      role === 'kept'
        ? 'said again: it stays as it was in that state or medium'
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
  if (told.rules.length === 0)
    lines.push(
      row({ mark: 'kept', text: `all ${grouped(told.meant)} elements have it already: nothing to write` }),
    );
  if (told.important)
    lines.push(
      row({
        mark: 'needs',
        text: amber(
          '!important: what it must beat is !important or a style attribute, and nothing less wins',
        ),
      }),
    );
  lines.push(heading('Beats', 'elements on which each said it until now'));
  const beats = new Map<string, { count: number; text: string; place: string }>();
  for (const { one, elements } of result.beats) {
    const { origin, entry, important } = one;
    const from = origin.kind === 'rule' ? origin.rule.selector.text : origin.kind;
    const said = `${entry.declaration.property}: ${entry.declaration.value}${important ? ' !important' : ''}`;
    const place =
      origin.kind === 'rule'
        ? showPlace(placeInSource(origin.use.source, entry.declaration.range.start))
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
  if (beats.size === 0) lines.push(row({ count: 0, text: 'rules: nothing said it' }));
  lines.push(heading('Moved', `of ${grouped(told.meant)} that are meant`), ...movedLines(told.moved, all));
  if (told.refused) {
    lines.push(heading('Refused', 'it would reach further than asked, or not as asked; nothing was written'));
    lines.push(...strayLines(result.proof.strays, all));
    lines.push(
      ...result.unmet.slice(0, all ? undefined : 6).map((text) => row({ mark: 'broken', text: clean(text) })),
    );
    lines.push(
      next(`acervus reach ${quoted(told.selector ?? '')}${onSite(folder)}`, 'tells what has a say there'),
    );
    return lines;
  }
  lines.push(heading('Proof'), doneLine('other elements changed', told.files));
  lines.push(
    next(`acervus override --list${onSite(folder)}`, 'shows every override, and whether it is needed'),
  );
  return lines;
}

type OverrideEntry = NonNullable<OverrideJson['overrides']>[number];

export function stateJson(
  { rule, elements, pages, declarations, verdict }: OverrideState,
  file: string,
  text: string,
): OverrideEntry {
  return {
    selector: rule.selectors.at(-1) ?? '',
    ...(rule.conditions[0] === undefined
      ? {}
      : { medium: `@${rule.conditions[0].kind} ${rule.conditions[0].text}` }),
    place: placeIn(file, text, rule.selectorRange.start),
    elements,
    pages,
    verdict,
    declarations: declarations.map(
      ({ property, value, important, wins, waits, beaten, needed, beats, by }) => ({
        ...{ property, value, important, wins, waits, beaten, needed },
        beats: beats.map((one) => ({ ...one, place: { ...one.place } })),
        by: by.map((one) => ({ ...one, place: { ...one.place } })),
      }),
    ),
  };
}

const VERDICTS: Readonly<Record<OverrideEntry['verdict'], string>> = {
  needed: 'needed',
  'matches nothing': 'matches nothing on any page',
  beaten: 'beaten wherever it matches',
  'not needed': 'not needed: it says what would be so anyway',
};

export function listLines(
  folder: string,
  shared: string,
  overrides: readonly OverrideEntry[],
  all: boolean,
): string[] {
  const lines = [heading('Overrides', `in ${shared}: elements each reaches, and what it beats there`)];
  if (overrides.length === 0) lines.push(row({ count: 0, text: 'overrides stand in the part of that name' }));
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
      ? next(`acervus outlast --platform OLD=NEW${onSite(folder)}`, 'tells which of them survive an update')
      : next(
          `acervus override --drop ${quoted(idle.selector)}${onSite(folder)}`,
          'takes away what does nothing',
        ),
  );
  return lines;
}
