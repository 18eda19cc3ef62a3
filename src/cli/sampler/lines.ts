// How a sampler is shown to a person: where the page is, and what it has.

import type { SamplerDocument } from '../../commands/sampler/document.js';
import { STYLE_KINDS } from '../../core/ask/sampler/index.js';
import { showPlace } from '../../core/base/source.js';
import { onSite } from '../shared/moved-lines.js';
import { amber, clean, dim, heading, more, next, row } from '../shared/paper.js';

const FEW = 6;

export function samplerLines(folder: string, document: SamplerDocument, all: boolean): string[] {
  const { styles, values, file } = document;
  const worn = styles.filter(({ elements }) => elements > 0);
  const few = <T>(items: readonly T[]): readonly T[] => (all ? items : items.slice(0, FEW));
  const lines = [
    heading('Sampler', clean(file)),
    row({ count: values, mark: 'kept', text: 'values with a name' }),
    ...STYLE_KINDS.flatMap((kind) => {
      const own = worn.filter((one) => one.kind === kind);
      const names = few(own).map(({ name }) => clean(name));
      const rest = own.length > names.length ? ' …' : '';
      return own.length === 0
        ? []
        : [row({ count: own.length, mark: 'kept', text: `${kind}  ${dim(`${names.join(' ')}${rest}`)}` })];
    }),
  ];
  if (styles.length === 0) {
    lines.push(row({ mark: 'needs', text: amber("no rule in a sheet that is the site's own") }));
    lines.push(next(`acervus survey${onSite(folder)}`, 'shows whose each sheet is, and how we know'));
    return lines;
  }
  const unworn = styles.filter(({ elements }) => elements === 0);
  if (unworn.length > 0) {
    lines.push(heading('Unused', 'on the pages that were read'));
    for (const { name, rules } of few(unworn))
      lines.push(row({ mark: 'needs', text: amber(clean(name)), place: showPlace(rules[0]!) }));
    if (unworn.length > few(unworn).length) lines.push(more(unworn.length - few(unworn).length, '--all'));
  }
  const near = styles.filter(({ nearly }) => nearly !== undefined);
  if (near.length > 0) {
    lines.push(heading('Similar style attributes', 'all of its declarations, or all but one'));
    for (const { name, nearly } of few(near))
      lines.push(
        row({
          count: nearly!.elements,
          mark: 'needs',
          text: `${clean(name)}${nearly!.lacks.length === 0 ? '' : dim(`  but ${clean(nearly!.lacks.join(', '))}`)}`,
          place: showPlace(nearly!.place),
        }),
      );
    if (near.length > few(near).length) lines.push(more(near.length - few(near).length, '--all'));
  }
  lines.push(
    near.length > 0
      ? next(`acervus draft${onSite(folder)}`, 'finds a home for these style attributes')
      : next(`acervus values${onSite(folder)} --pairs`, 'lists the colours that stand on each other'),
  );
  return lines;
}
