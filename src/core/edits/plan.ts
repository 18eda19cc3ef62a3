// Styles to edits: which tags change, which pages need the link, and what is written into the shared sheet.

import type { SiteModel, SiteSources } from '../cascade/index.js';
import type { Member } from '../search/index.js';
import type { Carrier, KeptReason } from '../stock/index.js';
import { moveToClasses } from './attributes.js';
import { applyEdits, type Edit } from './edit.js';
import { planLink } from './link.js';
import { type Placed, partOf, type SharedRule, writeRules } from './shared-sheet.js';
import type { StrongerRule } from './strength.js';

/** A style ready to be written. */
export interface Move {
  readonly name: string;
  /** `.name`, or what it takes to win: `.name.name`, `#content .name`. */
  readonly selector: string;
  /** The rule that made a plain `.name` too weak. */
  readonly beats: StrongerRule | undefined;
  readonly written: readonly Placed[];
  readonly members: readonly Member[];
}

export interface SitePlan {
  /** Edits by path of an existing file; a file not in the sources is created from an empty text. */
  readonly edits: ReadonlyMap<string, readonly Edit[]>;
  readonly after: SiteSources;
  /** Members that could not be written, with the reason. */
  readonly unwritten: readonly {
    readonly move: Move;
    readonly member: Member;
    readonly reason: KeptReason;
  }[];
}

/** Plans all edits of a set of moves. In: `shared`, the site path of the shared sheet. */
export function planEdits(model: SiteModel, moves: readonly Move[], shared: string): SitePlan {
  const edits = new Map<string, Edit[]>();
  const unwritten: { move: Move; member: Member; reason: KeptReason }[] = [];
  const written = new Set<Move>();
  const touched = new Set<string>();
  let component = false;
  for (const [carrier, parts] of byCarrier(moves)) {
    const taken = parts.flatMap(({ member }) => member.units.flatMap((unit) => unit.declarations));
    const changes = moveToClasses(
      carrier,
      taken,
      parts.map(({ move }) => move.name),
    );
    if (changes === undefined) {
      for (const part of parts) unwritten.push({ ...part, reason: { kind: 'character references' } });
      continue;
    }
    for (const { move } of parts) written.add(move);
    push(edits, carrier.page.path, changes);
    touched.add(carrier.page.path);
    component ||= carrier.page.kind === 'component';
  }
  const rules = moves.filter((move) => written.has(move)).map(ruleOf);
  if (rules.length > 0) {
    push(edits, shared, writeRules(model.sources.sheets.get(shared) ?? '', shared, rules));
    for (const page of model.pages) {
      // A component may be on any page: then every page needs the sheet.
      if (page.kind !== 'page' || !(component || touched.has(page.path)) || page.base !== undefined) continue;
      const { edit } = planLink(page, shared, (address) => model.copyOf(address));
      if (edit !== undefined) push(edits, page.path, [edit]);
    }
  }
  return { edits, after: applyToSources(model.sources, edits, shared), unwritten };
}

function byCarrier(moves: readonly Move[]): Map<Carrier, { move: Move; member: Member }[]> {
  const carriers = new Map<Carrier, { move: Move; member: Member }[]>();
  for (const move of moves) {
    for (const member of move.members) {
      const parts = carriers.get(member.carrier);
      if (parts === undefined) carriers.set(member.carrier, [{ move, member }]);
      else parts.push({ move, member });
    }
  }
  return carriers;
}

function ruleOf({ selector, written }: Move): SharedRule {
  return { selector, part: partOf(written.map(({ declaration }) => declaration)), declarations: written };
}

function applyToSources(
  sources: SiteSources,
  edits: ReadonlyMap<string, readonly Edit[]>,
  shared: string,
): SiteSources {
  const pages = new Map(sources.pages);
  const sheets = new Map(sources.sheets);
  for (const [path, changes] of edits) {
    const page = sources.pages.get(path);
    if (path !== shared && page !== undefined) pages.set(path, applyEdits(page, changes));
    else sheets.set(path, applyEdits(sources.sheets.get(path) ?? '', changes));
  }
  return { ...sources, pages, sheets };
}

function push(edits: Map<string, Edit[]>, path: string, changes: readonly Edit[]): void {
  const known = edits.get(path);
  if (known === undefined) edits.set(path, [...changes]);
  else known.push(...changes);
}
