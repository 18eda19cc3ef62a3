// `acervus restyle`: changes a shared style once, where it stands, and tells what moved and what did not.

import { closest } from 'fastest-levenshtein';
import type { z } from 'zod';
import { changeText, type DeclarationChange } from '../../../core/edits/index.js';
import { elementsIn } from '../../../core/proof/index.js';
import { allRules, type Restyled, restyle, rulesUnder, selectorForm } from '../../../core/change/restyle/index.js';
import { showPlace } from '../../../core/source.js';
import type { Site } from '../../../site/rendering/load.js';
import { UsageError } from '../../../core/usage-error.js';
import {
  carryOut,
  isPlatformIn,
  openForChange,
  strayLines,
  themesOf,
  type WriteOptions,
} from '../../shared/carry-out.js';
import { readDeclarations } from '../../shared/declarations.js';
import type { restyleDocument } from '../../everyday-documents.js';
import { doneLine, movedLines, onSite } from '../../shared/moved-lines.js';
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
  quoted,
  row,
} from '../../shared/paper.js';
import { Progress } from '../../shared/progress.js';

export interface RestyleOptions extends WriteOptions {
  readonly medium?: string;
  readonly token?: boolean;
  readonly onlyIfAll?: boolean;
  readonly all?: boolean;
}

type RestyleJson = z.infer<typeof restyleDocument>;

/** Out: 1 when it is refused, else 0. */
export function runRestyle(selector: string, words: readonly string[], options: RestyleOptions): number {
  const { changes, folder } = readDeclarations(words);
  const progress = new Progress();
  progress.say('reading the site');
  const site = openForChange(folder);
  if (selectorForm(selector) === undefined)
    throw new UsageError(`${selector}: is no selector; write it as it stands in the sheet`);
  const themes = themesOf(site);
  progress.say('proving');
  const { model } = site;
  const medium = options.medium?.replace(/^@media\s*/i, '');
  const result = restyle(
    { model, themes, selector, changes, medium, token: options.token === true },
    isPlatformIn(site),
  );
  if ('kind' in result) throw new UsageError(noRule(site, themes, selector, medium));
  const refused =
    result.proof.strays.length > 0
      ? ('it would change what was not asked' as const)
      : options.onlyIfAll === true && result.unmoved.length > 0
        ? ('it would not reach all' as const)
        : undefined;
  const done =
    refused === undefined
      ? carryOut(folder, site, 'restyle', result.edits, options)
      : { files: [], written: false };
  progress.end();
  if (options.json === true) printJson(documentOf(selector, changes, result, done, refused));
  else if (done.patch !== undefined) process.stdout.write(done.patch);
  else print(restyleLines(folder, selector, changes, result, done.files, refused, options.all === true));
  return refused === undefined ? 0 : 1;
}

function noRule(site: Site, themes: readonly string[], selector: string, medium: string | undefined): string {
  const elsewhere = rulesUnder(site.model, themes, selector);
  if (elsewhere.length > 0) {
    const media = [
      ...new Set(
        elsewhere.flatMap(({ rule }) => rule.conditions.map(({ kind, text }) => `@${kind} ${text}`)),
      ),
    ];
    return medium === undefined
      ? `${selector}: the theme has it only inside ${media.join(', ')}; name that with --medium`
      : `${selector}: the theme has no such rule inside ${medium}; it stands at ${showPlace(elsewhere[0]!.place)}`;
  }
  const platform = [...isPlatformSheets(site)].filter((path) =>
    site.model
      .sheetAt(path)
      ?.sheet.rules.some(({ selectors }) => selectorForm(selectors[0] ?? '')?.includes(selector)),
  );
  if (platform[0] !== undefined)
    return `${selector}: is a rule of the platform (${platform[0]}), which is not yours to edit; "acervus override" beats it`;
  const known = [
    ...new Set(
      allRules(site.model, themes).flatMap(({ rule }) => selectorForm(rule.selectors.at(-1)!) ?? []),
    ),
  ];
  const near = known.length === 0 ? undefined : closest(selector, known);
  return `${selector}: no rule of the theme stands under it${near === undefined ? '' : `; did you mean ${near}?`} "acervus reach" tells what styles these elements`;
}

