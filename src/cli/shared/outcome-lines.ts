// What `draft` and `adopt` say alike: the styles by home, and what stays with its reason.

import type { AdoptionReport, Draft, DraftStyle } from '../../core/draft/index.js';
import { count } from '../../core/proof/index.js';
import type { Frozen } from './document-parts.js';
import { clean, declarationsLine, dim, heading, more, row, swatch } from './paper.js';

const HOME_WORDS: Readonly<Record<DraftStyle['home'], string>> = {
  'already given': 'is already given',
  'existing class': 'by a class that exists',
  'existing hooks': 'by selectors that exist',
  position: 'by position',
  'new class': 'by a new class',
  'from style blocks': 'out of style blocks',
  'grouped rule': 'in one rule',
  'wider rule': 'by one selector for all',
  'joined rule': 'with the rest of its rule',
  'counted class': 'counted in place of a class',
  'idle class': 'a class no rule asks for',
  'values by section': 'once, over a value for each section',
  'class for ids': 'by a new class, in place of ids',
};

/** How many of a long list are shown at first: an account of a draft fits a screen. */
const STYLES = 5;
const TOKENS = 5;
const REASONS = 5;

/** One entry per style, strongest saving first. */
export function styleLines(styles: Frozen<readonly DraftStyle[]>, all: boolean): string[] {
  const lines: string[] = [];
  const taken = styles.filter(({ take }) => take);
  for (const style of all ? taken : taken.slice(0, STYLES)) {
    const given = style.home === 'already given';
    const name = style.selector ?? (style.name === undefined ? '' : `.${style.name}`);
    const declarations = style.declarations
      .replace(/\/\*.*?\*\/\n/g, '')
      .split(/;\n/)
      .filter((one) => one !== '');
    lines.push(
      row({
        count: style.saves?.places ?? 0,
        mark: given ? 'taken' : style.home === 'existing class' ? 'kept' : 'made',
        text: `${name === '' ? '' : `${clean(shortList(name))}  `}${declarationsLine(declarations)}`,
        place: HOME_WORDS[style.home],
      }),
    );
    const about = [
      whereText(style),
      style.beats === undefined ? undefined : `to win over ${style.beats}`,
      style.instead,
    ];
    lines.push(row({ text: dim(`  ${about.filter((one) => one !== undefined).join('; ')}`) }));
  }
  if (!all && taken.length > STYLES) lines.push(more(taken.length - STYLES, '--all'));
  return lines;
}

function whereText({ elements, pages, 'out of': from, 'written into': into }: Frozen<DraftStyle>): string {
  if (elements === undefined || pages === undefined) return from ?? '';
  return `${count(elements, 'element')} on ${count(pages, 'page')}, out of ${from}${into === undefined ? '' : `; into ${into}`}`;
}

/** Of a long list of selectors the first three. */
function shortList(selectors: string): string {
  const parts = selectors.split(', ');
  return parts.length <= 4 ? selectors : `${parts.slice(0, 3).join(', ')} and ${parts.length - 3} more`;
}

export function tokenLines(tokens: Frozen<AdoptionReport['tokens']>, all: boolean): string[] {
  if (tokens.length === 0) return [];
  const lines = [heading('Names for values', 'places in the sheets that would say each')];
  for (const { name, value, uses, kind } of all ? tokens : tokens.slice(0, TOKENS)) {
    const shown = `${kind === 'colour' ? swatch(value) : ''}${clean(value)}`;
    lines.push(row({ count: uses, mark: 'made', text: `${name}  ${shown}` }));
  }
  if (!all && tokens.length > TOKENS) lines.push(more(tokens.length - TOKENS, '--all'));
  return lines;
}

export function keptLines(kept: Frozen<AdoptionReport['kept']>, all: boolean): string[] {
  if (kept.length === 0) return [];
  const lines = [heading('Stays where it is', 'declarations and old attributes, and why')];
  for (const { reason, declarations, places } of all ? kept : kept.slice(0, REASONS)) {
    lines.push(row({ count: declarations, mark: 'kept', text: clean(reason), place: places[0] ?? '' }));
    if (all) for (const other of places.slice(1)) lines.push(row({ text: '', place: other }));
  }
  if (!all && kept.length > REASONS) lines.push(more(kept.length - REASONS, '--all'));
  return lines;
}

/** Upkeep and size, before and after. */
export function sumLines(
  { upkeep, size, changed }: Pick<AdoptionReport, 'upkeep' | 'size' | 'changed'>,
  done: boolean,
): string[] {
  const less = upkeep.now === 0 ? 0 : Math.round((1 - upkeep.after / upkeep.now) * 100);
  const bytes = size.now - size.after;
  const lines = [
    row({ count: upkeep.now, text: `places ${done ? 'held' : 'hold'} a declaration or an old attribute` }),
    row({
      count: upkeep.after,
      mark: 'made',
      text: `${done ? 'are' : 'would be'} left: ${less}% less to keep up`,
    }),
    row({
      count: Math.abs(bytes),
      mark: bytes >= 0 ? 'taken' : 'made',
      text: `bytes ${bytes >= 0 ? 'fewer' : 'more'} in pages and sheets`,
    }),
  ];
  if (changed.elements > 0)
    lines.push(
      row({
        count: changed.elements,
        mark: 'needs',
        text: `elements on ${changed.pages} pages look different, by near misses that you made the same`,
      }),
    );
  return lines;
}

/** Values that are nearly another: only a person can say whether they should be. */
export function nearLines(near: Frozen<Draft['near misses']>, all: boolean): string[] {
  if (near.length === 0) return [];
  const lines = [
    heading('Near misses', 'change: yes in the draft makes them the same, and nothing else looks different'),
  ];
  for (const one of all ? near : near.slice(0, 6)) {
    const [from, to] = [one.from, one.to].map(
      (value) => `${value.startsWith('#') ? swatch(value) : ''}${value}`,
    );
    lines.push(
      row({
        mark: 'needs',
        text: `${from} is nearly ${to}${one.change ? ': to be made the same' : ''}  ${dim(one.apart)}`,
        place: one['such as'][0] ?? '',
      }),
    );
  }
  if (!all && near.length > 6) lines.push(more(near.length - 6, '--all'));
  return lines;
}
