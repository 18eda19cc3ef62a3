// How strong a class rule must be to win where the style attribute won: what it competes with on each element.

import { ONE_CLASS, ONE_ID, type SiteModel, type StyleReader, specificityParts } from '../cascade/index.js';
import { elementsOfTag } from '../markup/index.js';
import type { Member } from '../search/index.js';
import { expandDeclaration, interactionGroup } from '../sheets/index.js';
import { placeIn } from '../source.js';
import type { KeptReason } from '../stock/index.js';

/** What one member asks of the selector: how many classes, and whether an id has to stand before them. */
export type Demand =
  | {
      readonly kind: 'classes';
      readonly classes: number /** The rule that asks for it; absent where one class is enough. */;
      readonly reason?: StrongerRule;
    }
  | { readonly kind: 'id'; readonly classes: number; readonly reason: StrongerRule }
  | { readonly kind: 'beyond'; readonly reason: StrongerRule };

export type StrongerRule = Extract<KeptReason, { kind: 'stronger rule' }>;

/** Classes are repeated in a selector at most this often: `.name.name.name`. */
const MOST_CLASSES = 3;

/**
 * The strength a class needs on all elements of one member.
 * In: `before(page)`: how many of the page's sheet references the shared sheet will follow.
 */
export function demandOf(member: Member, model: SiteModel, before: (path: string) => number): Demand {
  const { page, tag } = member.carrier;
  let most: Demand = { kind: 'classes', classes: 1 };
  const readers = model.readersOf(page);
  for (const index of elementsOfTag(page, tag)) {
    for (const reader of readers) {
      const demand = demandHere(member, reader, index, before(page.path));
      if (demand.kind === 'beyond') return demand;
      if (isMore(demand, most)) most = demand;
    }
  }
  return most;
}

function isMore(a: Exclude<Demand, { kind: 'beyond' }>, b: Demand): boolean {
  if (b.kind === 'beyond') return false;
  if (a.kind !== b.kind) return a.kind === 'id';
  return a.classes > b.classes;
}

function demandHere(member: Member, reader: StyleReader, element: number, before: number): Demand {
  const slots = slotsOf(member);
  let most: Demand = { kind: 'classes', classes: 1 };
  for (const { use, rule } of reader.matched(element)) {
    if (rule.selector.pseudoElement !== '') continue;
    for (const important of [false, true]) {
      const layered = rule.rule.layer !== undefined || use.layer !== undefined;
      // Layered rules are below all others, and above them where important.
      if (layered && !important) continue;
      const rivals = important ? rule.block().important : rule.block().normal;
      if (!rivals.some(({ longhand, value }) => competes(slots, longhand, value, important))) continue;
      const { path, offset } = use.source;
      const text = path === reader.page.path ? reader.page.text : use.program.sheet.text;
      const place = placeIn(path, text, offset + rule.rule.selectorRange.start);
      const reason: StrongerRule = { kind: 'stronger rule', selector: rule.selector.text, place };
      const [ids] = specificityParts(rule.selector.specificity);
      const rest = rule.selector.specificity - ids * ONE_ID;
      const later = use.source.reference < before;
      const classes = Math.max(1, Math.ceil((rest + (later ? 0 : 1)) / ONE_CLASS));
      if (layered || ids > 1 || classes > MOST_CLASSES) return { kind: 'beyond', reason };
      const demand: Demand =
        ids === 1 ? { kind: 'id', classes, reason } : { kind: 'classes', classes, reason };
      if (isMore(demand, most)) most = demand;
    }
  }
  return most;
}

interface Slots {
  /** Longhand to the value the member gives it, by importance. */
  readonly own: ReadonlyMap<string, { readonly value: string; readonly important: boolean }>;
  readonly groups: ReadonlySet<string>;
}

function slotsOf(member: Member): Slots {
  const own = new Map<string, { value: string; important: boolean }>();
  const groups = new Set<string>();
  for (const { declarations } of member.units) {
    for (const { property, value, important } of declarations) {
      for (const part of expandDeclaration(property, value, member.carrier.page.path)) {
        own.set(part.longhand, { value: part.value, important });
        groups.add(interactionGroup(part.longhand).name);
      }
    }
  }
  return { own, groups };
}

/** A rival declaration of the same importance, for the same longhand with another value, or for its group. */
function competes({ own, groups }: Slots, longhand: string, value: string, important: boolean): boolean {
  if (longhand === 'all') return true;
  const mine = own.get(longhand);
  if (mine !== undefined) return mine.important === important && mine.value !== value;
  const { name, kind } = interactionGroup(longhand);
  return kind !== 'plain'
    ? groups.has(name)
    : [...own.keys()].some(
        (other) => interactionGroup(other).kind !== 'plain' && interactionGroup(other).name === name,
      );
}

/** An id that an ancestor of every member has, the nearest to the first: a scope that exists already. */
export function commonScope(members: readonly Member[]): string | undefined {
  let common: string[] | undefined;
  for (const { carrier } of members) {
    const around: string[] = [];
    for (let at = carrier.element?.parent ?? -1; at >= 0; at = carrier.page.elements[at]!.parent) {
      const { id } = carrier.page.elements[at]!;
      if (id !== undefined && /^[a-zA-Z_][\w-]*$/.test(id)) around.push(id);
    }
    common = common === undefined ? around : common.filter((id) => around.includes(id));
  }
  return common?.[0];
}
