// Gives a class another name everywhere it is written.

import { withoutStart } from '../../core/base/phrases.js';
import { quoted } from '../../core/base/site-text.js';
import { UsageError } from '../../core/base/usage-error.js';
import { rename as planRename, type Renamed } from '../../core/change/rename/index.js';
import { othersWith } from '../../site/files/unread.js';
import { carryOut, NOTHING_DONE, openForChange } from '../../site/ledger/carry-out.js';
import { sourcedSheets } from '../../site/ledger/source-changes.js';
import type { WriteOptions } from '../../site/ledger/write-options.js';
import { isReadIn } from '../../site/rendering/load.js';
import type { RenameDocument } from './document.js';

export interface RenameOptions extends WriteOptions {
  /** The new name is there already, and says the same: make the two one. */
  readonly merge?: boolean | undefined;
  /** Rename in strings of scripts that only might mean the class, too. */
  readonly scripts?: boolean | undefined;
  /** Hears what is done now. */
  readonly onStep?: ((step: string) => void) | undefined;
}

/** @internal */
export interface RenameResult {
  readonly document: RenameDocument;
  readonly result: Renamed;
}

/**
 * Gives a class another name in markup, sheets and scripts; nothing is written where it might change how the site looks.
 * In: the site's folder; the class and its new name, each with or without its dot.
 * Out: `refused` says why nothing was written. Throws `UsageError`.
 * @internal
 */
export function rename(folder: string, from: string, to: string, options: RenameOptions = {}): RenameResult {
  const [old, fresh] = [className(from), className(to)];
  if (old === fresh) throw new UsageError('same-name', { name: from });
  const site = openForChange(folder);
  options.onStep?.('proving');
  // A sheet that a preprocessor makes is changed where it is made.
  const sourced = sourcedSheets(site);
  const result = planRename({
    model: site.model,
    themes: [...site.themes, ...sourced.sheets],
    scripts: site.scriptTexts,
    isLibrary: site.isPlatform,
    others: othersWith(old, site.files, (file) => isReadIn(site, file) || sourced.files.has(file)),
    from: old,
    to: fresh,
    merge: options.merge === true,
    unsure: options.scripts === true,
  });
  const { markup, sheets, scripts, removed } = result.counts;
  if (markup + sheets + scripts + removed + result.unsure.length + result.platform.length === 0)
    throw new UsageError('written-nowhere', { name: old, quoted: quoted(`.${old}`) });
  const refused = refusal(result, options);
  const done = refused === undefined ? carryOut(folder, site, 'rename', result.edits, options) : NOTHING_DONE;
  const document: RenameDocument = {
    format: 1,
    command: 'rename',
    from: old,
    to: fresh,
    ...done,
    ...(refused === undefined ? {} : { refused }),
    counts: result.counts,
    taken: result.taken,
    unsure: result.unsure.map(({ place, what, editable }) => ({ place, what, editable })),
    platform: result.platform,
    strays: result.differences.length,
  };
  return { document, result };
}

/** `.name`, or the name alone. Throws `UsageError`. */
function className(text: string): string {
  const name = withoutStart(text, '.');
  if (/^-?[a-zA-Z_\u0080-\uffff][\w\u0080-\uffff-]*$/.test(name)) return name;
  throw new UsageError('not-a-class', { text });
}

function refusal(
  { taken, unsure, platform, differences }: Renamed,
  { merge, scripts }: RenameOptions,
): RenameDocument['refused'] {
  if (platform.length > 0) return 'the platform styles it';
  if (taken.length > 0 && merge !== true) return 'the new name is taken';
  if (unsure.length > 0 && scripts !== true) return 'not every place is sure';
  return differences.length > 0 ? 'it would look different' : undefined;
}
