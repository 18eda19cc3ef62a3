// What a sum comes to: CSS Values 4 §10.2 ("type checking"), as far as it takes no more than movable declarations to know.

import { classOfNumber } from './value-classes.js';

export type MathType = 'number' | 'length' | 'percentage' | 'length-percentage' | 'angle' | 'time';

/** In: the solid tokens of a math function's arguments and space as `' '`. Out: its type, `undefined` where it has none. */
export function mathType(name: string, parts: readonly string[]): MathType | undefined {
  const reader = new MathReader(parts);
  const args: (MathType | undefined)[] = [reader.sum()];
  while (reader.take(',')) args.push(reader.sum());
  if (!reader.isDone) return undefined;
  const many = { 'calc(': 1, 'clamp(': 3 }[name];
  if (many !== undefined && args.length !== many) return undefined;
  return args.reduce((a, b) => joined(a, b));
}

/** Of what is added, or chosen between. */
function joined(a: MathType | undefined, b: MathType | undefined): MathType | undefined {
  if (a === undefined || b === undefined) return undefined;
  if (a === b) return a;
  const isLength = (type: MathType): boolean => type.startsWith('length') || type === 'percentage';
  return isLength(a) && isLength(b) ? 'length-percentage' : undefined;
}

class MathReader {
  readonly #parts: readonly string[];
  #at = 0;

  constructor(parts: readonly string[]) {
    this.#parts = parts;
  }

  get isDone(): boolean {
    this.#skip();
    return this.#at >= this.#parts.length;
  }

  take(text: string): boolean {
    this.#skip();
    if (this.#parts[this.#at] !== text) return false;
    this.#at++;
    return true;
  }

  sum(): MathType | undefined {
    let type = this.#product();
    // Space on both sides of the sign, or it is a number's own.
    while (this.#parts[this.#at] === ' ' && /^[+-]$/.test(this.#parts[this.#at + 1] ?? '')) {
      if (this.#parts[this.#at + 2] !== ' ') return undefined;
      this.#at += 2;
      type = joined(type, this.#product());
    }
    return type;
  }

  #product(): MathType | undefined {
    let type = this.#value();
    for (;;) {
      if (this.#look() === '*') {
        this.take('*');
        const other = this.#value();
        if (type === 'number') type = other;
        else if (other !== 'number') return undefined;
      } else if (this.#look() === '/') {
        this.take('/');
        if (this.#value() !== 'number') return undefined;
      } else return type;
    }
  }

  #value(): MathType | undefined {
    this.#skip();
    const part = this.#parts[this.#at++] ?? '';
    if (part === '(') {
      const type = this.sum();
      return this.take(')') ? type : undefined;
    }
    if (/^(calc|min|max|clamp)\($/.test(part)) {
      const end = this.#closing();
      const type = mathType(part, this.#parts.slice(this.#at, end));
      this.#at = end + 1;
      return end < this.#parts.length ? type : undefined;
    }
    const kind = classOfNumber(part)?.replace('negative ', '');
    if (kind === undefined) return undefined;
    if (kind === 'length' || kind === 'percentage' || kind === 'angle' || kind === 'time') return kind;
    return ['zero', 'whole', 'large', 'fraction', 'number'].includes(kind) ? 'number' : undefined;
  }

  #closing(): number {
    let depth = 1;
    for (let at = this.#at; at < this.#parts.length; at++) {
      const part = this.#parts[at]!;
      if (part.endsWith('(')) depth++;
      if (part === ')' && --depth === 0) return at;
    }
    return this.#parts.length;
  }

  /** The next part that is no space. */
  #look(): string | undefined {
    return this.#parts[this.#at] === ' ' ? this.#parts[this.#at + 1] : this.#parts[this.#at];
  }

  #skip(): void {
    while (this.#parts[this.#at] === ' ') this.#at++;
  }
}
