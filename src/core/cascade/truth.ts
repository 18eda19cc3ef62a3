// Conditions that a static reading leaves open, as interned expressions: equal meaning in equal form is equal number.

import { getOrInsert, newMap } from '../base/get-or-insert.js';

declare const truth: unique symbol;

/**
 * An interned condition: `NEVER`, `ALWAYS`, or open. Equal meaning is identity within one table. It is a number inside this
 * file and nowhere else, so that nobody asks whether one is 1.
 */
export interface Truth {
  readonly [truth]: 'never, always or open';
}

export const NEVER = truthOf(0);
export const ALWAYS = truthOf(1);

function truthOf(number: number): Truth {
  return number as unknown as Truth;
}

function numberOf(one: Truth): number {
  return one as unknown as number;
}

/** Two numbers below it make one. */
const MOST_CONDITIONS = 2 ** 26;
const MOST_PAIRS = 100_000;

/** Interns conditions of one comparison. Both states must use the same table, so that equality is identity. */
export class TruthTable {
  readonly #numbers = new Map<string, Truth>();
  readonly #literals = new Map<string, Truth>();
  /** Literals about other elements, by where these stand and what is declared of them. */
  readonly #elsewhere = new Map<string, Map<string, Truth>>();
  /** What two conditions come to, by the numbers of both: most are asked for again and again. */
  readonly #pairs = { and: new Map<number, Truth>(), or: new Map<number, Truth>() };
  /** Of literals; those of the others are put together when asked for. */
  readonly #texts: (string | undefined)[] = ['never', 'always'];
  readonly #parts: (readonly Truth[])[] = [[], []];
  readonly #kinds: ('literal' | 'and' | 'or' | 'not')[] = ['literal', 'literal'];

  /** Sets of names, each with the number of its key. */
  readonly #nameSets = new Map<string, string>();

