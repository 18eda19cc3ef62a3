// `acervus override`: beats the platform for exactly the elements meant; lists overrides; takes one away.

import type { z } from 'zod';
import { changeText } from '../../../core/edits/index.js';
import { dropOverride, inspectRules, override, readWithin, rulesOfPart } from '../../../core/change/override/index.js';
import { elementsIn } from '../../../core/proof/index.js';
import { selectorForm } from '../../../core/change/restyle/index.js';
import { placeIn, showPlace } from '../../../core/source.js';
import type { Site } from '../../../site/rendering/load.js';
import { UsageError } from '../../../core/usage-error.js';
import { carryOut, isPlatformIn, openForChange, strayLines, type WriteOptions } from '../../shared/carry-out.js';
import { readDeclarations, splitSite } from '../../shared/declarations.js';
import type { overrideDocument } from '../../everyday-documents.js';
import { onSite, plural } from '../../shared/moved-lines.js';
import { listLines, overrideLines, stateJson } from './lines.js';
import { clean, heading, next, print, printJson, quoted, row } from '../../shared/paper.js';
import { Progress } from '../../shared/progress.js';

export interface OverrideOptions extends WriteOptions {
  readonly within?: string;
  readonly medium?: string;
  readonly everywhere?: boolean;
  readonly list?: boolean;
  readonly drop?: boolean;
  readonly all?: boolean;
}

export type OverrideJson = z.infer<typeof overrideDocument>;

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
      `${selector}: picks out nothing${options.within === undefined ? ' on any page' : ` within ${options.within}`}; "acervus reach ${quoted(selector)}" tells where it stands`,
    );
  if (result.kind === 'impossible') {
    const { origin, entry } = result.by;
    const by = origin.kind === 'rule' ? origin.rule.selector.text : `the ${origin.kind}`;
    throw new UsageError(
      `${entry.declaration.property}: ${entry.declaration.value} of ${by} ${result.why}; change it where it stands`,
    );
  }
  const refused = result.proof.strays.length > 0 || result.unmet.length > 0;
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
    strays: result.proof.strays.length + result.unmet.length,
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
        text: `${elements === 1 ? 'element looks' : 'elements look'} again as without it, on ${plural(pages.length, 'page')}`,
      }),
    );
    if (refused)
      lines.push(
        heading('Refused', 'it would change other elements; nothing was written'),
        ...strayLines(dropped.proof.strays, options.all === true),
      );
    lines.push(next(`acervus undo${onSite(folder)}`, 'puts it back'));
    print(lines);
  }
  return refused ? 1 : 0;
}
