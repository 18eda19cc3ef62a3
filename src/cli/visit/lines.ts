// How a visit is shown to a person.

import type { VisitDocument } from '../../commands/visit/document.js';
import { boxName } from '../../core/ask/visit/index.js';
import { onSite } from '../shared/moved-lines.js';
import { amber, asTyped, clean, dim, grouped, heading, more, next, row } from '../shared/paper.js';

const FEW = 6;

export function visitLines(document: VisitDocument, all: boolean): string[] {
  const { folder, changes, failed, boxes, likely, madeUp } = document;
  const few = <T>(items: readonly T[]): readonly T[] => (all ? items : items.slice(0, FEW));
  const rest = (items: readonly unknown[]): string[] =>
    all || items.length <= FEW ? [] : [more(items.length - FEW, '--all')];
  const lines = [heading('Visit', `${clean(document.origin)} into ${clean(folder)}`)];
  const unchanged = document.unchanged > 0 ? `  ${dim(`${grouped(document.unchanged)} as they were`)}` : '';
  lines.push(row({ count: document.pages, mark: 'kept', text: `pages${unchanged}` }));
  lines.push(
    row({ count: document.sheets, mark: 'kept', text: 'sheets' }),
    row({ count: document.scripts, mark: 'kept', text: 'scripts' }),
  );
  if (document.others > 0)
    lines.push(row({ count: document.others, mark: 'kept', text: 'fonts and pictures' }));
  lines.push(
    row({
      count: document.requests,
      text: dim(`requests, ${(document.bytes / 1_000_000).toFixed(1)} MB`),
    }),
  );
  if (document.left > 0)
    lines.push(
      row({
        count: document.left,
        mark: 'needs',
        text: amber('pages found and not visited: raise --pages, or narrow with --match and --skip'),
      }),
    );
  if (document.barred > 0)
    lines.push(row({ count: document.barred, text: dim('pages that robots.txt asks to leave alone') }));
  if (document.stopped !== undefined)
    lines.push(
      row({
        mark: 'needs',
        text: amber(`stopped: ${document.stopped} are used up; "acervus visit ${clean(folder)}" asks again`),
      }),
    );
  if (failed.length > 0) {
    lines.push(heading('Not had'));
    for (const { address, why } of few(failed))
      lines.push(row({ mark: 'broken', text: `${clean(address)}  ${dim(clean(why))}` }));
    lines.push(...rest(failed));
  }
  if (changes !== undefined) lines.push(...changeLines(changes, few, rest));
  if (boxes.length > 0) {
    lines.push(heading('Your boxes', 'what override, restyle and family write into'));
    for (const box of few(boxes)) lines.push(boxLine(box));
    lines.push(...rest(boxes));
  }
  if (document.workList !== undefined) {
    const { file, open, done } = document.workList;
    lines.push(heading('Work list', 'what only the editor of the platform can do'));
    lines.push(row({ count: done, mark: 'kept', text: 'done' }));
    lines.push(row({ count: open, mark: open > 0 ? 'needs' : 'kept', text: 'to do', place: file }));
  }
  if (likely.length > 0) {
    lines.push(heading('Which is yours?', 'name the box that holds your own CSS'));
    for (const { box, why } of few(likely))
      lines.push(row({ mark: 'needs', text: `${clean(boxName(box))}  ${dim(why)}` }));
  }
  if (madeUp.count > 0)
    lines.push(
      heading('Made up by a build', 'names that may be others with the next one: better not to hold on to'),
      row({ count: madeUp.count, text: clean(few(madeUp.some).join('  ')) }),
    );
  lines.push(nextStep(document));
  return lines;
}

function changeLines(
  { pages, sheets, namesGone, namesNew }: NonNullable<VisitDocument['changes']>,
  few: (items: readonly string[]) => readonly string[],
  rest: (items: readonly unknown[]) => string[],
): string[] {
  const lines = [heading('Since the visit before')];
  const many = (count: number, mark: 'made' | 'taken' | 'kept', text: string): void => {
    if (count > 0) lines.push(row({ count, mark, text }));
  };
  many(pages.new.length, 'made', 'pages are new');
  many(pages.gone.length, 'taken', `pages are gone  ${dim(clean(few(pages.gone).join('  ')))}`);
  many(pages.changed.length, 'kept', `pages changed  ${dim(clean(few(pages.changed).join('  ')))}`);
  many(sheets.new.length, 'made', `sheets are new  ${dim(clean(few(sheets.new).join('  ')))}`);
  many(sheets.gone.length, 'taken', `sheets are gone  ${dim(clean(few(sheets.gone).join('  ')))}`);
  many(sheets.changed.length, 'kept', `sheets changed  ${dim(clean(few(sheets.changed).join('  ')))}`);
  many(namesNew, 'made', 'classes and ids are new');
  many(namesGone.length, 'taken', `classes and ids are gone  ${dim(clean(few(namesGone).join('  ')))}`);
  if (lines.length === 1) lines.push(row({ mark: 'kept', text: 'nothing changed' }));
  return [...lines, ...rest([])];
}

const STATES: Readonly<Record<VisitDocument['boxes'][number]['state'], string>> = {
  'as on the site': '',
  waits: 'changed here, not pasted yet',
  pasted: 'what you changed is on the site now',
  both: 'changed here and on the site: yours is kept, look at both',
};

function boxLine({ file, pages, state, differs }: VisitDocument['boxes'][number]): string {
  const needs = state === 'waits' || state === 'both';
  const said = STATES[state] === '' ? '' : `  ${needs ? amber(STATES[state]) : dim(STATES[state])}`;
  const odd = differs > 0 ? `  ${amber(`differs on ${grouped(differs)}`)}` : '';
  return row({
    count: pages,
    mark: needs ? 'needs' : 'kept',
    text: `${pages === 1 ? 'page' : 'pages'}${said}${odd}`,
    place: file,
  });
}

function nextStep({ folder, from, boxes, likely }: VisitDocument): string {
  const [first] = likely;
  if (boxes.length === 0 && first !== undefined)
    return next(
      `acervus visit ${asTyped(from)} ${asTyped(folder)} ${'page' in first.box ? '--own-page' : '--own'} ${asTyped(boxName(first.box))}`,
      'names the box that is yours; without one, nothing can be changed',
    );
  if (boxes.some(({ state }) => state === 'waits'))
    return next(`acervus prove --live${onSite(folder)}`, 'tells when what you paste looks as planned');
  return next(`acervus explain <page> <selector>${onSite(folder)}`, 'tells what styles one element, and why');
}
