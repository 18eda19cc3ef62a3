// How the values of a theme are shown to a person.

import type { ValuesDocument } from '../../commands/values/document.js';
import { showPlace } from '../../core/base/source.js';
import { onSite, plural } from '../shared/moved-lines.js';
import { amber, clean, dim, grouped, heading, more, next, row, swatch } from '../shared/paper.js';

type Kind = ValuesDocument['unnamed'][number]['kind'];

const KINDS: Readonly<Record<Kind, string>> = {
  color: 'Colours',
  gradient: 'Gradients',
  fontFamily: 'Fonts',
  fontSize: 'Font sizes',
  fontWeight: 'Weights',
  lineHeight: 'Line heights',
  shadow: 'Shadows',
  radius: 'Corners',
  duration: 'Durations',
  dimension: 'Lengths',
  number: 'Numbers',
};

const FEW = 5;

export function valuesLines(folder: string, document: ValuesDocument, all: boolean): string[] {
  if (document.in !== undefined) return inLines(folder, document, document.in, all);
  if (document.pairs !== undefined) return pairLines(folder, document.pairs, document.near, all);
  const lines = [heading('Values', folder)];
  const kinds = Object.keys(KINDS) as Kind[];
  for (const kind of kinds) lines.push(...kindLines(kind, document, all));
  const other = document.named.filter((one) => one.kind === undefined);
  if (other.length > 0) {
    lines.push(heading('Other', 'names of no kind that tokens know'));
    for (const { name, value, uses, place } of all ? other : other.slice(0, FEW))
      lines.push(
        row({
          count: uses,
          mark: 'kept',
          text: `${clean(name)}  ${dim(clean(value))}`,
          place: showPlace(place),
        }),
      );
    if (!all && other.length > FEW) lines.push(more(other.length - FEW, '--all'));
  }
  lines.push(...nearLines(document.near, all));
  if (lines.length === 1) lines.push(row({ count: 0, text: 'values: the theme declares none' }));
  if (document.out !== undefined) lines.push(...outLines(document.out));
  lines.push(
    document.out === undefined
      ? next(`acervus values${onSite(folder)} --out tokens.json`, 'writes those with a name as design tokens')
      : next(
          `acervus values${onSite(folder)} --in ${clean(document.out.file)}`,
          'takes them in again, when they were changed',
        ),
  );
  return lines;
}

function kindLines(kind: Kind, { named, unnamed }: ValuesDocument, all: boolean): string[] {
  const own = named.filter((one) => one.kind === kind);
  const bare = unnamed.filter((one) => one.kind === kind);
  if (own.length + bare.length === 0) return [];
  const lines = [heading(KINDS[kind], `${grouped(own.length)} with a name, ${grouped(bare.length)} without`)];
  const shown = (value: string): string =>
    kind === 'color' ? `${swatch(value)}${clean(value)}` : clean(value);
  for (const { name, value, uses, sets, place } of all ? own : own.slice(0, FEW)) {
    const more = sets.map((one) => `${one.where}: ${one.value}`).join('; ');
    lines.push(
      row({
        count: uses,
        mark: 'kept',
        text: `${clean(name)}  ${shown(value)}${more === '' ? '' : `  ${dim(clean(more))}`}`,
        place: showPlace(place),
      }),
    );
  }
  if (!all && own.length > FEW) lines.push(more(own.length - FEW, '--all'));
  for (const { value, times, properties, named: name, place } of all ? bare : bare.slice(0, FEW))
    lines.push(
      row({
        count: times,
        mark: 'needs',
        text: `${shown(value)}  ${name === undefined ? dim(properties.slice(0, 3).join(', ')) : amber(`is ${clean(name)}`)}`,
        place: showPlace(place),
      }),
    );
  if (!all && bare.length > FEW) lines.push(more(bare.length - FEW, '--all'));
  return lines;
}

/** Beside each other, so that an eye sees how little they differ. */
function nearLines(near: ValuesDocument['near'], all: boolean): string[] {
  if (near.length === 0) return [];
  const lines = [heading('Nearly another', 'set "change: yes" in acervus-draft.yaml to make them one')];
  for (const { kind, from, to, times, toTimes, place } of all ? near : near.slice(0, FEW)) {
    const shown = (value: string): string => `${kind === 'colour' ? swatch(value) : ''}${clean(value)}`;
    lines.push(
      row({
        count: times,
        mark: 'needs',
        text: `${shown(from)} is nearly ${shown(to)}  ${dim(`written ${plural(toTimes, 'time')}`)}`,
        place: showPlace(place),
      }),
    );
  }
  if (!all && near.length > FEW) lines.push(more(near.length - FEW, '--all'));
  return lines;
}

