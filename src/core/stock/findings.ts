// What a survey calls broken: each finding once, with its first place and how often it stands.

import { comparePlaces, type Place } from '../base/source.js';

/** By kind, what several of it are called. */
export const FINDINGS = {
  'doubled attribute': 'doubled attributes',
  'id used twice': 'ids used twice',
  'class without a rule': 'classes without a rule',
  'dot in a class attribute': 'dots in class attributes',
  'name in an expression': 'names in expressions',
  'half a state pair': 'halves of a pair of states',
  'rule without a use': 'unused rules',
  'unknown property': 'unknown properties',
  'unfitting value': 'unfitting values',
  'lost brace': 'lost braces',
  'not a declaration': 'texts that are no declarations',
  'invalid selector': 'invalid selectors',
  'missing sheet': 'missing sheets',
  'no sheet found': 'sheets that are not found',
  'late import': 'late imports',
} as const;

export type FindingKind = keyof typeof FINDINGS;

export const FINDING_KINDS = Object.keys(FINDINGS) as [FindingKind, ...FindingKind[]];

export interface Finding {
  readonly kind: FindingKind;
  /** What is there, and what to do, in one breath. */
  readonly message: string;
  readonly place: Place;
  /** How often it stands on the site; `place` is the first. */
  readonly times: number;
}

export class FindingList {
  readonly #findings = new Map<string, Finding>();

  /** `key` names what is the same thing written again: it is shown once, with a count. */
  add(
    kind: FindingKind,
    message: string,
    place: Place,
    times = 1,
    key = `${place.path}:${place.line}:${place.column}`,
  ): void {
    const id = `${kind}\0${message}\0${key}`;
    const known = this.#findings.get(id);
    if (known === undefined) this.#findings.set(id, { kind, message, place, times });
    else {
      const first = comparePlaces(known.place, place) <= 0 ? known.place : place;
      this.#findings.set(id, { ...known, place: first, times: known.times + times });
    }
  }

  /** By kind, then by place. */
  sorted(): Finding[] {
    return [...this.#findings.values()].sort((a, b) =>
      a.kind < b.kind ? -1 : a.kind > b.kind ? 1 : comparePlaces(a.place, b.place),
    );
  }
}
