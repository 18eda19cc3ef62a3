// Which overrides survive a platform update, and what looks different in spite of them.

import { existsSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { withoutEnd, withoutStart } from '../../core/base/phrases.js';
import { UsageError } from '../../core/base/usage-error.js';
import { SiteModel } from '../../core/cascade/index.js';
import {
  outlast as foretell,
  laterModel,
  lookChanges,
  type Mends,
  planMends,
  type Update,
} from '../../core/change/outlast/index.js';
import { allRules } from '../../core/change/restyle/index.js';
import { applyToSources } from '../../core/edit/text/index.js';
import { decodeFile } from '../../site/files/encoding.js';
import { openFolder } from '../../site/files/files.js';
import { carryOut, NOTHING_DONE, openForChange } from '../../site/ledger/carry-out.js';
import type { WriteOptions } from '../../site/ledger/write-options.js';
import type { Site } from '../../site/rendering/load.js';
import type { OutlastDocument } from './document.js';
import { otherState } from './other-state.js';
import { groupChanges, joinBlocks } from './report.js';

export interface OutlastOptions extends WriteOptions {
  /** A sheet or a folder of sheets as the site links it, to its new version, in the site or anywhere. */
  readonly platform?: Readonly<Record<string, string>> | undefined;
  /** The site under the new platform: a folder that was visited there, or `visits` for the visit before and the last one. */
  readonly other?: string | undefined;
  /** A folder that holds the pages as the new platform writes them, under the same paths. */
  readonly markup?: string | undefined;
  /** Write the fixes: new names beside the old, stronger selectors. */
  readonly mend?: boolean | undefined;
  /** Hears what is done now. */
  readonly onStep?: ((step: string) => void) | undefined;
}

/**
 * Tells what an update of the platform does to the site, before it is made.
 * In: the site's folder. Throws `UsageError`.
 */
export async function outlast(folder: string, options: OutlastOptions): Promise<OutlastDocument> {
  const { site, update } =
    options.other === undefined ? givenUpdate(folder, options) : otherState(folder, options.other);
  const { sheets, pages } = update;
  options.onStep?.('comparing');
  const { model } = site;
  const themes = site.themes.filter((file) => !sheets.has(file));
  const isPlatform = (file: string): boolean => sheets.has(file) || site.isPlatform(file);
  const found = foretell({ model, ...update, rules: allRules(model, themes), isPlatform });
  const mends = options.mend === true ? planMends(model, found.rules, { ...update, isPlatform }) : undefined;
  const done =
    mends === undefined ? NOTHING_DONE : carryOut(folder, site, 'outlast --mend', mends.edits, options);
  // Compared with the site as it is to look, mended or not.
  const mended = applyToSources(model.sources, mends?.edits ?? new Map());
  const theme = new SiteModel(mended, model.table, model);
  return {
    format: 1,
    command: 'outlast',
    platform: [...sheets.keys()],
    markup: pages.size,
    rules: joinBlocks(found.rules),
    gone: found.gone.map(({ old, likely }) => ({ old, ...(likely === undefined ? {} : { likely }) })),
    changes: groupChanges(lookChanges(model, laterModel(theme, update), pages)),
    ...(mends === undefined ? {} : mendsOf(mends)),
    ...done,
    strays: 0,
  };
}

/** The new sheets and pages that were named one by one. */
function givenUpdate(folder: string, { platform, markup }: OutlastOptions): { site: Site; update: Update } {
  const site = openForChange(folder);
  const sheets = readSheets(folder, site, Object.entries(platform ?? {}));
  const pages = markup === undefined ? new Map<string, string>() : readPages(site, markup);
  return { site, update: { sheets, pages } };
}

function mendsOf({ mended, left }: Mends): Pick<OutlastDocument, 'mended' | 'left'> {
  return {
    mended: mended.map(({ from, selector, important }) => ({
      place: from.written.place,
      selector,
      ...(important.length === 0 ? {} : { important: [...important] }),
    })),
    left: left.map(({ from, why }) => ({
      place: from.written.place,
      why,
    })),
  };
}

/** In: an old sheet or folder of sheets each, and the new one, which may lie outside the site. */
function readSheets(
  folder: string,
  site: Site,
  pairs: readonly (readonly [string, string])[],
): Map<string, string> {
  if (pairs.length === 0) {
    const old = site.sheets.find(({ owner }) => owner === 'platform')?.path ?? 'platform/kit.css';
    throw new UsageError('platform-what', { old, fresh: old.replace(/[\d.]+(?=\/|\.css)/, 'NEW') });
  }
  const sheets = new Map<string, string>();
  for (const [old, fresh] of pairs) {
    const pair = `${old}=${fresh}`;
    const known = site.sheets.map((sheet) => sheet.path);
    const inside = withoutEnd(withoutStart(old, './'), '/');
    const affected = known.filter((file) => file === inside || file.startsWith(`${inside}/`));
    if (affected.length === 0)
      throw new UsageError('platform-unused', { pair, sheet: inside, known: known.slice(0, 3).join(', ') });
    for (const file of affected) {
      const target = file === inside ? fresh : path.posix.join(fresh, file.slice(inside.length + 1));
      sheets.set(file, readNew(folder, target, pair, file !== inside));
    }
  }
  return sheets;
}

/** A file that a new version of a folder does not have any more is empty. */
function readNew(folder: string, target: string, pair: string, optional: boolean): string {
  const file = [path.resolve(folder, target), path.resolve(target)].find(
    (one) => existsSync(one) && statSync(one).isFile(),
  );
  if (file === undefined && optional) return '';
  if (file === undefined) throw new UsageError('platform-missing', { pair, file: target });
  const decoded = decodeFile(readFileSync(file));
  if (decoded === undefined) throw new UsageError('platform-not-text', { pair, file: target });
  return decoded.text;
}

function readPages(site: Site, folder: string): Map<string, string> {
  const files = openFolder(folder);
  const pages = new Map<string, string>();
  for (const file of site.model.paths) {
    const bytes = files.read(file);
    const text = bytes === undefined ? undefined : decodeFile(bytes)?.text;
    if (text !== undefined) pages.set(file, text);
  }
  if (pages.size === 0) throw new UsageError('markup-no-pages', { folder });
  return pages;
}
