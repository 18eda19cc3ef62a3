// Changes a shared style once, where it stands, and tells what moved and what did not.

import { closest } from 'fastest-levenshtein';
import { showPlace } from '../../core/base/source.js';
import { UsageError } from '../../core/base/usage-error.js';
import {
  allRules,
  restyle as planRestyle,
  type Restyled,
  rulesUnder,
  selectorForm,
} from '../../core/change/restyle/index.js';
import { changeText, type DeclarationChange } from '../../core/edit/text/index.js';
import { elementsIn, isAsWished } from '../../core/proof/index.js';
import { isStyleSheet } from '../../core/read/kinds/index.js';
import { carryOut, NOTHING_DONE, openForChange } from '../../site/ledger/carry-out.js';
import { sourcedSheets } from '../../site/ledger/source-changes.js';
import type { WriteOptions } from '../../site/ledger/write-options.js';
import type { Site } from '../../site/rendering/load.js';
import { readDeclarations } from '../shared/declarations.js';
import type { RestyleDocument } from './document.js';

export interface RestyleOptions extends WriteOptions {
  /** The rule inside this media query. */
  readonly medium?: string | undefined;
  /** Where the value is a custom property, change that instead. */
  readonly token?: boolean | undefined;
  /** Refuse a change that does not reach every element. */
  readonly onlyIfAll?: boolean | undefined;
  /** Hears what is done now. */
  readonly onStep?: ((step: string) => void) | undefined;
}

/** @internal */
export interface RestyleResult {
  readonly document: RestyleDocument;
  readonly result: Restyled;
}

/**
 * Changes a rule of the theme; nothing is written where an element that it does not match would look different.
 * In: the site's folder; the selector as it stands in the sheet; `property: value` each, or `property:` to take it out.
 * Out: `refused` says why nothing was written. Throws `UsageError`.
 * @internal
 */
export function restyle(
  folder: string,
  selector: string,
  declarations: readonly string[],
  options: RestyleOptions = {},
): RestyleResult {
  const changes = readDeclarations(declarations);
  const site = openForChange(folder);
  if (selectorForm(selector) === undefined) throw new UsageError('not-a-selector', { text: selector });
  options.onStep?.('proving');
  const { model, isPlatform } = site;
  // A sheet that a preprocessor makes is changed where it is made.
  const sourced = sourcedSheets(site).sheets;
  const modules = [...model.sources.sheets.keys()].filter(
    (path) =>
      model.sources.isModule?.(path) === true && isStyleSheet(path) && !path.startsWith('node_modules/'),
  );
  const themes = [...site.themes, ...sourced, ...modules];
  const medium = options.medium?.replace(/^\s*@media\s*/i, '');
  const result = planRestyle(
    { model, themes, selector, changes, medium, token: options.token === true },
    (path) => isPlatform(path) && !themes.includes(path),
  );
  if ('kind' in result) throw noRule(site, selector, medium);
  // Before the sources change.
  const rules = result.rules.map((rule) => ({ ...rule, place: site.writtenAt(rule.place) }));
  const refused = refusal(result, options.onlyIfAll === true);
  const done =
    refused === undefined ? carryOut(folder, site, 'restyle', result.edits, options) : NOTHING_DONE;
  const document: RestyleDocument = {
    format: 1,
    command: 'restyle',
    selector,
    asked: changes.map(changeOrNone),
    ...done,
    ...(refused === undefined ? {} : { refused }),
    rules,
    meant: result.proof.meant,
    moved: elementsIn(result.proof.moved),
    through: result.through,
    unmoved: result.unmoved,
    strays: result.proof.strays.length + result.proof.wrong.length,
  };
  return { document, result };
}

function refusal({ proof, unmoved }: Restyled, onlyIfAll: boolean): RestyleDocument['refused'] {
  if (!isAsWished(proof)) return 'it would change what was not asked';
  return onlyIfAll && unmoved.length > 0 ? 'it would not reach all' : undefined;
}

function changeOrNone(change: DeclarationChange): string {
  return change.value === undefined ? `${change.property}: (taken out)` : changeText(change);
}

/** Why no rule of the theme is found under a selector, and where to look. */
function noRule({ model, themes, sheets }: Site, selector: string, medium: string | undefined): UsageError {
  const [elsewhere, ...others] = rulesUnder(model, themes, selector);
  if (elsewhere !== undefined) {
    if (medium !== undefined)
      return new UsageError('rule-elsewhere', { selector, medium, place: showPlace(elsewhere.place) });
    const media = new Set(
      [elsewhere, ...others].flatMap(({ rule }) =>
        rule.conditions.map(({ kind, text }) => `@${kind} ${text}`),
      ),
    );
    return new UsageError('rule-in-media', { selector, media: [...media].join(', ') });
  }
  const platform = sheets.find(
    ({ path, owner }) =>
      owner === 'platform' &&
      model.sheetAt(path)?.sheet.rules.some(({ selector: own }) => selectorForm(own)?.includes(selector)),
  );
  if (platform !== undefined) {
    const isModule = model.sources.isModule?.(platform.path) === true;
    return new UsageError(isModule ? 'rule-of-module' : 'rule-of-platform', {
      selector,
      sheet: platform.path,
    });
  }
  const known = new Set(allRules(model, themes).flatMap(({ rule }) => selectorForm(rule.selector) ?? []));
  return known.size === 0
    ? new UsageError('no-rule-at-all', { selector })
    : new UsageError('no-rule', { selector, near: closest(selector, [...known]) });
}
