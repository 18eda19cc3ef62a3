// What a survey calls broken: each finding once, with its first place and how often it stands.

import { comparePlaces, type Place } from '../base/source.js';

export type FindingKind =
  | 'doubled attribute'
  | 'id used twice'
  | 'class without a rule'
  | 'dot in a class attribute'
  | 'name in an expression'
  | 'half a state pair'
  | 'rule without a use'
  | 'unknown property'
  | 'unfitting value'
  | 'lost brace'
  | 'not a declaration'
  | 'invalid selector'
  | 'missing sheet'
  | 'no sheet found'
  | 'late import';

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
