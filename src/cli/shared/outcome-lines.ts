// What `draft` and `adopt` say alike: the styles by home, and what stays with its reason.

import type { Frozen } from '../../commands/shared/document-parts.js';
import { groupBy } from '../../core/base/group-by.js';
import type { AdoptionReport, Draft, DraftStyle } from '../../core/edit/draft/index.js';
import { count } from '../../core/proof/index.js';
import { clean, declarationsLine, dim, grouped, heading, more, row, swatch } from './paper.js';

const HOME_WORDS: Readonly<Record<DraftStyle['home'], string>> = {
  'already given': 'already given',
  'existing class': 'by a class that exists',
  'existing selector': 'by selectors that exist',
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
const STYLES = 10;
const TOKENS = 5;
const REASONS = 5;

type Styles = Frozen<readonly DraftStyle[]>;

/** Those that matter first, and how to see the others; or all of them, like ones together. */
export function styleLines(styles: Styles, all: boolean, how = '--all shows them'): string[] {
  const taken = styles.filter(({ take }) => take);
  if (all) return groupsOf(taken).flatMap((group) => groupLines(group));
  const lines = taken.slice(0, STYLES).map((style) => styleLine(style, true));
  const rest = groupsOf(taken.slice(STYLES)).map(
    ({ home, styles: own }) => `${own.length} ${homeWords(home)}`,
  );
  if (rest.length > 0) {
    lines.push(more(taken.length - STYLES, rest.join(', ')));
    lines.push(row({ text: dim(how) }));
  }
  return lines;
}

interface StyleGroup {
  readonly home: DraftStyle['home'];
  readonly into: string | undefined;
  readonly places: number;
  readonly styles: Styles;
}

/** Like ones together: of one area, and with one sort of home. Those that save most first. */
export function groupsOf(styles: Styles): StyleGroup[] {
  return [...groupBy(styles, (style) => `${style['written into'] ?? ''}|${style.home}`).values()]
    .map((own): StyleGroup => {
      const { home, 'written into': into } = own[0]!;
      return {
        home,
        into,
        places: own.reduce((all, { saves }) => all + (saves?.places ?? 0), 0),
        styles: own,
      };
    })
    .sort((a, b) => b.places - a.places || b.styles.length - a.styles.length);
}

function groupLines({ home, into, places, styles }: StyleGroup): string[] {
  const where = into === undefined ? '' : `, into ${into}`;
  return [
    heading(`${count(styles.length, 'style')} ${homeWords(home)}${where}`, `${count(places, 'place')} less`),
    ...styles.flatMap((style) => [styleLine(style, false), aboutLine(style)]),
  ];
}

export function homeWords(home: DraftStyle['home']): string {
  return HOME_WORDS[home];
}

/** Whether a style is one of those that a person asked for: by a file, a sort of home, a selector. */
export function isAbout(style: Frozen<DraftStyle>, words: string): boolean {
  const { home, name, selector, 'written into': into, 'such as': places, 'out of': from } = style;
  const texts = [home, homeWords(home), name, selector, into, from, ...(places ?? [])];
  return texts.some((text) => text?.toLowerCase().includes(words.toLowerCase()));
}

function styleLine(style: Frozen<DraftStyle>, withHome: boolean): string {
  const { home, name, selector, declarations, drops, saves, 'written into': into } = style;
  const shown = selector ?? (name === undefined ? '' : `.${name}`);
  const texts = declarations
    .replace(/\/\*.*?\*\/\n/g, '')
    .split(/;?\n/)
    .filter((one) => one !== '');
  const dropped =
    texts.length === 0 && drops !== undefined
      ? `without ${clean(drops)}, which a later one always beats`
      : '';
  return row({
    count: saves?.places ?? 0,
    mark: home === 'already given' ? 'taken' : home === 'existing class' ? 'kept' : 'made',
    text: `${shown === '' ? '' : `${clean(shortList(shown))}  `}${declarationsLine(texts)}${dropped}`,
    place: withHome ? `${homeWords(home)}${into === undefined ? '' : `, in ${into}`}` : '',
  });
}

function aboutLine(style: Frozen<DraftStyle>): string {
  const about = [
    whereText(style),
    style.because,
    style.beats === undefined ? undefined : `to win over ${style.beats}`,
    style.instead,
  ];
  return row({ text: dim(`  ${about.filter((one) => one !== undefined && one !== '').join('; ')}`) });
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
  const lines = [heading('Names for values', 'places in the sheets that would use each')];
  for (const { name, value, uses, kind } of all ? tokens : tokens.slice(0, TOKENS)) {
    const shown = `${kind === 'colour' ? swatch(value) : ''}${clean(value)}`;
    lines.push(row({ count: uses, mark: 'made', text: `${name}  ${shown}` }));
  }
  if (!all && tokens.length > TOKENS) lines.push(more(tokens.length - TOKENS, '--all'));
  return lines;
}

/** Sets of declarations in sources of SCSS, each with the name that takes its place. */
export function mixinLines(mixins: Frozen<Draft['mixins']>, all: boolean): string[] {
  const taken = mixins.filter(({ take }) => take);
  if (taken.length === 0) return [];
  const into = taken[0]?.into ?? '';
  const lines = [
    heading('Mixins', `declarations each saves; into ${into}; the compiled CSS stays the same to the letter`),
  ];
  for (const { name, saves, times, declarations } of all ? taken : taken.slice(0, STYLES))
    lines.push(
      row({
        count: saves,
        mark: 'made',
        text: `@include ${clean(name)}  ${declarationsLine(declarations.trim().split(/;\n?/).filter(Boolean))}`,
        place: `in ${times} rules`,
      }),
    );
  if (!all && taken.length > STYLES) lines.push(more(taken.length - STYLES, '--all'));
  return lines;
}

/** Style blocks in code, each with the sheet that takes its place. */
export function codeBlockLines(blocks: Frozen<Draft['code blocks']>): string[] {
  const taken = blocks.filter(({ take }) => take);
  if (taken.length === 0) return [];
  return [
    heading('Style blocks in code', 'declarations of each, word for word in a sheet'),
    ...taken.map(({ declarations, into, from }) =>
      row({ count: declarations, mark: 'made', text: clean(into), place: from }),
    ),
  ];
}

export function keptLines(kept: Frozen<AdoptionReport['kept']>, all: boolean): string[] {
  if (kept.length === 0) return [];
  const lines = [heading('Stays where it is', 'declarations and old attributes, each with the reason')];
  for (const { reason, declarations, places } of all ? kept : kept.slice(0, REASONS)) {
    lines.push(row({ count: declarations, mark: 'kept', text: clean(reason), place: places[0] ?? '' }));
    if (all) for (const other of places.slice(1)) lines.push(row({ text: '', place: other }));
  }
  if (!all && kept.length > REASONS) lines.push(more(kept.length - REASONS, '--all'));
  return lines;
}

type Sums = Pick<AdoptionReport, 'upkeep' | 'held' | 'stylesFromSelf' | 'size' | 'changed'>;

/** Upkeep and size, before and after. */
export function sumLines({ upkeep, held, stylesFromSelf, size, changed }: Sums, done: boolean): string[] {
  const less = upkeep.now === 0 ? 0 : Math.round((1 - upkeep.after / upkeep.now) * 100);
  const bytes = size.now - size.after;
  const lines = [
    row({ count: upkeep.now, text: `places ${done ? 'held' : 'hold'} a declaration or an old attribute` }),
    row({
      count: upkeep.after,
      mark: 'made',
      text: `${done ? 'are' : 'would be'} left: ${less}% less to maintain`,
    }),
    row({ text: dim(`  ${heldText(held)}`) }),
    row({
      count: Math.abs(bytes),
      mark: bytes >= 0 ? 'taken' : 'made',
      text: `bytes ${bytes >= 0 ? 'fewer' : 'more'} in pages and sheets`,
    }),
  ];
  const passing = stylesFromSelf.after - stylesFromSelf.now;
  if (passing > 0)
    lines.push(
      row({
        count: passing,
        mark: 'made',
        text: passText(passing, stylesFromSelf, done),
      }),
    );
  if (changed.elements > 0)
    lines.push(
      row({
        count: changed.elements,
        mark: 'needs',
        text: `elements on ${changed.pages} pages look different, because you made near misses the same`,
      }),
    );
  return lines;
}

/** How many more pages work under a CSP without inline styles, and how many do in all. */
function passText(passing: number, { now, after }: { now: number; after: number }, done: boolean): string {
  const pages = passing === 1 ? 'page' : 'pages';
  const work = `${done ? (passing === 1 ? 'works' : 'work') : 'would work'} under a CSP without inline styles`;
  return now === 0 ? `${pages} ${work}` : `more ${pages} ${work}, ${after} in all`;
}

/** `in tags 3 900 → 12, in style blocks 240 → 0, in sheets 40 → 190`. */
function heldText({ tags, blocks, sheets }: Sums['held']): string {
  const parts = [
    ['tags', tags],
    ['style blocks', blocks],
    ['sheets', sheets],
  ] as const;
  return parts
    .filter(([, { now, after }]) => now + after > 0)
    .map(([what, { now, after }]) => `in ${what} ${grouped(now)} → ${grouped(after)}`)
    .join(', ');
}

/** Values that are nearly another: only a person can say whether they should be. */
export function nearLines(near: Frozen<Draft['near misses']>, all: boolean): string[] {
  if (near.length === 0) return [];
  const lines = [
    heading('Near misses', 'change: yes in the draft makes them the same, and nothing else looks different'),
  ];
  const families = [...groupBy(near, ({ to }) => to)];
  for (const [to, own] of all ? families : families.slice(0, 6)) {
    const shown = own
      .slice(0, 4)
      .map(({ from, change }) => `${swatched(from)}${change ? ' (to be the same)' : ''}`);
    const rest = own.length > 4 ? ` and ${own.length - 4} more` : '';
    const apart = own.length === 1 ? `  ${dim(own[0]!.apart)}` : '';
    lines.push(
      row({
        mark: 'needs',
        text: `${shown.join(', ')}${rest} ${own.length === 1 ? 'is' : 'are'} nearly ${swatched(to)}${apart}`,
        place: own[0]!['such as'][0] ?? '',
      }),
    );
  }
  if (!all && families.length > 6) lines.push(more(families.length - 6, '--all'));
  return lines;
}

function swatched(value: string): string {
  return `${value.startsWith('#') ? swatch(value) : ''}${value}`;
}
