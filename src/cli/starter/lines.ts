// How a starter is shown to a person: what is in it, what came and went, and what was left out.

import type { StarterDocument } from '../../commands/starter/document.js';
import { REASONS, STARTER_FILE } from '../../core/ask/starter/index.js';
import { showPlace } from '../../core/base/source.js';
import { onSite } from '../shared/moved-lines.js';
import { amber, clean, dim, heading, more, next, row } from '../shared/paper.js';

const FEW = 6;

const PARTS: Readonly<Record<StarterDocument['rules'][number]['part'], string>> = {
  values: 'values',
  elements: 'rules for elements',
  helpers: 'rules for helpers',
  media: 'rules for a medium',
};

const WHY: Readonly<Record<StarterDocument['left'][number]['reason'], string>> = {
  'few pages': 'on fewer pages than are asked for',
  nobody: 'used nowhere',
  'said so': `said so in ${STARTER_FILE}`,
  'the platform': 'for classes of this platform',
  'an id': 'for an id',
  'its place alone': 'within another rule, a scope or a layer',
};

export function starterLines(folder: string, document: StarterDocument, all: boolean): string[] {
  const { file, values, rules, left, revision, words } = document;
  const few = <T>(items: readonly T[]): readonly T[] => (all ? items : items.slice(0, FEW));
  const names = (items: readonly string[]): string =>
    dim(`${few(items).map(clean).join('  ')}${items.length > few(items).length ? '  …' : ''}`);
  const lines = [heading('Starter', clean(file))];
  if (values.length > 0)
    lines.push(row({ count: values.length, mark: 'made', text: `values  ${names(values)}` }));
  for (const part of ['elements', 'helpers', 'media'] as const) {
    const own = rules.filter((one) => one.part === part);
    if (own.length === 0) continue;
    lines.push(
      row({
        count: own.length,
        mark: 'made',
        text: `${PARTS[part]}  ${names(own.map(({ selectors }) => selectors[0]!))}`,
      }),
    );
  }
  if (rules.length + values.length + left.length === 0) {
    lines.push(row({ mark: 'needs', text: amber("no rule in a sheet that is the site's own") }));
    lines.push(next(`acervus survey${onSite(folder)}`, 'shows whose each sheet is, and how we know'));
    return lines;
  }
  if (revision !== undefined) {
    lines.push(heading('Revision', `against what was there; ${revision.same} the same`));
    for (const [mark, items] of [
      ['made', revision.came],
      ['taken', revision.went],
    ] as const) {
      for (const one of few(items)) lines.push(row({ mark, text: clean(one) }));
      if (items.length > few(items).length) lines.push(more(items.length - few(items).length, '--all'));
    }
  }
  if (left.length > 0) lines.push(heading('Left out', 'and why'));
  for (const reason of REASONS) {
    const own = left.filter((one) => one.reason === reason);
    if (own.length === 0) continue;
    lines.push(row({ count: own.length, mark: 'kept', text: WHY[reason], place: showPlace(own[0]!.place) }));
    lines.push(row({ text: `  ${names(own.map(({ name }) => name))}` }));
  }
  if (words !== undefined) {
    const own = Object.entries(words.words);
    lines.push(heading('Words', clean(words.folder)));
    for (const [name, word] of few(own)) lines.push(row({ text: `${amber(clean(word))}  ${clean(name)}` }));
    if (own.length > few(own).length) lines.push(more(own.length - few(own).length, '--all'));
  }
  lines.push(nextStep(folder, document));
  return lines;
}

/** Old helpers are offered for leaving out. */
function nextStep(folder: string, { left, words, wishes }: StarterDocument): string {
  const unworn = left.find(({ reason, name }) => reason === 'nobody' && name.startsWith('.'));
  if (unworn !== undefined && !wishes.leave.includes(unworn.name))
    return next(
      `acervus starter --leave ${clean(unworn.name)}${onSite(folder)}`,
      'if the house is done with it; --keep takes it along',
    );
  return words === undefined
    ? next(`acervus starter --words snippets${onSite(folder)}`, 'writes short words that call the styles up')
    : next(`acervus sampler${onSite(folder)}`, 'shows the styles themselves');
}
