// `acervus outlast`: which overrides survive a platform update, and what looks different in spite of them.

import { existsSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import type { z } from 'zod';
import { SiteModel } from '../core/cascade/index.js';
import { applyToSources } from '../core/edits/index.js';
import {
  type Fate,
  laterModel,
  lookChanges,
  type Outlast,
  outlast,
  planMends,
} from '../core/outlast/index.js';
import { isHiddenText } from '../core/override/index.js';
import type { Difference } from '../core/proof/index.js';
import { allRules } from '../core/restyle/index.js';
import { showPlace } from '../core/source.js';
import { decodeFile } from '../site/encoding.js';
import { openFolder } from '../site/files.js';
import type { Site } from '../site/load.js';
import { UsageError } from '../site/usage-error.js';
import { carryOut, isPlatformIn, openForChange, themesOf, type WriteOptions } from './carry-out.js';
import type { outlastDocument } from './documents.js';
import {
  amber,
  clean,
  dim,
  grouped,
  heading,
  more,
  next,
  print,
  printJson,
  row,
  shortSelector,
} from './paper.js';
import { Progress } from './progress.js';

export interface OutlastOptions extends WriteOptions {
  readonly platform?: readonly string[];
  readonly markup?: string;
  readonly mend?: boolean;
  readonly all?: boolean;
}

type OutlastJson = z.infer<typeof outlastDocument>;

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

/** A block pasted into many pages is told once. */
function joinBlocks(rules: Outlast['rules']): OutlastJson['rules'] {
  const found = new Map<string, OutlastJson['rules'][number]>();
  for (const { written, fate, elements, pages } of rules) {
    const selector = written.rule.selectors.at(-1) ?? '';
    const key = written.isBlock
      ? `block ${selector} ${written.rule.declarations.map(({ property, value }) => property + value)}`
      : `${written.path} ${written.rule.range.start}`;
    const known = found.get(key);
    if (known !== undefined) known.times++;
    else
      found.set(key, { selector, place: { ...written.place }, times: 1, elements, pages, ...fateJson(fate) });
  }
  return [...found.values()];
}

function fateJson(
  fate: Fate,
): Pick<OutlastJson['rules'][number], 'fate' | 'names' | 'likely' | 'property' | 'by' | 'lost'> {
  switch (fate.kind) {
    case 'holds':
    case 'not needed':
      return { fate: fate.kind };
    case 'name gone': {
      const names = fate.names.map(({ old }) => old);
      return { fate: fate.kind, names, ...(fate.likely === undefined ? {} : { likely: fate.likely }) };
    }
    case 'matches nothing':
      return { fate: fate.kind, ...(fate.likely === undefined ? {} : { likely: fate.likely }) };
    case 'beaten': {
      const { property, by, elements, fix } = fate;
      const rival = { selector: by.selector, value: by.value, place: { ...by.place } };
      return {
        fate: fate.kind,
        property,
        by: rival,
        lost: elements,
        ...(fix === undefined ? {} : { likely: fix }),
      };
    }
  }
}

/** The same change of looks on many elements is one. */
function groupChanges(differences: readonly Difference[]): OutlastJson['changes'] {
  const found = new Map<string, { one: OutlastJson['changes'][number]; pages: Map<string, Set<number>> }>();
  for (const difference of differences) {
    if (difference.kind !== 'style') {
      const key = `${difference.kind} ${difference.what}`;
      const known = found.get(key);
      const one = {
        property: '',
        target: '',
        before: '',
        after: difference.what,
        selector: '',
        shown: '',
        elements: 0,
        pages: [],
      };
      found.set(key, known ?? { one, pages: new Map() });
      found.get(key)!.pages.set(difference.page, new Set([0]));
      continue;
    }
    const { property, target, before, after, page, element, shown } = difference;
    const text = (list: typeof before): string =>
      list
        .filter(({ condition }) => !isHiddenText(condition))
        .map(({ value, condition }) => `${value}${condition === '' ? '' : ` when ${condition}`}`)
        .join(', else ') || 'unset';
    const selector = (after[0] ?? before[0])?.from ?? '';
    const key = [property, target, text(before), text(after), selector].join('|');
    let known = found.get(key);
    if (known === undefined) {
      const one = {
        property,
        target,
        before: text(before),
        after: text(after),
        selector,
        shown,
        elements: 0,
        pages: [],
      };
      known = { one, pages: new Map() };
      found.set(key, known);
    }
    const own = known.pages.get(page);
    if (own === undefined) known.pages.set(page, new Set([element]));
    else own.add(element);
  }
  const counted = [...found.values()].map(({ one, pages }) => {
    const list = [...pages].map(([file, indexes]) => ({ path: file, elements: indexes.size }));
    return { ...one, elements: list.reduce((sum, { elements }) => sum + elements, 0), pages: list };
  });
  return joinLonghands(counted).sort((a, b) => b.elements - a.elements || (a.property < b.property ? -1 : 1));
}

/** The four sides of a padding that all change alike are told as one. */
function joinLonghands(changes: OutlastJson['changes']): OutlastJson['changes'] {
  const groups = new Map<string, OutlastJson['changes']>();
  for (const one of changes) {
    const key = JSON.stringify([one.before, one.after, one.selector, one.target, one.shown, one.pages]);
    groups.set(key, [...(groups.get(key) ?? []), one]);
  }
  return [...groups.values()].map((group) => ({
    ...group[0]!,
    property: group
      .map(({ property }) => property)
      .sort()
      .join(', '),
  }));
}

function whyText(difference: Difference): string {
  return difference.kind === 'style'
    ? `${difference.property} of ${difference.shown} would change on ${difference.page}`
    : difference.what;
}

function outlastLines(folder: string, told: OutlastJson, options: OutlastOptions): string[] {
  const all = options.all === true;
  const lines = [heading('Outlast', (options.platform ?? []).join(', '))];
  const of = (fate: Fate['kind']): OutlastJson['rules'] => told.rules.filter((one) => one.fate === fate);
  lines.push(
    row({
      count: of('holds').length,
      mark: 'kept',
      text: 'rules that lean on the platform still match and still win',
    }),
  );
  const failing = told.rules.filter(({ fate }) => fate !== 'holds');
  if (failing.length > 0) lines.push(heading('Do not hold', 'elements each reaches now'));
  for (const one of all ? failing : failing.slice(0, 16)) lines.push(...fateLines(one));
  if (!all && failing.length > 16) lines.push(more(failing.length - 16, '--all'));
  if (told.gone.length > 0) {
    lines.push(heading('Names that are gone', 'and what is styled most like them now'));
    for (const { old, likely } of all ? told.gone : told.gone.slice(0, 8))
      lines.push(
        row({
          mark: 'needs',
          text: `.${clean(old)}  ${likely === undefined ? amber('nothing like it') : `now likely .${clean(likely)}`}`,
        }),
      );
    if (!all && told.gone.length > 8) lines.push(more(told.gone.length - 8, '--all'));
  }
  lines.push(heading('Looks that change', 'elements, in spite of every override'));
  if (told.changes.length === 0)
    lines.push(row({ count: 0, text: 'elements look different after the update' }));
  for (const { property, target, before, after, selector, shown, elements, pages } of all
    ? told.changes
    : told.changes.slice(0, 10)) {
    const on =
      pages.length === 1 ? pages[0]!.path : `${grouped(pages.length)} pages, ${pages[0]?.path} first`;
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
  if (!all && told.changes.length > 10) lines.push(more(told.changes.length - 10, '--all'));
  for (const { selector, place } of told.mended ?? [])
    lines.push(row({ mark: 'made', text: `mended: ${shortSelector(selector)}`, place: showPlace(place) }));
  for (const { place, why } of told.left ?? [])
    lines.push(
      row({
        mark: 'needs',
        text: amber(`left as it is, since before the update ${clean(why)}`),
        place: showPlace(place),
      }),
    );
  if (told.mended !== undefined)
    lines.push(
      heading('Proof'),
      row({
        count: 0,
        text: `differences under the platform as it is now; ${grouped(told.files.length)} ${told.files.length === 1 ? 'file' : 'files'} written`,
      }),
    );
  const at = folder === '.' ? '' : ` ${folder}`;
  const pairs = (options.platform ?? []).map((pair) => ` --platform ${pair}`).join('');
  const mendable = failing.some(({ likely }) => likely !== undefined);
  lines.push(
    told.mended !== undefined
      ? next(`acervus undo${at}`, 'takes the mending back, byte for byte')
      : mendable
        ? next(`acervus outlast${pairs} --mend${at}`, 'writes the fixes; nothing shows before the update')
        : next(`acervus override --list${at}`, 'shows every override'),
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
  property,
  by,
  lost = 0,
}: OutlastJson['rules'][number]): string[] {
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
          text: `${head}  ${property} ${amber(`is beaten on ${grouped(lost)} by`)} ${clean(by?.value ?? '')}  ${dim(shortSelector(by?.selector ?? ''))}${many}`,
          ...where,
        }),
        ...likelyLines(likely, 'the weakest that wins'),
      ];
    case 'not needed':
      return [
        row({
          count: elements,
          mark: 'taken',
          text: `${head}  ${dim('is not needed after the update: the platform says the same')}${many}`,
          ...where,
        }),
      ];
    case 'holds':
      return [];
  }
}

function likelyLines(likely: string | undefined, what: string): string[] {
  return likely === undefined ? [] : [row({ mark: 'made', text: `${shortSelector(likely)}  ${dim(what)}` })];
}
