// Follows one declaration through the stages, for whoever asks the code "why was this not moved?".

import { lineStart, offsetAt, type SourceRange } from '../base/source.js';
import { touches } from '../read/sheets/touches.js';

/** What is followed: a declaration, or an old attribute, of the tag at a place. */
export interface TraceTarget {
  readonly path: string;
  readonly line: number;
  readonly column: number;
  /** A property, or the name of an old attribute. */
  readonly property: string;
}

/** What a stage knows of a declaration in a tag. */
interface Written {
  readonly declarations: readonly { readonly property: string }[];
  readonly from: { readonly kind: string; readonly names?: readonly string[] };
}

interface Tag {
  readonly page: { readonly path: string; readonly text: string };
  readonly start: number;
  readonly tag: { readonly range: SourceRange } | undefined;
}

/** `page.html:12:5 color`. Out: `undefined` for what is none. */
export function readTraceTarget(text: string): TraceTarget | undefined {
  const match = /^(.+?):(\d+)(?::(\d+))?\s+(-{0,2}[a-z][\w-]*)$/i.exec(text.trim());
  if (match === null) return undefined;
  const [, path = '', line, column = '1', property = ''] = match;
  return { path, line: Number(line), column: Number(column), property: property.toLowerCase() };
}

export class Trace {
  readonly #target: TraceTarget;
  readonly #say: (stage: string, what: string) => void;
  /** Normal forms of what is followed, once a stage has found it. */
  readonly #keys = new Set<string>();

  /** In: what hears of each step. */
  constructor(target: TraceTarget, say: (stage: string, what: string) => void) {
    this.#target = target;
    this.#say = say;
  }

  /** Of the page that it stands on. */
  get path(): string {
    return this.#target.path;
  }

  say(stage: string, what: string): void {
    this.#say(stage, what);
  }

  /** Whether a movable declaration of a tag is the one that is followed. */
  follows({ page, start, tag }: Tag, { declarations, from }: Written): boolean {
    const { path, line, column, property } = this.#target;
    if (page.path !== path) return false;
    const offset = offsetAt(page.text, line, column);
    const end = tag?.range.end ?? start;
    // A line alone stands for the tags on it.
    const isHere = column === 1 ? isOnLine(page.text, line, start, end) : start <= offset && offset < end;
    if (!isHere) return false;
    return (
      from.names?.includes(property) === true || declarations.some((one) => touches(property, one.property))
    );
  }

  /** Notes the normal form of what is followed, which later stages know it by. */
  learn(key: string): void {
    this.#keys.add(key);
  }

  knows(key: string): boolean {
    return this.#keys.has(key);
  }
}

function isOnLine(text: string, line: number, start: number, end: number): boolean {
  const from = lineStart(text, line);
  const to = lineStart(text, line + 1);
  return start < to && end > from;
}
