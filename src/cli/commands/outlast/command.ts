// `acervus outlast`: which overrides survive a platform update, and what looks different in spite of them.

import { existsSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import type { z } from 'zod';
import { SiteModel } from '../../../core/cascade/index.js';
import { applyToSources } from '../../../core/edits/index.js';
import { laterModel, lookChanges, outlast, planMends } from '../../../core/change/outlast/index.js';
import { allRules } from '../../../core/change/restyle/index.js';
import { decodeFile } from '../../../site/files/encoding.js';
import { openFolder } from '../../../site/files/files.js';
import type { Site } from '../../../site/rendering/load.js';
import { UsageError } from '../../../core/usage-error.js';
import { carryOut, isPlatformIn, openForChange, themesOf, type WriteOptions } from '../../shared/carry-out.js';
import type { outlastDocument } from '../../everyday-documents.js';
import { outlastLines } from './lines.js';
import { groupChanges, joinBlocks, whyText } from './report.js';
import { print, printJson } from '../../shared/paper.js';
import { Progress } from '../../shared/progress.js';

export interface OutlastOptions extends WriteOptions {
  readonly platform?: readonly string[];
  readonly markup?: string;
  readonly mend?: boolean;
  readonly all?: boolean;
}

export type OutlastJson = z.infer<typeof outlastDocument>;

/** Out: 1 when something does not outlast the update, or looks different after it, else 0. */
export function runOutlast(folder: string, options: OutlastOptions): number {
  const progress = new Progress();
  progress.say('reading the site');
  const site = openForChange(folder);
  const sheets = readSheets(folder, site, options.platform ?? []);
  const pages = options.markup === undefined ? new Map<string, string>() : readPages(site, options.markup);
  progress.say('comparing');
  const themes = themesOf(site).filter((file) => !sheets.has(file));
  const isPlatform = (file: string): boolean => sheets.has(file) || isPlatformIn(site)(file);
  const rules = allRules(site.model, themes);
  const found = outlast({ model: site.model, sheets, pages, rules, isPlatform });
  const mends = options.mend === true ? planMends(site.model, found.rules) : undefined;
  const done =
    mends === undefined
      ? { files: [], written: false }
      : carryOut(folder, site, 'outlast --mend', mends.edits, options);
  // Compared with the site as it is to look, mended or not.
  const mended = applyToSources(site.model.sources, mends?.edits ?? new Map());
  const theme = new SiteModel(mended, site.model.table, site.model);
  const changes = groupChanges(lookChanges(site.model, laterModel(theme, sheets, pages), pages));
  progress.end();
  const document: OutlastJson = {
    format: 1,
    command: 'outlast',
    platform: [...sheets.keys()],
    markup: pages.size,
    rules: joinBlocks(found.rules),
    gone: found.gone.map(({ old, likely }) => ({ old, ...(likely === undefined ? {} : { likely }) })),
    changes,
    ...(mends === undefined
      ? {}
      : {
          mended: mends.mended.map(({ from, selector }) => ({ place: { ...from.written.place }, selector })),
          left: mends.left.map(({ from, why }) => ({ place: { ...from.written.place }, why: whyText(why) })),
        }),
    ...done,
    strays: 0,
  };
  if (options.json === true) printJson(document);
  else if (done.patch !== undefined) process.stdout.write(done.patch);
  else print(outlastLines(folder, document, options));
  const fails = document.rules.some(
    ({ fate }) => fate === 'name gone' || fate === 'beaten' || fate === 'matches nothing',
  );
  return (fails && mends === undefined) || changes.length > 0 ? 1 : 0;
}

/** `old=new`, a sheet or a folder of sheets each; the new may lie outside the site. */
function readSheets(folder: string, site: Site, pairs: readonly string[]): Map<string, string> {
  if (pairs.length === 0)
    throw new UsageError(
      `--platform: name the sheet that is updated and its new version, as in --platform ${platformSheet(site)}=${platformSheet(site).replace(/[\d.]+(?=\/|\.css)/, 'NEW')}`,
    );
  const sheets = new Map<string, string>();
  for (const pair of pairs) {
    const [old = '', fresh = ''] = pair.split('=');
    const known = site.sheets.map((sheet) => sheet.path);
    const inside = old.replace(/^\.\//, '').replace(/\/$/, '');
    const affected = known.filter((file) => file === inside || file.startsWith(`${inside}/`));
    if (affected.length === 0)
      throw new UsageError(
        `--platform ${pair}: no page uses a sheet ${inside}; the site's sheets are ${known.slice(0, 3).join(', ')}`,
      );
    for (const file of affected) {
      const target = file === inside ? fresh : path.posix.join(fresh, file.slice(inside.length + 1));
      sheets.set(file, readNew(folder, target, pair, file !== inside));
    }
  }
  return sheets;
}

function platformSheet(site: Site): string {
  return site.sheets.find(({ owner }) => owner === 'platform')?.path ?? 'platform/kit.css';
}

/** A file that a new version of a folder does not have any more is empty. */
function readNew(folder: string, target: string, pair: string, optional: boolean): string {
  const file = [path.resolve(folder, target), path.resolve(target)].find(
    (one) => existsSync(one) && statSync(one).isFile(),
  );
  if (file === undefined && optional) return '';
  if (file === undefined)
    throw new UsageError(
      `--platform ${pair}: there is no file ${target}, in the site or here; name the new version of the sheet`,
    );
  const decoded = decodeFile(readFileSync(file));
  if (decoded === undefined)
    throw new UsageError(`--platform ${pair}: ${target} is binary or in an unknown encoding`);
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
  if (pages.size === 0)
    throw new UsageError(
      `--markup ${folder}: holds no page of the site; name a folder with pages under the same paths`,
    );
  return pages;
}
