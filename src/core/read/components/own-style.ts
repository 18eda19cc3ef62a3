// What an element says of its style: what is written out, in an attribute or an object, and beside it what code comes to.

import type { SourceRange } from '../../base/source.js';
import type { StyleObject } from './model.js';
import type { ReadObject } from './style-object.js';
import { unwritten } from './unwritten.js';

interface Written {
  readonly value: string;
  readonly range: SourceRange;
  readonly object: ReadObject | undefined;
}

/** A style attribute as it is handed on. */
export interface StyleText {
  readonly value: string;
  readonly range: SourceRange;
  readonly object: StyleObject | undefined;
  /** Characters of the value that its range writes, where there are more. */
  readonly length: number | undefined;
}

export class OwnStyle {
  #written: Written | undefined;
  readonly #more: { readonly text: string; readonly range: SourceRange }[] = [];

  /** What is written out. In: `object`, where it is one in code. */
  write(value: string, range: SourceRange, object?: ReadObject): void {
    const before = this.#written;
    if (before === undefined) this.#written = { value, range, object };
    else if (before.object !== undefined && object === undefined) {
      // Of an attribute and an object the attribute is the one that is edited.
      this.#written = { value, range, object };
      this.add(before.value, before.range);
    } else this.add(object === undefined ? unwritten(value) : value, range);
  }

  /** More style than is written out. In: declarations with what code comes to in them, or the code alone. */
  add(text: string, range: SourceRange): void {
    this.#more.push({ text, range });
  }

  /** Out: `undefined` where it says nothing. */
  get text(): StyleText | undefined {
    const written = this.#written;
    const [first] = this.#more;
    if (written === undefined && first === undefined) return undefined;
    const value = written?.value ?? '';
    const more = this.#more.map(({ text }) => text).join('; ');
    return {
      value: first === undefined ? value : `${value}; ${isClosed(value) ? more : unwritten(more)}`,
      range: written?.range ?? first!.range,
      object: written?.object,
      length: first === undefined ? undefined : value.length,
    };
  }
}

/** Whether a style ends where its text does: what is put behind it is none of its comment, bracket or string. */
function isClosed(style: string): boolean {
  return !/\/\*|[\\{}]/.test(style) && /^(?:[^()"']|\([^()"']*\)|"[^"]*"|'[^']*')*$/.test(style);
}
