// Between the draft file and the core: what the search found becomes a draft, what a person left in it becomes styles.

import { createHash } from 'node:crypto';
import { compileSelectorList } from '../core/cascade/index.js';
import { declarationText, type Placed } from '../core/edits/index.js';
import { splitTokens } from '../core/markup/index.js';
import { type NamedStyle, type Vouched, vouch } from '../core/proof/index.js';
import { type Kept, type Member, nameSharings, propose } from '../core/search/index.js';
import { parseDeclarations } from '../core/sheets/index.js';
import { placeIn, showPlace } from '../core/source.js';
import {
  type Carrier,
  groupBy,
  inlineCarriers,
  type KeptReason,
  keptText,
  unitsOf,
} from '../core/stock/index.js';
import { DRAFT_FILE, type Draft, type DraftStyle, styleKey } from './draft-file.js';
import type { Site } from './load.js';
import { UsageError } from './usage-error.js';

export interface Drafted {
  readonly draft: Draft;
  readonly vouched: Vouched;
  readonly kept: readonly Kept[];
}

/**
 * Searches, names and proves in advance, so that the draft says what adopting it will do.
 * In: `earlier`, a draft whose names and refusals are taken over where its styles are found again.
 */
export function makeDraft(
  site: Site,
  atLeast: number,
  earlier: Draft | undefined,
  onRound?: (round: number) => void,
): Drafted {
  const carriers = inlineCarriers(site.model, site.scripts);
  const { sharings, kept } = propose(carriers, atLeast);
  const known = new Map((earlier?.styles ?? []).map((style) => [styleKey(style.declarations), style]));
  const written = sharings.map((sharing) => writtenOf(sharing.members[0]!));
  const keyOf = (declarations: readonly Placed[]): string =>
    styleKey(declarationsText(declarations, site.shared));
  const taken = namesInUse(site);
  for (const { name } of known.values()) taken.add(name.toLowerCase());
  const fresh = nameSharings(sharings, {
    platform: platformClasses(site),
    taken,
    sensitive: sensitiveTexts(site),
  });
  const styles: NamedStyle[] = sharings.map(({ members }, at) => ({
    name: known.get(keyOf(written[at]!))?.name ?? fresh[at]!,
    written: written[at]!,
    members,
  }));
  const vouched = vouch(site.model, styles, { shared: site.shared, atLeast, ...(onRound && { onRound }) });
  const allKept = [...kept, ...vouched.kept];
  const draft: Draft = {
    format: 1,
    shared: site.shared,
    'at-least': atLeast,
    styles: vouched.moves.map((move): DraftStyle => {
      const earlierStyle = known.get(keyOf(move.written));
      const count = move.written.length;
      return {
        name: move.name,
        take: earlierStyle?.take ?? true,
        ...(earlierStyle?.into === undefined ? {} : { into: earlierStyle.into }),
        ...(move.beats === undefined
          ? {}
          : { selector: move.selector, beats: `${move.beats.selector} (${showPlace(move.beats.place)})` }),
        on: onText(move.members),
        saves: count * (move.members.length - 1),
        declarations: declarationsText(move.written, site.shared),
        where: whereOf(move.members),
      };
    }),
    kept: keptOf(allKept),
    // Last, since nobody reads it: for seeing what changed.
    sources: Object.fromEntries(
      [...new Set(carriers.map(({ page }) => page))].map((page) => [page.path, fingerprint(page.text)]),
    ),
  };
  return { draft, vouched, kept: allKept };
}

export interface Resolved {
  readonly styles: readonly NamedStyle[];
  readonly kept: readonly Kept[];
  /** Pages that changed since the draft, or are gone. */
  readonly changed: readonly string[];
}