function outLines({ file, tokens, left }: NonNullable<ValuesDocument['out']>): string[] {
  const lines = [heading('Out'), row({ count: tokens, mark: 'made', text: 'tokens', place: file })];
  if (left.length > 0)
    lines.push(
      row({
        count: left.length,
        mark: 'needs',
        text: `left out: the format has no word for them  ${dim(clean(left.slice(0, FEW).join('  ')))}`,
      }),
    );
  return lines;
}

function inLines(
  folder: string,
  { written, files }: ValuesDocument,
  { file, changes, renamed, same, unsaid, refused, strays }: NonNullable<ValuesDocument['in']>,
  all: boolean,
): string[] {
  const lines = [heading('Values', `${folder}, from ${file}`)];
  for (const { from, to, places } of renamed)
    lines.push(
      row({
        count: places,
        mark: 'made',
        text: `${clean(from)} is called ${clean(to)}  ${dim('wherever it is written')}`,
      }),
    );
  for (const { property, where, before, after, elements, pages } of all ? changes : changes.slice(0, 16)) {
    const reach =
      before === undefined ? 'new' : `on ${plural(elements, 'element')} of ${plural(pages, 'page')}`;
    lines.push(
      row({
        count: elements,
        mark: 'made',
        text: `${clean(property)}${where === undefined ? '' : dim(` ${clean(where)}`)}  ${before === undefined ? '' : `${swatch(before)}${clean(before)} becomes `}${swatch(after)}${clean(after)}  ${dim(reach)}`,
      }),
    );
  }
  if (!all && changes.length > 16) lines.push(more(changes.length - 16, '--all'));
  lines.push(row({ count: same, mark: 'kept', text: 'are already as in the file' }));
  if (unsaid.length > 0)
    lines.push(
      row({
        count: unsaid.length,
        mark: 'kept',
        text: `of the site are not in the file, and stay  ${dim(clean(unsaid.slice(0, FEW).join('  ')))}`,
      }),
    );
  for (const { property, why } of refused)
    lines.push(row({ mark: 'broken', text: `${clean(property)}  ${clean(why)}` }));
  lines.push(heading('Proof'));
  if (strays > 0)
    lines.push(row({ count: strays, mark: 'broken', text: 'other differences: nothing was written' }));
  else
    lines.push(
      row({
        count: 0,
        text: `other values changed; ${written ? `${plural(files.length, 'file')} written` : 'nothing was written'}`,
      }),
    );
  lines.push(
    written
      ? next(`acervus undo${onSite(folder)}`, 'takes it back, byte for byte')
      : next(`acervus values${onSite(folder)}`, 'shows what is there'),
  );
  return lines;
}

/** What WCAG 2.2 asks of text, and of large text. */
const ENOUGH = 4.5;
const ENOUGH_FOR_LARGE = 3;

function pairLines(
  folder: string,
  pairs: NonNullable<ValuesDocument['pairs']>,
  near: ValuesDocument['near'],
  all: boolean,
): string[] {
  const lines = [
    heading('Colours on each other', 'elements with text at rest, on a screen; the least contrast first'),
  ];
  for (const { text, ground, contrast, elements, place } of all ? pairs : pairs.slice(0, 20)) {
    const isEnough = contrast >= ENOUGH;
    const said = isEnough ? '' : contrast >= ENOUGH_FOR_LARGE ? 'enough for large text only' : 'too little';
    lines.push(
      row({
        count: elements,
        mark: isEnough ? 'kept' : 'needs',
        text: `${contrast.toFixed(2).padStart(5)}  ${swatch(text)}${text} on ${swatch(ground)}${ground}${said === '' ? '' : `  ${amber(said)}`}`,
        place: place === undefined ? '' : showPlace(place),
      }),
    );
  }
  if (!all && pairs.length > 20) lines.push(more(pairs.length - 20, '--all'));
  if (pairs.length === 0)
    lines.push(row({ count: 0, text: 'pairs: no text whose colour and ground a sheet declares' }));
  lines.push(
    ...nearLines(
      near.filter(({ kind }) => kind === 'colour'),
      all,
    ),
    next(
      `acervus reach '${pairs[0]?.text ?? '#000000'}'${onSite(folder)}`,
      'tells where a colour has effect',
    ),
  );
  return lines;
}