  /** A short text for a set of names: equal texts, equal names. */
  namesKey(names: ReadonlySet<string> | undefined): string {
    if (names === undefined) return '';
    return getOrInsert(this.#nameSets, [...names].sort().join(' '), () => String(this.#nameSets.size + 1));
  }

  /** In: what must hold, in words that name it fully: `@media print`, `:hover on parent`. */
  literal(text: string): Truth {
    return this.#literals.get(text) ?? this.#internLiteral(text);
  }

  /** The same of another element. In: `where`, as seen from the one that is asked about. */
  literalOn(text: string, where: string): Truth {
    const byText = getOrInsert(this.#elsewhere, where, newMap<string, Truth>);
    return byText.get(text) ?? getOrInsert(byText, text, () => this.literal(`${text} on ${where}`));
  }

  and(...members: readonly Truth[]): Truth {
    return this.#combine('and', members, ALWAYS, NEVER);
  }

  or(...members: readonly Truth[]): Truth {
    return this.#combine('or', members, NEVER, ALWAYS);
  }

  not(member: Truth): Truth {
    if (member === NEVER) return ALWAYS;
    if (member === ALWAYS) return NEVER;
    if (this.#kinds[numberOf(member)] === 'not') return this.#parts[numberOf(member)]![0]!;
    return this.#intern('not', `not ${numberOf(member)}`, [member]);
  }

  /** Whether the second holds wherever the first does, as far as what they are made of tells. */
  implies(one: Truth, other: Truth): boolean {
    if (one === other || one === NEVER || other === ALWAYS) return true;
    const parts = this.jointParts(one);
    return (
      this.jointParts(other).every((part) => parts.includes(part)) ||
      this.alternatives(other).some((part) => parts.includes(part))
    );
  }

  /** What must hold all together; of one thing itself. */
  jointParts(one: Truth): readonly Truth[] {
    return this.#kinds[numberOf(one)] === 'and' ? this.#parts[numberOf(one)]! : [one];
  }

  /** Of what each is enough. */
  alternatives(one: Truth): readonly Truth[] {
    return this.#kinds[numberOf(one)] === 'or' ? this.#parts[numberOf(one)]! : [];
  }

  /** A sentence fragment for a person, and the canonical form. */
  text(one: Truth): string {
    const at = numberOf(one);
    let text = this.#texts[at];
    if (text === undefined) {
      const parts = this.#parts[at] ?? [];
      text =
        this.#kinds[at] === 'not'
          ? `not (${this.text(parts[0]!)})`
          : parts.map((part) => this.#textInside(part)).join(this.#kinds[at] === 'and' ? ' and ' : ' or ');
      this.#texts[at] = text;
    }
    return text;
  }

  /** Whether a condition holds, given which of its literals do. */
  holds(one: Truth, decide: (literal: string) => boolean): boolean {
    const parts = this.#parts[numberOf(one)] ?? [];
    switch (this.#kinds[numberOf(one)]) {
      case 'and':
        return parts.every((part) => this.holds(part, decide));
      case 'or':
        return parts.some((part) => this.holds(part, decide));
      case 'not':
        return !this.holds(parts[0]!, decide);
      default:
        return one === ALWAYS || (one !== NEVER && decide(this.text(one)));
    }
  }

  /** The condition that is left once some of its literals are decided. In: `decide`, `undefined` for what stays open. */
  settle(one: Truth, decide: (literal: string) => boolean | undefined): Truth {
    const parts = (this.#parts[numberOf(one)] ?? []).map((part) => this.settle(part, decide));
    switch (this.#kinds[numberOf(one)]) {
      case 'and':
        return this.and(...parts);
      case 'or':
        return this.or(...parts);
      case 'not':
        return this.not(parts[0]!);
      default: {
        if (one === ALWAYS || one === NEVER) return one;
        const decided = decide(this.text(one));
        return decided === undefined ? one : decided ? ALWAYS : NEVER;
      }
    }
  }

  /** The texts of what a condition is made of. */
  literals(one: Truth): ReadonlySet<string> {
    const parts = this.#parts[numberOf(one)] ?? [];
    if (parts.length > 0) return new Set(parts.flatMap((part) => [...this.literals(part)]));
    return new Set(one === ALWAYS || one === NEVER ? [] : [this.text(one)]);
  }

  #combine(kind: 'and' | 'or', members: readonly Truth[], neutral: Truth, absorbing: Truth): Truth {
    if (members.length === 2) {
      const [a, b] = members as [Truth, Truth];
      if (a === neutral) return b;
      if (b === neutral || a === b) return a;
      if (a === absorbing || b === absorbing) return absorbing;
      const [low, high] = numberOf(a) < numberOf(b) ? [numberOf(a), numberOf(b)] : [numberOf(b), numberOf(a)];
      const pairs = this.#pairs[kind];
      const key = low * MOST_CONDITIONS + high;
      let found = pairs.get(key);
      if (found === undefined) {
        found = this.#combineAll(kind, members, neutral, absorbing);
        if (pairs.size >= MOST_PAIRS) pairs.clear();
        pairs.set(key, found);
      }
      return found;
    }
    return this.#combineAll(kind, members, neutral, absorbing);
  }

  #combineAll(kind: 'and' | 'or', members: readonly Truth[], neutral: Truth, absorbing: Truth): Truth {
    const flat = new Set<Truth>();
    for (const member of members) {
      if (member === absorbing) return absorbing;
      if (member === neutral) continue;
      if (this.#kinds[numberOf(member)] === kind)
        for (const part of this.#parts[numberOf(member)]!) flat.add(part);
      else flat.add(member);
    }
    if (flat.size === 0) return neutral;
    const parts = [...flat].sort((a, b) => numberOf(a) - numberOf(b));
    if (parts.length === 1) return parts[0]!;
    return this.#intern(kind, `${kind} ${parts.join()}`, parts);
  }

  #internLiteral(text: string): Truth {
    const truth = this.#intern('literal', `literal ${text}`, [], text);
    this.#literals.set(text, truth);
    return truth;
  }

  #textInside(part: Truth): string {
    return this.#parts[numberOf(part)]!.length > 1 ? `(${this.text(part)})` : this.text(part);
  }

  /** In: what names the condition among all; its text where it has one of its own. */
  #intern(
    kind: 'literal' | 'and' | 'or' | 'not',
    key: string,
    parts: readonly Truth[],
    text?: string,
  ): Truth {
    const known = this.#numbers.get(key);
    if (known !== undefined) return known;
    const number = truthOf(this.#texts.length);
    this.#numbers.set(key, number);
    this.#texts.push(text);
    this.#parts.push(parts);
    this.#kinds.push(kind);
    return number;
  }
}
