// How the outcome of an update is shown.

import type { OutlastDocument } from '../../commands/outlast/document.js';
import { withoutStart } from '../../core/base/phrases.js';
import { showPlace } from '../../core/base/source.js';
import type { Fate } from '../../core/change/outlast/index.js';
import { doneLine, onSite, plural } from '../shared/moved-lines.js';
import { amber, clean, dim, grouped, heading, more, next, row, shortSelector } from '../shared/paper.js';

/** In: how the update was named, as it was typed. */
export function outlastLines(
  folder: string,
  document: OutlastDocument,
  { named, all }: { readonly named: readonly string[]; readonly all: boolean },
): string[] {
  const lines = [heading('Outlast', named.map((one) => withoutStart(one, '--platform ')).join(', '))];
  const of = (fate: Fate['kind']): OutlastDocument['rules'] =>
    document.rules.filter((one) => one.fate === fate);
  lines.push(
    row({
      count: of('holds').length,
      mark: 'kept',
      text: 'rules that override the platform still match and still win',
    }),
  );
  const failing = document.rules.filter(({ fate }) => fate !== 'holds');
  if (failing.length > 0) lines.push(heading('Do not hold', 'elements that each matches now'));
  for (const one of all ? failing : failing.slice(0, 16)) lines.push(...fateLines(one));
  if (!all && failing.length > 16) lines.push(more(failing.length - 16, '--all'));
  if (document.gone.length > 0) {
    lines.push(heading('Names that are gone', 'and what is styled most like them now'));
    for (const { old, likely } of all ? document.gone : document.gone.slice(0, 8))
      lines.push(
        row({
          mark: 'needs',
          text: `.${clean(old)}  ${likely === undefined ? amber('nothing like it') : `now likely .${clean(likely)}`}`,
        }),
      );
    if (!all && document.gone.length > 8) lines.push(more(document.gone.length - 8, '--all'));
  }
  lines.push(heading('Looks that change', 'elements, whatever you override'));
  if (document.changes.length === 0)
    lines.push(row({ count: 0, text: 'elements look different after the update' }));
  for (const { property, target, before, after, selector, shown, elements, pages } of all
    ? document.changes
    : document.changes.slice(0, 10)) {
    const on =
      pages.length === 1 ? pages[0]!.path : `${plural(pages.length, 'page')}, ${pages[0]?.path} first`;
    const what =
      property === ''
        ? clean(after)
        : `${clean(shown + target)} ${shortProperties(property)}: ${clean(before)} becomes ${clean(after)}`;
    lines.push(
      row({
        count: elements,
        mark: 'needs',
        text: `${what}  ${dim(shortSelector(selector))}`,
        place: clean(on),
      }),
    );
  }
  if (!all && document.changes.length > 10) lines.push(more(document.changes.length - 10, '--all'));
  for (const { selector, place, important } of document.mended ?? [])
    lines.push(
      row({
        mark: 'made',
        text: `mended: ${shortSelector(selector)}${importantText(important)}`,
        place: showPlace(place),
      }),
    );
  for (const { place, why } of document.left ?? [])
    lines.push(
      row({
        mark: 'needs',
        text: amber(`left as it is: ${clean(why)}`),
        place: showPlace(place),
      }),
    );
  if (document.mended !== undefined)
    lines.push(heading('Proof'), doneLine('differences under the platform as it is now', document.files));
  const again = named.map((one) => ` ${one}`).join('');
  const mendable = failing.some(({ likely }) => likely !== undefined);
  lines.push(
    document.mended !== undefined && document.files.length > 0
      ? next(`acervus undo${onSite(folder)}`, 'takes the mending back, byte for byte')
      : mendable
        ? next(
            `acervus outlast${again} --mend${onSite(folder)}`,
            'writes the fixes; nothing shows before the update',
          )
        : next(`acervus override --list${onSite(folder)}`, 'shows every override'),
  );
  return lines;
}

/** `padding-bottom, padding-left, …` by what they begin with. */
function shortProperties(properties: string): string {
  const names = properties.split(', ').map((name) => name.split('-'));
  const [first = []] = names;
  if (names.length < 4) return properties;
  const stem = first[0] ?? '';
  const end = first.at(-1) ?? '';
  if (names.some((parts) => parts[0] !== stem)) return `${names.length} properties`;
  return names.every((parts) => parts.at(-1) === end) ? `${stem}-${end}` : stem;
}

function fateLines({
  selector,
  place,
  times,
  elements,
  fate,
  names = [],
  likely,
  properties = [],
  important,
  by,
  lost = 0,
}: OutlastDocument['rules'][number]): string[] {
  const many = times > 1 ? dim(`  in ${grouped(times)} style blocks`) : '';
  const where = { place: showPlace(place) };
  const head = shortSelector(selector);
  switch (fate) {
    case 'name gone': {
      const text = `${head}  ${amber(`names ${names.map((name) => `.${clean(name)}`).join(', ')}, which the new platform does not`)}${many}`;
      return [row({ count: elements, mark: 'needs', text, ...where }), ...likelyLines(likely, 'likely')];
    }
    case 'matches nothing':
      return [
        row({
          count: elements,
          mark: 'broken',
          text: `${head}  ${amber('matches nothing after the update')}${many}`,
          ...where,
        }),
        ...likelyLines(likely, 'likely'),
      ];
    case 'beaten':
      return [
        row({
          count: elements,
          mark: 'broken',
          text: `${head}  ${shortProperties(properties.join(', '))} ${amber(`is beaten on ${grouped(lost)} by`)} ${clean(by?.value ?? '')}  ${dim(shortSelector(by?.selector ?? ''))}${many}`,
          ...where,
        }),
        ...likelyLines(likely, 'the weakest that wins', importantText(important)),
      ];
    case 'not needed':
      return [
        row({
          count: elements,
          mark: 'taken',
          text: `${head}  ${dim('is not needed after the update: the platform declares the same')}${many}`,
          ...where,
        }),
      ];
    case 'holds':
      return [];
  }
}

function likelyLines(likely: string | undefined, what: string, more = ''): string[] {
  return likely === undefined
    ? []
    : [row({ mark: 'made', text: `${shortSelector(likely)}${more}  ${dim(what)}` })];
}

function importantText(properties: readonly string[] | undefined): string {
  return properties === undefined ? '' : amber(`  ${properties.join(', ')} !important`);
}