/** What a draft means on the site as it is now. Throws `UsageError` for what cannot be carried out. */
export function resolveDraft(site: Site, draft: Draft): Resolved {
  const carriers = inlineCarriers(site.model, site.scripts);
  const byPage = groupBy(carriers, ({ page }) => page.path);
  const changed = Object.entries(draft.sources).flatMap(([path, print]) => {
    const page = site.model.page(path);
    return page !== undefined && fingerprint(page.text) === print ? [] : [path];
  });
  const inUse = namesInUse(site);
  const claimed = new Map<Carrier, Map<string, string>>();
  const kept: Kept[] = [];
  const styles = draft.styles.flatMap((style, index): NamedStyle[] => {
    const target = style.into === undefined ? style : draft.styles.find(({ name }) => name === style.into)!;
    const written = parseWritten(target, site.shared, index);
    const keys = unitsOf(
      written.map(({ declaration }) => declaration),
      site.shared,
    ).map(({ key }) => key);
    if (style !== target) checkMerge(style, keys, site.shared, index);
    if (style.take && style === target && inUse.has(style.name.toLowerCase())) {
      throw new UsageError(
        `${DRAFT_FILE}: styles[${index}].name: .${style.name} is in use on the site already; choose another name`,
      );
    }
    const members: Member[] = [];
    for (const [path, text] of Object.entries(style.where)) {
      const wanted = new Set(text.split(/\s+/));
      for (const carrier of byPage.get(path) ?? []) {
        if (!changed.includes(path) && !wanted.has(placeOf(carrier))) continue;
        const units = keys.map((key) => carrier.units.find((unit) => unit.key === key));
        if (units.some((unit) => unit === undefined)) {
          if (!changed.includes(path))
            for (const unit of carrier.units)
              if (keys.includes(unit.key)) kept.push({ carrier, unit, reason: { kind: 'gone' } });
          continue;
        }
        const own = units.flatMap((unit) => unit ?? []);
        const reason = style.take
          ? whyNot(own, carrier, claimed, target.name)
          : ({ kind: 'refused' } as const);
        if (reason === undefined) members.push({ carrier, units: own });
        else for (const unit of own) kept.push({ carrier, unit, reason });
      }
    }
    return style.take ? [{ name: target.name, written, members }] : [];
  });
  return { styles: mergeByName(styles), kept, changed };
}

function whyNot(
  units: readonly Member['units'][number][],
  carrier: Carrier,
  claimed: Map<Carrier, Map<string, string>>,
  name: string,
): KeptReason | undefined {
  const taken = claimed.get(carrier) ?? new Map<string, string>();
  for (const { key, objection } of units) {
    const by = taken.get(key);
    if (objection !== undefined) return objection;
    if (by !== undefined) return { kind: 'taken', by };
  }
  for (const { key } of units) taken.set(key, name);
  claimed.set(carrier, taken);
  return undefined;
}

function mergeByName(styles: readonly NamedStyle[]): NamedStyle[] {
  return [...groupBy(styles, ({ name }) => name).values()].map((group) => ({
    ...group[0]!,
    members: group.flatMap(({ members }) => members),
  }));
}

function parseWritten(style: DraftStyle, shared: string, index: number): Placed[] {
  const { declarations, defects } = parseDeclarations(style.declarations);
  if (declarations.length === 0 || defects.length > 0) {
    const what = defects[0] === undefined ? 'holds none' : `«${defects[0].detail}» is none`;
    throw new UsageError(
      `${DRAFT_FILE}: styles[${index}].declarations: expected CSS declarations, and ${what} (style "${style.name}")`,
    );
  }
  return declarations.map((declaration) => ({ declaration, holder: shared }));
}

function checkMerge(style: DraftStyle, keys: readonly string[], shared: string, index: number): void {
  const own = unitsOf(parseDeclarations(style.declarations).declarations, shared).map(({ key }) => key);
  const lacking = keys.find((key) => !own.includes(key));
  if (lacking === undefined) return;
  throw new UsageError(
    `${DRAFT_FILE}: styles[${index}].into: "${style.name}" cannot go into "${style.into}": it lacks ${lacking.replace(':', ': ')}`,
  );
}

function writtenOf({ carrier, units }: Member): Placed[] {
  return units.flatMap(({ declarations }) =>
    declarations.map((declaration) => ({ declaration, holder: carrier.page.path })),
  );
}

function declarationsText(written: readonly Placed[], shared: string): string {
  return written
    .map(({ declaration, holder }) => `${declarationText(declaration, holder, shared)};\n`)
    .join('');
}