function isPlatformSheets(site: Site): Set<string> {
  return new Set(site.sheets.filter(({ owner }) => owner === 'platform').map(({ path }) => path));
}

function documentOf(
  selector: string,
  changes: readonly DeclarationChange[],
  result: Restyled,
  done: { files: string[]; written: boolean; patch?: string },
  refused: RestyleJson['refused'],
): RestyleJson {
  const { elements, pages } = elementsIn(result.proof.moved);
  return {
    format: 1,
    command: 'restyle',
    selector,
    asked: changes.map(changeOrNone),
    ...done,
    ...(refused === undefined ? {} : { refused }),
    rules: result.rules.map((one) => ({ ...one, place: { ...one.place } })),
    meant: result.meant,
    moved: { elements, pages: [...pages] },
    unmoved: result.unmoved.map((one) => ({ ...one, place: { ...one.place } })),
    strays: result.proof.strays.length,
  };
}

function changeOrNone(change: DeclarationChange): string {
  return change.value === undefined ? `${change.property}: (taken out)` : changeText(change);
}

const REACHED_BY: Readonly<Record<Restyled['unmoved'][number]['why'], string>> = {
  'style attribute': 'its own style attribute; kept. "acervus draft" moves what repeats',
  'old attribute': 'its own old attribute; kept',
  'stronger rule': 'a stronger rule; restyle that one too',
  '!important': 'an !important rule; nothing but another beats it',
  'platform rule': 'a platform rule that is stronger; "acervus override" beats it',
  'sheet not linked': 'the page does not link the sheet',
};

function restyleLines(
  folder: string,
  selector: string,
  changes: readonly DeclarationChange[],
  result: Restyled,
  files: readonly string[],
  refused: string | undefined,
  all: boolean,
): string[] {
  const lines = [heading('Restyle', `${clean(selector)} { ${clean(changes.map(changeOrNone).join('; '))} }`)];
  const rules = all ? result.rules : result.rules.slice(0, 3);
  for (const { selector: own, place, did } of rules)
    lines.push(
      row({
        mark: 'made',
        text:
          did === 'changed'
            ? `${clean(own)} ${dim('changed where it stands')}`
            : `${clean(own)} ${dim('has a rule of its own now, behind the one it shared')}`,
        place: showPlace(place),
      }),
    );
  if (result.rules.length > rules.length)
    lines.push(more(result.rules.length - rules.length, 'places, --all'));
  lines.push(heading('Moved', `of ${grouped(result.meant)} that the selector matches`));
  lines.push(...movedLines(elementsIn(result.proof.moved), all));
  if (result.unmoved.length > 0) lines.push(heading('Not moved', 'what they have instead, and by what'));
  for (const { property, value, why, selector: by, place, elements: own } of result.unmoved) {
    const from = by === '' ? '' : `${clean(by)}: `;
    const said = value === '' ? property : `${property}: ${value}`;
    lines.push(
      row({
        count: own,
        mark: 'kept',
        text: `${declarationsLine([said])}  ${dim(from + REACHED_BY[why])}`,
        place: showPlace(place),
      }),
    );
  }
  for (const { name } of result.tokens)
    lines.push(
      row({
        mark: 'needs',
        text: amber(
          `its value was ${clean(name)}: with --token that is changed instead, for all that use it`,
        ),
      }),
    );
  if (refused !== undefined) {
    lines.push(
      heading('Refused', `${refused}; nothing was written`),
      ...strayLines(result.proof.strays, all),
    );
    lines.push(next(`acervus reach ${quoted(selector)}${onSite(folder)}`, 'tells what has a say there'));
    return lines;
  }
  lines.push(heading('Proof'), doneLine('other elements changed', files));
  lines.push(next(`acervus undo${onSite(folder)}`, 'takes it back, byte for byte'));
  return lines;
}
