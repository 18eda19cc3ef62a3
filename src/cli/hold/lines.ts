// How the gate is shown to a person.

import type { HoldDocument } from '../../commands/hold/document.js';
import { BUDGETS, HOLD_FILE } from '../../core/ask/hold/index.js';
import { DIGIT, isMadeOf } from '../../core/base/characters.js';
import { showPlace } from '../../core/base/source.js';
import { onSite } from '../shared/moved-lines.js';
import { amber, clean, dim, grouped, heading, more, next, row } from '../shared/paper.js';

type Kind = HoldDocument['fresh'][number]['kind'];

/** One and many. */
const WORDS: Readonly<Record<Kind, readonly [string, string]>> = {
  'inline style': ['style attribute', 'style attributes'],
  'style block': ['declaration in a style block', 'declarations in style blocks'],
  'old attribute': ['old attribute', 'old attributes'],
  'repeated declaration': ['declaration repeated in a sheet', 'declarations repeated in sheets'],
  'class without a rule': ['class without a rule', 'classes without a rule'],
  'unnamed colour': ['colour without a name', 'colours without a name'],
  importance: ['!important', 'times !important'],
  'id in a selector': ['id in a selector', 'ids in selectors'],
};

export function holdLines(folder: string, document: HoldDocument, all: boolean): string[] {
  const { fresh, held, budgets, exceptions, first, since } = document;
  const lines = [heading('Hold', since === undefined ? folder : `${folder}, what changed since ${since}`)];
  if (first) lines.push(row({ text: `recorded in ${HOLD_FILE}: from now on it may only shrink` }));
  for (const { kind, count, less } of held.filter((one) => one.count + one.less > 0))
    lines.push(
      row({
        count,
        mark: less > 0 ? 'taken' : 'kept',
        text: `${WORDS[kind][count === 1 ? 0 : 1]}${less > 0 ? `  ${dim(`${grouped(less)} fewer than before`)}` : ''}`,
      }),
    );
  const shown = all ? fresh : fresh.slice(0, 12);
  if (fresh.length > 0) lines.push(heading('New', 'with the home that each should have had'));
  for (const { kind, item, place, home } of shown) {
    lines.push(
      row({ mark: 'broken', text: `${WORDS[kind][0]}  ${clean(short(item))}`, place: showPlace(place) }),
      row({
        text: `  ${amber(clean(home.todo))}${home.command === undefined ? '' : `  ${dim(clean(home.command))}`}`,
        place: home.place === undefined ? '' : showPlace(home.place),
      }),
    );
  }
  if (fresh.length > shown.length) lines.push(more(fresh.length - shown.length, '--all'));
  if (budgets.length > 0) lines.push(heading('Budgets', 'what there is, and what there may be'));
  for (const { name, allowed, spent, over, at } of budgets)
    lines.push(
      row({
        count: isMadeOf(spent, DIGIT) ? Number(spent) : spent,
        mark: over ? 'broken' : 'kept',
        text: `${BUDGETS[name].words}  ${dim(`at most ${allowed}`)}`,
        place: over && at !== undefined ? clean(at) : '',
      }),
    );
  if (exceptions.length > 0)
    lines.push(
      heading('Excepted', 'by comments in the source'),
      row({
        count: exceptions.length,
        mark: 'kept',
        text: `places  ${dim('acervus hold --exceptions lists them')}`,
      }),
    );
  lines.push(nextStep(folder, document));
  return lines;
}

function short(text: string): string {
  return text.length > 90 ? `${text.slice(0, 88)} …` : text;
}

function nextStep(folder: string, { fresh, first, written, held }: HoldDocument): string {
  if (first) return next(`git add ${HOLD_FILE}`, 'so that everybody is held to the same');
  if (fresh.length > 0)
    return next(
      `acervus draft${onSite(folder)}`,
      'proposes a home, proven to change nothing; or except it with a reason',
    );
  if (written && held.some(({ less }) => less > 0))
    return next(`git add ${HOLD_FILE}`, 'it shrank: keep it so');
  return next(`acervus survey${onSite(folder)}`, 'shows what is still there');
}

export function exceptionLines(folder: string, { exceptions }: HoldDocument): string[] {
  const lines = [heading('Excepted', 'by comments in the source, each with its reason')];
  for (const { place, reason } of exceptions)
    lines.push(
      reason === ''
        ? row({ mark: 'needs', text: amber('has no reason, so it excepts nothing'), place: showPlace(place) })
        : row({ mark: 'kept', text: clean(reason), place: showPlace(place) }),
    );
  if (exceptions.length === 0) lines.push(row({ count: 0, text: 'exceptions' }));
  lines.push(next(`acervus hold${onSite(folder)}`, 'shows what is new'));
  return lines;
}
