// Names for values: what a colour is called, how large a length is.

import { withoutEnd } from '../base/phrases.js';
import type { Convention } from './convention.js';
import { colourWord } from './traits.js';

/** In: the kind of value, its normal form; names in use. Out: the name with its two dashes, unique and stable. */
export function nameValue(
  kind: keyof Convention['stems'],
  form: string,
  convention: Convention,
  used: Set<string>,
): string {
  const stem = convention.stems[kind];
  const word = wordFor(kind, form);
  const base = [stem, word].filter((part) => part !== '').join('-') || kind;
  const prefix = convention.prefix.replace(/[-_]$/, '');
  for (let number = 1; ; number++) {
    const words = [prefix, base, number === 1 ? '' : String(number)].filter((part) => part !== '');
    const name = `--${words.join('-')}`;
    if (used.has(name)) continue;
    used.add(name);
    return name;
  }
}

function wordFor(kind: keyof Convention['stems'], form: string): string {
  if (kind === 'colour') return `${colourWord(form) ?? 'colour'}${form.includes('/') ? '-clear' : ''}`;
  if (kind === 'font') return /[a-z][a-z0-9]*/i.exec(form)?.[0].toLowerCase() ?? '';
  if (kind === 'shadow') return '';
  return form
    .split(' ')
    .map((part) =>
      withoutEnd(part, 'px')
        .replace('%', 'pc')
        .replace(/[^a-z0-9]+/gi, '_'),
    )
    .join('-');
}
