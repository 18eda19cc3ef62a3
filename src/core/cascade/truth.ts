// Conditions that a static reading leaves open, as interned expressions: equal meaning in equal form is equal number.

/** An interned condition. `NEVER` and `ALWAYS` are decided; every other number is open. */
export type Truth = number;

export const NEVER: Truth = 0;
export const ALWAYS: Truth = 1;

/** Interns conditions of one comparison. Both states must use the same table, so that equality is identity. */
export class TruthTable {
  readonly #numbers = new Map<string, Truth>([
    ['never', NEVER],
    ['always', ALWAYS],
  ]);
  readonly #texts: string[] = ['never', 'always'];
  readonly #parts: (readonly Truth[])[] = [[], []];
  readonly #kinds: ('literal' | 'and' | 'or' | 'not')[] = ['literal', 'literal'];

  /** In: what must hold, in words that name it fully: `@media print`, `:hover on parent`. */
  literal(text: string): Truth {
    return this.#intern('literal', text, []);
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
    if (this.#kinds[member] === 'not') return this.#parts[member]![0]!;
    return this.#intern('not', `not (${this.text(member)})`, [member]);
  }

  /** A sentence fragment for a person, and the canonical form. */
  text(truth: Truth): string {
    return this.#texts[truth] ?? 'never';
  }

  /** Whether a condition holds, given which of its literals do. */
  holds(truth: Truth, decide: (literal: string) => boolean): boolean {
    const parts = this.#parts[truth] ?? [];
    switch (this.#kinds[truth]) {
      case 'and':
        return parts.every((part) => this.holds(part, decide));
      case 'or':
        return parts.some((part) => this.holds(part, decide));
      case 'not':
        return !this.holds(parts[0]!, decide);
      default:
        return truth === ALWAYS || (truth !== NEVER && decide(this.text(truth)));
    }
  }

  /** The condition that is left once some of its literals are decided. In: `decide`, `undefined` for what stays open. */
  settle(truth: Truth, decide: (literal: string) => boolean | undefined): Truth {
    const parts = (this.#parts[truth] ?? []).map((part) => this.settle(part, decide));
    switch (this.#kinds[truth]) {
      case 'and':
        return this.and(...parts);
      case 'or':
        return this.or(...parts);
      case 'not':
        return this.not(parts[0]!);
      default: {
        if (truth === ALWAYS || truth === NEVER) return truth;
        const decided = decide(this.text(truth));
        return decided === undefined ? truth : decided ? ALWAYS : NEVER;
      }
    }
  }

  #combine(kind: 'and' | 'or', members: readonly Truth[], neutral: Truth, absorbing: Truth): Truth {
    if (members.length === 2) {
      const [a, b] = members as [Truth, Truth];
      if (a === neutral) return b;
      if (b === neutral || a === b) return a;
    }
    const flat = new Set<Truth>();
    for (const member of members) {
      if (member === absorbing) return absorbing;
      if (member === neutral) continue;
      if (this.#kinds[member] === kind) for (const part of this.#parts[member]!) flat.add(part);
      else flat.add(member);
    }
    if (flat.size === 0) return neutral;
    const parts = [...flat].sort((a, b) => a - b);
    if (parts.length === 1) return parts[0]!;
    const texts = parts.map((part) =>
      this.#parts[part]!.length > 1 ? `(${this.text(part)})` : this.text(part),
    );
    return this.#intern(kind, texts.join(kind === 'and' ? ' and ' : ' or '), parts);
  }

  #intern(kind: 'literal' | 'and' | 'or' | 'not', text: string, parts: readonly Truth[]): Truth {
    const known = this.#numbers.get(text);
    if (known !== undefined) return known;
    const number = this.#texts.length;
    this.#numbers.set(text, number);
    this.#texts.push(text);
    this.#parts.push(parts);
    this.#kinds.push(kind);
    return number;
  }
}
