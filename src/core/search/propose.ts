// Which sets of declarations become styles: sets that stand alike on several elements, then what the rest share.

import type { CarriedUnit, Carrier, KeptReason } from '../stock/index.js';

export interface Member {
  readonly carrier: Carrier;
  /** The units of this carrier that the style takes over. */
  readonly units: readonly CarriedUnit[];
}

/** A set of units that stands alike on its members. */
export interface Sharing {
  /** Keys of the units, sorted. */
  readonly keys: readonly string[];
  readonly members: readonly Member[];
}

export interface Kept {
  readonly carrier: Carrier;
  readonly unit: CarriedUnit;
  readonly reason: KeptReason;
}

export interface Proposal {
  /** Most declarations taken out first. */
  readonly sharings: readonly Sharing[];
  readonly kept: readonly Kept[];
}

interface Open {
  readonly carrier: Carrier;
  rest: Map<string, CarriedUnit>;
}

/**
 * Covers the movable declarations of all style attributes with shared sets.
 * In: carriers in a fixed order; from how many elements on a set is worth a style (at least 2). Out: the same for the
 * same input on every machine. Every unit of every carrier is in one sharing or in `kept`.
 */
export function propose(carriers: readonly Carrier[], atLeast: number): Proposal {
  const kept: Kept[] = [];
  const opens = openCarriers(carriers, atLeast, kept);
  const sharings = new Map<string, Member[]>();
  const take = (keys: readonly string[], from: readonly Open[]): void => {
    const name = keys.join('\n');
    const members = sharings.get(name) ?? [];
    sharings.set(name, members);
    for (const open of from) {
      members.push({ carrier: open.carrier, units: keys.map((key) => open.rest.get(key)!) });
      for (const key of keys) open.rest.delete(key);
    }
  };
  for (const { keys, opens: alike } of groupAlike(opens)) if (alike.length >= atLeast) take(keys, alike);
  for (;;) {
    const best = bestSet(
      opens.filter(({ rest }) => rest.size > 0),
      [...sharings.keys()],
      atLeast,
    );
    if (best === undefined) break;
    take(best.keys, best.opens);
  }
  for (const { carrier, rest } of opens) {
    for (const unit of rest.values()) kept.push({ carrier, unit, reason: { kind: 'left over' } });
  }
  return {
    sharings: [...sharings].map(([name, members]) => ({ keys: name.split('\n'), members })).sort(bySaving),
    kept,
  };
}

/** Puts aside what may not move and what is not repeated; leaves the rest open. */
function openCarriers(carriers: readonly Carrier[], atLeast: number, kept: Kept[]): Open[] {
  const times = new Map<string, number>();
  for (const { units } of carriers) {
    for (const { key, objection } of units)
      if (objection === undefined) times.set(key, (times.get(key) ?? 0) + 1);
  }
  const opens: Open[] = [];
  for (const carrier of carriers) {
    const rest = new Map<string, CarriedUnit>();
    let stays = false;
    for (const unit of carrier.units) {
      const count = times.get(unit.key) ?? 0;
      const reason: KeptReason | undefined =
        unit.objection ??
        (count >= atLeast
          ? undefined
          : count === 1
            ? { kind: 'written once' }
            : { kind: 'written seldom', times: count, atLeast });
      if (reason === undefined) rest.set(unit.key, unit);
      else {
        stays = true;
        kept.push({ carrier, unit, reason });
      }
    }
    // Without a one-to-one source text an attribute goes whole or not at all.
    if (stays && !carrier.literal) {
      for (const unit of rest.values())
        kept.push({ carrier, unit, reason: { kind: 'character references' } });
    } else if (rest.size > 0) opens.push({ carrier, rest });
  }
  return opens;
}

function groupAlike(opens: readonly Open[]): { keys: string[]; opens: Open[] }[] {
  const groups = new Map<string, { keys: string[]; opens: Open[] }>();
  for (const open of opens) {
    const keys = [...open.rest.keys()].sort();
    const name = keys.join('\n');
    const group = groups.get(name);
    if (group === undefined) groups.set(name, { keys, opens: [open] });
    else group.opens.push(open);
  }
  return [...groups.values()];
}

/** Above this many different rests, only sets that exist, whole rests and single units are tried. */
const MOST_PAIRED = 300;

/** The set whose taking removes most: existing sets count their whole use, a new one all but one. */
function bestSet(
  opens: readonly Open[],
  existing: readonly string[],
  atLeast: number,
): { keys: readonly string[]; opens: Open[] } | undefined {
  const groups = groupAlike(opens);
  const candidates = new Map<string, readonly string[]>();
  const add = (keys: readonly string[]): void => {
    if (keys.length > 0) candidates.set(keys.join('\n'), keys);
  };
  for (const name of existing) add(name.split('\n'));
  for (const { keys } of groups) {
    add(keys);
    for (const key of keys) add([key]);
  }
  if (groups.length <= MOST_PAIRED) {
    groups.forEach((a, i) => {
      for (const b of groups.slice(i + 1)) add(a.keys.filter((key) => b.opens[0]!.rest.has(key)));
    });
  }
  const known = new Set(existing);
  let best: { keys: readonly string[]; opens: Open[]; worth: number; name: string } | undefined;
  for (const [name, keys] of candidates) {
    const having = groups
      .filter(({ opens: [first] }) => keys.every((key) => first!.rest.has(key)))
      .flatMap((group) => group.opens);
    const reused = known.has(name);
    if (having.length < (reused ? 1 : atLeast)) continue;
    const worth = keys.length * (reused ? having.length : having.length - 1);
    if (best === undefined || worth > best.worth || (worth === best.worth && name < best.name))
      best = { keys, opens: having, worth, name };
  }
  return best;
}

function bySaving(a: Sharing, b: Sharing): number {
  const saving = b.keys.length * b.members.length - a.keys.length * a.members.length;
  if (saving !== 0) return saving;
  return a.keys.join('\n') < b.keys.join('\n') ? -1 : 1;
}
