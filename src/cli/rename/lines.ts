// How a rename is shown to a person.

import type { RenameResult } from '../../commands/rename/rename.js';
import { refusalHelp } from '../../core/base/reasons/index.js';
import { showPlace } from '../../core/base/source.js';
import { assumptionLines } from '../shared/assumption-lines.js';
import { onSite } from '../shared/moved-lines.js';
import { amber, clean, dim, grouped, heading, more, next, quoted, row } from '../shared/paper.js';
import { strayLines } from '../shared/stray-lines.js';

/** In: whether a name that is there already was to be merged with. */
export function renameLines(
  folder: string,
  { document, result }: RenameResult,
  { all, merge }: { readonly all: boolean; readonly merge: boolean },
): string[] {
  const lines = [heading('Rename', `.${clean(document.from)} to .${clean(document.to)}`)];
  const { markup, sheets, scripts, removed } = document.counts;
  const mark = document.refused === undefined ? 'made' : 'none';
  lines.push(
    row({ count: markup, mark, text: 'class attributes' }),
    row({ count: sheets, mark, text: 'selectors' }),
  );
  lines.push(row({ count: scripts, mark, text: 'strings of scripts' }));
  if (removed > 0)
    lines.push(row({ count: removed, mark: 'taken', text: 'rules that the other name has already' }));
  const list = (
    title: string,
    places: readonly { readonly text: string; readonly place: string }[],
  ): void => {
    if (places.length === 0) return;
    lines.push(heading(title));
    for (const { text, place } of all ? places : places.slice(0, 6))
      lines.push(row({ mark: 'needs', text, place }));
    if (!all && places.length > 6) lines.push(more(places.length - 6, '--all'));
  };
  list(
    'Rules of the platform',
    document.platform.map((place) => ({ text: amber('not yours to edit'), place: showPlace(place) })),
  );
  if (!merge)
    list(
      'Taken',
      document.taken.map((place) => ({
        text: amber(`.${clean(document.to)} stands here`),
        place: showPlace(place),
      })),
    );
  list(
    'Not sure',
    document.unsure.map(({ place, what, editable }) => ({
      text: `${amber(clean(what))}${editable ? '' : dim('  a library, or an attribute: not edited')}`,
      place: showPlace(place),
    })),
  );
  if (document.refused !== undefined) {
    lines.push(
      heading('Refused', `${document.refused}; nothing was written`),
      row({
        mark: 'broken',
        text:
          merge && document.refused === 'it would look different'
            ? 'the two names do not say the same'
            : refusalHelp(document.refused),
      }),
    );
    if (document.refused === 'it would look different')
      lines.push(...strayLines({ strays: result.differences }, all));
    lines.push(
      next(`acervus reach ${quoted(`.${document.from}`)}${onSite(folder)}`, 'shows where it has effect'),
    );
    return lines;
  }
  lines.push(...assumptionLines(result.assumptions, all));
  const files = `${grouped(document.files.length)} ${document.files.length === 1 ? 'file' : 'files'} written`;
  const left = document.unsure.filter(({ editable }) => !editable).length;
  lines.push(
    heading('Proof'),
    left === 0
      ? row({ count: 0, text: `differences; ${files}` })
      : row({
          count: left,
          mark: 'needs',
          text: amber(
            `${left === 1 ? 'place above is' : 'places above are'} not edited: what they make of it is not proven`,
          ),
        }),
  );
  if (left > 0) lines.push(row({ count: 0, text: `differences in what was read; ${files}` }));
  lines.push(next(`acervus undo${onSite(folder)}`, 'takes it back, byte for byte'));
  return lines;
}
