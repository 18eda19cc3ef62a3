// Takes stock of a site.

import path from 'node:path';
import { SHEET_SOURCES, sheetStem } from '../../core/read/kinds/index.js';
import { type BuiltSite, openBuilt } from '../../site/building/build.js';
import { inSources } from '../../site/building/places.js';
import { openFolder } from '../../site/files/files.js';
import type { SurveyedSite } from '../../site/threads/survey-end.js';
import { joinSurvey, surveySite } from '../../site/threads/surveying.js';
import type { SurveyDocument } from './document.js';

export interface SurveyOptions {
  /** How many threads, from 1 to 64; as the size of the site calls for without. */
  readonly jobs?: number | undefined;
  /** Whether what was found in a page is remembered in `.acervus/`, and believed while the page is the same; it is without. */
  readonly cache?: boolean | undefined;
  /** From so many bytes of pages on; a million without. */
  readonly rememberFrom?: number | undefined;
  /** Hears of each page that is read. */
  readonly onPage?: ((done: number, of: number) => void) | undefined;
  /** Hears what is done now. */
  readonly onStep?: ((step: string) => void) | undefined;
  /** Hears where the time went: milliseconds by part, those of several threads added up. */
  readonly onTimings?: ((parts: ReadonlyMap<string, number>) => void) | undefined;
}

/**
 * What is repeated, what is broken, and what could be written once.
 * In: the site's folder. Throws `UsageError` for what cannot be a site.
 */
export async function survey(site: string, options: SurveyOptions = {}): Promise<SurveyDocument> {
  const built = await openBuilt(site, openFolder(site), options.onStep);
  if (built === undefined) return documentOf(await surveySite(site, options), options);
  const found = documentOf(await surveySite(built.folder, options), options);
  const { document, built: how } = inSources(built, found);
  const sheets = document.sheets.map((sheet) =>
    built.copies.has(sheet.path) || sheet.owner === 'theme'
      ? sheet
      : { ...sheet, because: builtFrom(built, sheet.path) },
  );
  const shared = built.copies.get(document.shared) ?? document.shared;
  return { ...document, sheets, shared, built: how };
}

/** What a sheet is built of, as far as its name tells. */
function builtFrom({ sources }: BuiltSite, sheet: string): string {
  const stem = sheetStem(path.posix.basename(sheet));
  const kinds = SHEET_SOURCES.map((ending) => `${stem}.${ending}`);
  const source = sources.files.find((file) => kinds.includes(path.posix.basename(file)));
  return source === undefined ? 'built' : `built: ${path.posix.basename(source)}`;
}

/** The survey of a site out of those of its parts. In: the site's folder, the files of all parts. Throws `UsageError`. */
export async function surveyOfParts(
  site: string,
  files: readonly string[],
  options: SurveyOptions = {},
): Promise<SurveyDocument> {
  return documentOf(await joinSurvey(site, files), options);
}

function documentOf(
  {
    survey: stock,
    sources,
    sheets,
    shared,
    drafted,
    platformPages,
    unreadEndings,
    inCode,
    suggested,
    timings,
  }: SurveyedSite,
  options: SurveyOptions,
): SurveyDocument {
  const { repeatedSets, repeatedRules, colours, nearMisses, broken, unread, ...counts } = stock;
  options.onTimings?.(timings.parts);
  return {
    format: 1,
    command: 'survey',
    ...counts,
    sources,
    platformPages: platformPages.length,
    upkeep: { ...counts.upkeep, ...(drafted === undefined ? {} : { drafted }) },
    sheets,
    shared,
    repeatedSets,
    repeatedRules,
    colours,
    nearMisses,
    broken,
    unread,
    inCode: {
      times: inCode.tags.length,
      examples: inCode.tags.slice(0, 3),
      blocks: {
        times: inCode.blocks.length,
        declarations: inCode.blocks.reduce((all, { declarations }) => all + declarations, 0),
        examples: inCode.blocks.slice(0, 3).map((one) => one.place),
      },
    },
    unreadEndings: Object.fromEntries(unreadEndings),
    ...(suggested === undefined ? {} : { suggested: { sheets: suggested } }),
  };
}