function onText(members: readonly Member[]): string {
  const pages = new Set(members.map(({ carrier }) => carrier.page.path)).size;
  return `${members.length} elements on ${pages} page${pages === 1 ? '' : 's'}`;
}

/** `line:column` of a carrier's tag. */
function placeOf({ page, tag, range }: Carrier): string {
  const { line, column } = placeIn(page.path, page.text, tag?.range.start ?? range.start);
  return `${line}:${column}`;
}

function whereOf(members: readonly Member[]): Record<string, string> {
  const pages = groupBy(members, ({ carrier }) => carrier.page.path);
  return Object.fromEntries(
    [...pages].map(([path, own]) => [path, own.map(({ carrier }) => placeOf(carrier)).join(' ')]),
  );
}

function keptOf(kept: readonly Kept[]): Draft['kept'] {
  const reasons = groupBy(kept, ({ reason }) => keptText(reason));
  return [...reasons]
    .map(([reason, group]) => ({
      reason,
      declarations: group.reduce((sum, { unit }) => sum + unit.declarations.length, 0),
      where: Object.fromEntries(
        [...groupBy(group, ({ carrier }) => carrier.page.path)].map(([path, own]) => [
          path,
          own.map(
            ({ carrier, unit }) =>
              `${placeOf(carrier)} ${unit.declarations.map(({ property, value }) => `${property}: ${value}`).join('; ')}`,
          ),
        ]),
      ),
    }))
    .sort((a, b) => b.declarations - a.declarations || (a.reason < b.reason ? -1 : 1));
}

/** Lower case: classes of the markup, of every sheet's selectors, and of template text. */
function namesInUse(site: Site): Set<string> {
  const names = new Set<string>();
  for (const page of site.model.pages) {
    for (const { classes } of page.elements) for (const name of classes) names.add(name.toLowerCase());
  }
  for (const { selectors } of allRules(site)) {
    for (const text of selectors)
      for (const [, name] of text.matchAll(/\.(-?[_a-zA-Z][\w-]*)/g)) names.add(name!.toLowerCase());
  }
  return names;
}

function platformClasses(site: Site): Set<string> {
  const names = new Set<string>();
  for (const { path, owner } of site.sheets) {
    if (owner !== 'platform') continue;
    for (const { selectors } of site.model.sheetAt(path)?.sheet.rules ?? []) {
      for (const text of selectors)
        for (const [, name] of text.matchAll(/\.(-?[_a-zA-Z][\w-]*)/g)) names.add(name!);
    }
  }
  return names;
}

function* allRules(site: Site): Iterable<{ readonly selectors: readonly string[] }> {
  for (const path of site.model.sources.sheets.keys()) yield* site.model.sheetAt(path)?.sheet.rules ?? [];
  const seen = new Set<string>();
  for (const page of site.model.pages) {
    for (const reference of page.sheets) {
      if (reference.kind !== 'block' || seen.has(reference.text)) continue;
      seen.add(reference.text);
      yield* site.model.block(reference.text, page).sheet.rules;
    }
  }
}

/** What attribute selectors on `class` look for: a new name must not make them match. */
function sensitiveTexts(site: Site): { operator: string; value: string }[] {
  const found: { operator: string; value: string }[] = [];
  for (const { selectors } of allRules(site)) {
    for (const text of selectors) {
      if (!/\[\s*class\s*[*^$|]=/i.test(text)) continue;
      const list = compileSelectorList(text);
      if (list.kind === 'invalid') continue;
      for (const { compounds } of list.selectors) {
        for (const { rest } of compounds) {
          for (const simple of rest) {
            if (simple.kind === 'attribute' && simple.name === 'class' && simple.operator !== undefined) {
              for (const value of splitTokens(simple.value)) found.push({ operator: simple.operator, value });
            }
          }
        }
      }
    }
  }
  return found;
}

/** Short, for seeing whether a page changed. */
export function fingerprint(text: string): string {
  return createHash('sha256').update(text).digest('hex').slice(0, 12);
}
