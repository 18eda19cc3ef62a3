// `acervus rename`: gives a class another name everywhere it is written.

import type { z } from 'zod';
import { type Renamed, rename } from '../../../core/change/rename/index.js';
import { showPlace } from '../../../core/source.js';
import { UsageError } from '../../../core/usage-error.js';
import { carryOut, openForChange, strayLines, themesOf, type WriteOptions } from '../../shared/carry-out.js';
import type { renameDocument } from '../../everyday-documents.js';
import { onSite } from '../../shared/moved-lines.js';
import { amber, clean, dim, grouped, heading, more, next, print, printJson, quoted, row } from '../../shared/paper.js';
import { Progress } from '../../shared/progress.js';

export interface RenameOptions extends WriteOptions {
  readonly merge?: boolean;
  readonly scripts?: boolean;
  readonly all?: boolean;
}

type RenameJson = z.infer<typeof renameDocument>;

/** Out: 1 when it is refused, else 0. */
export function runRename(from: string, to: string, folder: string, options: RenameOptions): number {
  const [old, fresh] = [className(from), className(to)];
  if (old === fresh) throw new UsageError(`${from}: is the same name; name another`);
  const progress = new Progress();
  progress.say('reading the site');
  const site = openForChange(folder);
  progress.say('proving');
  const result = rename({
    model: site.model,
    themes: themesOf(site),
    scripts: site.scriptTexts,
    isLibrary: site.isLibrary,
    from: old,
    to: fresh,
    merge: options.merge === true,
    unsure: options.scripts === true,
  });
  const { markup, sheets, scripts, removed } = result.counts;
  if (markup + sheets + scripts + removed + result.unsure.length + result.platform.length === 0)
    throw new UsageError(
      `.${old}: is written nowhere on the site; "acervus reach ${quoted(`.${old}`)}" looks for what is like it`,
    );
  const refused = refusal(result, options);
  const done =
    refused === undefined
      ? carryOut(folder, site, 'rename', result.edits, options)
      : { files: [], written: false };
  progress.end();
  const document: RenameJson = {
    format: 1,
    command: 'rename',
    from: old,
    to: fresh,
    ...done,
    ...(refused === undefined ? {} : { refused }),
    counts: { ...result.counts },
    taken: result.taken.map((place) => ({ ...place })),
    unsure: result.unsure.map(({ place, what, editable }) => ({ place: { ...place }, what, editable })),
    platform: result.platform.map((place) => ({ ...place })),
    strays: result.differences.length,
  };
  if (options.json === true) printJson(document);
  else if (done.patch !== undefined) process.stdout.write(done.patch);
  else print(renameLines(folder, document, result, options));
  return refused === undefined ? 0 : 1;
}

/** `.name`, or the name alone. Throws `UsageError`. */
function className(text: string): string {
  const name = text.replace(/^\./, '');
  if (/^-?[a-zA-Z_\u0080-\uffff][\w\u0080-\uffff-]*$/.test(name)) return name;
  throw new UsageError(
    `${text}: is no class; write a dot and a name of letters, digits, - and _, such as .kind`,
  );
}

function refusal(
  { taken, unsure, platform, differences }: Renamed,
  { merge, scripts }: RenameOptions,
): RenameJson['refused'] {
  if (platform.length > 0) return 'the platform styles it';
  if (taken.length > 0 && merge !== true) return 'the new name is taken';
  if (unsure.length > 0 && scripts !== true) return 'not every place is sure';
  return differences.length > 0 ? 'it would look different' : undefined;
}

const REMEDIES: Readonly<Record<NonNullable<RenameJson['refused']>, string>> = {
  'the platform styles it':
    'a platform sheet names the class; give the elements a class of your own beside it',
  'the new name is taken': 'choose another, or --merge to make the two one',
  'not every place is sure': 'look at each, then --scripts to rename there too',
  'it would look different': 'the two names do not say the same',
};

function renameLines(folder: string, told: RenameJson, result: Renamed, options: RenameOptions): string[] {
  const all = options.all === true;
  const lines = [heading('Rename', `.${clean(told.from)} to .${clean(told.to)}`)];
  const { markup, sheets, scripts, removed } = told.counts;
  const mark = told.refused === undefined ? 'made' : 'none';
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
    told.platform.map((place) => ({ text: amber('not yours to edit'), place: showPlace(place) })),
  );
  if (options.merge !== true)
    list(
      'Taken',
      told.taken.map((place) => ({ text: amber(`.${clean(told.to)} stands here`), place: showPlace(place) })),
    );
  list(
    'Not sure',
    told.unsure.map(({ place, what, editable }) => ({
      text: `${amber(clean(what))}${editable ? '' : dim('  a library, or an attribute: not edited')}`,
      place: showPlace(place),
    })),
  );
  if (told.refused !== undefined) {
    lines.push(
      heading('Refused', `${told.refused}; nothing was written`),
      row({ mark: 'broken', text: REMEDIES[told.refused] }),
    );
    if (told.refused === 'it would look different') lines.push(...strayLines(result.differences, all));
    lines.push(
      next(`acervus reach ${quoted(`.${told.from}`)}${onSite(folder)}`, 'shows where it has effect'),
    );
    return lines;
  }
  lines.push(
    heading('Proof'),
    row({
      count: 0,
      text: `differences; ${grouped(told.files.length)} ${told.files.length === 1 ? 'file' : 'files'} written`,
    }),
  );
  lines.push(next(`acervus undo${onSite(folder)}`, 'takes it back, byte for byte'));
  return lines;
}
