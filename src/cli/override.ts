// `acervus override`: beats the platform for exactly the elements meant; lists overrides; takes one away.

import path from 'node:path';
import type { z } from 'zod';
import { changeText } from '../core/edits/index.js';
import {
  dropOverride,
  inspectRules,
  type OverrideState,
  override,
  type Planned,
  readWithin,
  rulesOfPart,
} from '../core/override/index.js';
import { elementsIn } from '../core/proof/index.js';
import { selectorForm } from '../core/restyle/index.js';
import { placeIn, showPlace } from '../core/source.js';
import type { Site } from '../site/load.js';
import { UsageError } from '../site/usage-error.js';
import { carryOut, isPlatformIn, openForChange, strayLines, type WriteOptions } from './carry-out.js';
import { readDeclarations, splitSite } from './declarations.js';
import type { overrideDocument } from './documents.js';
import {
  amber,
  clean,
  declarationsLine,
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

export interface OverrideOptions extends WriteOptions {
  readonly within?: string;
  readonly medium?: string;
  readonly everywhere?: boolean;
  readonly list?: boolean;
  readonly drop?: boolean;
  readonly all?: boolean;
}

type OverrideJson = z.infer<typeof overrideDocument>;

/** Out: 1 when it is refused, or finds overrides that do nothing, else 0. */
export function runOverride(words: readonly string[], options: OverrideOptions): number {
  if (options.list === true) return list(words, options);
  if (options.drop === true) return drop(words, options);
  const [selector, ...rest] = words;
  if (selector === undefined || selectorForm(selector) === undefined)
    throw new UsageError(
      `${selector ?? 'override'}: is no selector; write "acervus override '.kind p' 'color: teal'"`,
    );
  const { changes, folder } = readDeclarations(rest);
  const taken = changes.find(({ value }) => value === undefined);
  if (taken !== undefined)
    throw new UsageError(
      `${taken.property}: an override needs a value; "acervus override --drop" takes one away`,
    );
  const progress = new Progress();
  progress.say('reading the site');
  const site = openForChange(folder);
  const { model, shared, config } = site;
  if (isPlatformIn(site)(shared))
    throw new UsageError(
      `${shared}: is a platform sheet; set "shared" in acervus.json to a sheet of your own`,
    );
  progress.say('proving');
  const medium =
    options.medium === undefined
      ? undefined
      : spelledAsThere(site, options.medium.replace(/^@media\s*/i, ''));
  const within = readWithin(options.within, model);
  const result = override({
    model,
    shared,
    partNames: config.parts ?? {},
    selector,
    changes,
    within,
    medium,
    everywhere: options.everywhere === true,
  });
  if (result.kind === 'nothing matches')
    throw new UsageError(
      `${selector}: picks out nothing${options.within === undefined ? ' on any page' : ` within ${options.within}`}; "acervus reach '${selector}'" tells where it stands`,
    );
  if (result.kind === 'impossible') {
    const { origin, entry } = result.by;
    const by = origin.kind === 'rule' ? origin.rule.selector.text : `the ${origin.kind}`;
    throw new UsageError(
      `${entry.declaration.property}: ${entry.declaration.value} of ${by} ${result.why}; change it where it stands`,
    );
  }
  const refused = result.proof.strays.length > 0 || result.amiss.length > 0;
  const done = refused
    ? { files: [], written: false }
    : carryOut(folder, site, 'override', result.edits, options);
  progress.end();
  const { elements, pages } = elementsIn(result.proof.moved);
  const document: OverrideJson = {
    format: 1,
    command: 'override',
    did: 'override',
    selector,
    asked: changes.map(changeText),
    ...done,
    refused,
    rules: result.rules.map(({ medium: around, declarations, ...one }) => ({
      ...one,
      ...(around === undefined ? {} : { medium: around }),
      declarations: [...declarations],
    })),
    important: result.important,
    meant: result.meant,
    moved: { elements, pages: [...pages] },
    strays: result.proof.strays.length + result.amiss.length,
  };
  if (options.json === true) printJson(document);
  else if (done.patch !== undefined) process.stdout.write(done.patch);
  else print(overrideLines(folder, document, result, options.all === true));
  return refused ? 1 : 0;
}

/** A media query that a sheet of the site writes with other spaces is the same one. */
function spelledAsThere({ model }: Site, medium: string): string {
  const form = (text: string): string => text.replace(/\s+/g, '').toLowerCase();
  for (const file of model.sources.sheets.keys())
    for (const { conditions } of model.sheetAt(file)?.sheet.rules ?? [])
      for (const { kind, text } of conditions)
        if (kind === 'media' && form(text) === form(medium)) return text;
  return medium;
}

function overrideLines(folder: string, told: OverrideJson, result: Planned, all: boolean): string[] {
  const lines = [heading('Override', `${clean(told.selector ?? '')} { ${clean(told.asked.join('; '))} }`)];
  for (const { selector, medium, declarations, role, did } of told.rules) {
    const around = medium === undefined ? '' : dim(`${clean(medium)} `);
    const said = `${around}${shortSelector(selector)} { ${declarationsLine(declarations)} }`;
    const aside =
      role === 'kept'
        ? 'said again: it stays as it was in that state or medium'
        : did === 'written'
          ? 'the weakest selector that wins'
          : `there already, ${did}`;
    lines.push(
      row({
        mark: role === 'kept' ? 'kept' : 'made',
        text: `${said}  ${dim(aside)}`,
        place: result.paths.length === 1 ? result.paths[0]! : `${result.paths.length} pages`,
      }),
    );
  }
  if (told.important)
    lines.push(
      row({
        mark: 'needs',
        text: amber(
          '!important: what it must beat is !important or a style attribute, and nothing less wins',
        ),
      }),
    );
  lines.push(heading('Beats', 'elements on which each said it until now'));
  const beats = new Map<string, { count: number; text: string; place: string }>();
  for (const { one, elements } of result.beats) {
    const { origin, entry, important } = one;
    const from = origin.kind === 'rule' ? origin.rule.selector.text : origin.kind;
    const said = `${entry.declaration.property}: ${entry.declaration.value}${important ? ' !important' : ''}`;
    const place =
      origin.kind === 'rule'
        ? showPlace(
            placeIn(
              origin.use.source.path,
              origin.use.source.text,
              origin.use.source.offset + entry.declaration.range.start,
            ),
          )
        : '';
    const key = `${from} ${said} ${place}`;
    beats.set(key, {
      count: Math.max(elements, beats.get(key)?.count ?? 0),
      text: `${declarationsLine([said])}  ${dim(clean(from))}`,
      place,
    });
  }
  const shown = all ? [...beats.values()] : [...beats.values()].slice(0, 5);
  for (const { count, text, place } of shown) lines.push(row({ count, mark: 'taken', text, place }));
  if (beats.size > shown.length) lines.push(more(beats.size - shown.length, '--all'));
  if (beats.size === 0) lines.push(row({ count: 0, text: 'rules: nothing said it' }));
  lines.push(heading('Moved', `of ${grouped(told.meant)} that are meant`));
  lines.push(
    row({
      count: told.moved.elements,
      mark: 'made',
      text: `${told.moved.elements === 1 ? 'element' : 'elements'} of ${grouped(told.moved.pages.length)} ${told.moved.pages.length === 1 ? 'page' : 'pages'}`,
    }),
  );
  for (const { path: file, elements } of all ? told.moved.pages : told.moved.pages.slice(0, 4))
    lines.push(row({ count: elements, text: dim(clean(file)) }));
  if (!all && told.moved.pages.length > 4) lines.push(more(told.moved.pages.length - 4, 'pages, --all'));
  if (told.refused) {
    lines.push(heading('Refused', 'it would reach further than asked, or not as asked; nothing was written'));
    lines.push(...strayLines(result.proof.strays, all));
    lines.push(
      ...result.amiss.slice(0, all ? undefined : 6).map((text) => row({ mark: 'broken', text: clean(text) })),
    );
    lines.push(next(`acervus reach '${told.selector}'${at(folder)}`, 'tells what has a say there'));
    return lines;
  }
  lines.push(
    heading('Proof'),
    row({
      count: 0,
      text: `other elements changed; ${grouped(told.files.length)} ${told.files.length === 1 ? 'file' : 'files'} written`,
    }),
  );
  lines.push(next(`acervus override --list${at(folder)}`, 'shows every override, and whether it is needed'));
  return lines;
}

function list(words: readonly string[], options: OverrideOptions): number {
  const { folder } = splitSite(words);
  const site = openForChange(folder);
  const { model, shared, config } = site;
  const isPlatform = isPlatformIn(site);
  const rules = rulesOfPart(model, shared, config.parts ?? {});
  const states = inspectRules(model, rules, isPlatform);
  const text = model.sources.sheets.get(shared) ?? '';
  const overrides = states.map((state) => stateJson(state, shared, text));
  const idle = overrides.filter(({ verdict }) => verdict !== 'needed').length;
  const document: OverrideJson = { ...EMPTY, did: 'list', overrides };
  if (options.json === true) printJson(document);
  else print(listLines(folder, shared, overrides, options.all === true));
  return idle > 0 ? 1 : 0;
}

const EMPTY: OverrideJson = {
  format: 1,
  command: 'override',
  did: 'list',
  asked: [],
  written: false,
  files: [],
  refused: false,
  rules: [],
  important: false,
  meant: 0,
  moved: { elements: 0, pages: [] },
  strays: 0,
};

type OverrideEntry = NonNullable<OverrideJson['overrides']>[number];

function stateJson(
  { rule, elements, pages, declarations, verdict }: OverrideState,
  file: string,
  text: string,
): OverrideEntry {
  return {
    selector: rule.selectors.at(-1) ?? '',
    ...(rule.conditions[0] === undefined
      ? {}
      : { medium: `@${rule.conditions[0].kind} ${rule.conditions[0].text}` }),
    place: placeIn(file, text, rule.selectorRange.start),
    elements,
    pages,
    verdict,
    declarations: declarations.map(
      ({ property, value, important, wins, waits, beaten, needed, beats, by }) => ({
        ...{ property, value, important, wins, waits, beaten, needed },
        beats: beats.map((one) => ({ ...one, place: { ...one.place } })),
        by: by.map((one) => ({ ...one, place: { ...one.place } })),
      }),
    ),
  };
}

const VERDICTS: Readonly<Record<OverrideEntry['verdict'], string>> = {
  needed: 'needed',
  'matches nothing': 'matches nothing on any page',
  beaten: 'beaten wherever it matches',
  'not needed': 'not needed: it says what would be so anyway',
};

function listLines(
  folder: string,
  shared: string,
  overrides: readonly OverrideEntry[],
  all: boolean,
): string[] {
  const lines = [heading('Overrides', `in ${shared}: elements each reaches, and what it beats there`)];
  if (overrides.length === 0) lines.push(row({ count: 0, text: 'overrides stand in the part of that name' }));
  for (const { selector, medium, place, elements, pages, verdict, declarations } of overrides) {
    const around = medium === undefined ? '' : dim(`${clean(medium)} `);
    const reach = `${grouped(pages)} ${pages === 1 ? 'page' : 'pages'}`;
    lines.push(
      row({
        count: elements,
        mark: verdict === 'needed' ? 'kept' : 'needs',
        text: `${around}${shortSelector(selector)}  ${verdict === 'needed' ? dim(`needed, on ${reach}`) : amber(VERDICTS[verdict])}`,
        place: showPlace(place),
      }),
    );
    for (const one of declarations) {
      const said = `${one.property}: ${one.value}${one.important ? ' !important' : ''}`;
      lines.push(
        row({
          count: one.wins,
          text: `  ${declarationsLine([said])}${one.waits > 0 ? dim(`  in some state or medium on ${grouped(one.waits)}`) : ''}`,
        }),
      );
      for (const { selector: from, value, elements: on, place: where } of one.beats.slice(
        0,
        all ? undefined : 2,
      ))
        lines.push(
          row({
            count: on,
            mark: 'taken',
            text: `  ${dim(`${clean(value)}  ${shortSelector(from)}`)}`,
            place: where.path === '' ? '' : showPlace(where),
          }),
        );
      for (const { selector: from, value, elements: on, place: where } of one.by.slice(
        0,
        all ? undefined : 2,
      ))
        lines.push(
          row({
            count: on,
            mark: 'needs',
            text: `  ${amber('beaten by')} ${clean(value)}  ${shortSelector(from)}`,
            place: where.path === '' ? '' : showPlace(where),
          }),
        );
    }
  }
  const idle = overrides.find(({ verdict }) => verdict !== 'needed');
  lines.push(
    idle === undefined
      ? next(`acervus outlast --platform OLD=NEW${at(folder)}`, 'tells which of them survive an update')
      : next(
          `acervus override --drop '${clean(idle.selector)}'${at(folder)}`,
          'takes away what does nothing',
        ),
  );
  return lines;
}

function drop(words: readonly string[], options: OverrideOptions): number {
  const { rest, folder } = splitSite(words);
  const [selector, ...properties] = rest;
  if (selector === undefined)
    throw new UsageError('--drop: name the selector of the override, as "acervus override --list" shows it');
  const site = openForChange(folder);
  const { model, shared, config } = site;
  const rules = rulesOfPart(model, shared, config.parts ?? {});
  const names = properties.map((one) => one.replace(/\s*:.*$/, '').toLowerCase());
  const dropped = dropOverride(model, shared, config.parts ?? {}, rules, selector, names);
  if (dropped === undefined)
    throw new UsageError(
      `${selector}: no override stands under it in ${shared}; "acervus override --list" shows them`,
    );
  const refused = dropped.proof.strays.length > 0;
  const done = refused
    ? { files: [], written: false }
    : carryOut(folder, site, 'override --drop', dropped.edits, options);
  const { elements, pages } = elementsIn(dropped.proof.moved);
  const text = model.sources.sheets.get(shared) ?? '';
  const document: OverrideJson = {
    ...EMPTY,
    did: 'drop',
    selector,
    ...done,
    refused,
    moved: { elements, pages: [...pages] },
    strays: dropped.proof.strays.length,
  };
  if (options.json === true) printJson(document);
  else if (done.patch !== undefined) process.stdout.write(done.patch);
  else {
    const lines = [heading('Override', `${clean(selector)} taken away`)];
    for (const rule of dropped.rules)
      lines.push(
        row({
          mark: 'taken',
          text: clean(`${rule.selectors.at(-1)} { ${rule.declarations.map(changeText).join('; ')} }`),
          place: showPlace(placeIn(shared, text, rule.selectorRange.start)),
        }),
      );
    lines.push(
      row({
        count: elements,
        mark: 'made',
        text: `${elements === 1 ? 'element looks' : 'elements look'} again as the platform has it, on ${grouped(pages.length)} ${pages.length === 1 ? 'page' : 'pages'}`,
      }),
    );
    if (refused)
      lines.push(
        heading('Refused', 'it would change other elements; nothing was written'),
        ...strayLines(dropped.proof.strays, options.all === true),
      );
    lines.push(next(`acervus undo${at(folder)}`, 'puts it back'));
    print(lines);
  }
  return refused ? 1 : 0;
}

function at(folder: string): string {
  return folder === '.' ? '' : ` ${path.normalize(folder)}`;
}
