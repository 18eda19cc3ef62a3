// What is told of a template engine. An engine is a file beside this one and an entry in `index.ts`.

/** `open`, `else` and `close` are those of a branch or a loop: what stands between may come, or not. */
export type Role = 'open' | 'else' | 'close' | 'none';

/** One piece of engine text, markers and all. */
export interface EnginePiece {
  readonly start: number;
  readonly end: number;
  /** What it does to the text behind it: begins a branch, goes on with the other one, ends it. */
  readonly role: Role;
  /** Where it opens something: whether what follows may come or not. */
  readonly isBranch: boolean;
  /** Whether something may come out of it. */
  readonly prints: boolean;
  /** What stands between its markers. */
  readonly code: string;
  readonly engine: TemplateEngine;
}

/** A piece as its engine finds it. */
export type FoundPiece = Pick<EnginePiece, 'start' | 'end' | 'role' | 'prints' | 'code'>;

/** Another file that a piece names, or a place for one. */
export interface NamedFile {
  readonly kind: 'extends' | 'include' | 'block' | 'yield';
  /** As they are written; several where it is one of them; none where code makes it; `card-*` where it makes the end. */
  readonly names: readonly string[];
}

/** `within`: in what stands around it in the file, and perhaps in more; `elsewhere`: nobody knows in what. */
export type Wrapping = 'within' | 'elsewhere';

/** A text that is read, with what is asked of it again and again. */
export class EngineSource {
  readonly #last = new Map<string, number>();

  constructor(readonly text: string) {}

  /** Where a part stands for the last time, -1 for nowhere: nobody looks for an end that does not come. */
  lastOf(part: string): number {
    let last = this.#last.get(part);
    if (last === undefined) {
      last = this.text.lastIndexOf(part);
      this.#last.set(part, last);
    }
    return last;
  }

  /** The next place of a part, -1 for none. */
  find(part: string, from: number): number {
    return this.lastOf(part) < from ? -1 : this.text.indexOf(part, from);
  }
}

/** Markers that tell an engine's text in any file. */
export interface Marks {
  readonly open: string;
  /** Usual end; `read` knows the exceptions. */
  readonly close: string;
  /** The piece that begins at `start`; `undefined` for text that only begins like one. */
  read(source: EngineSource, start: number): FoundPiece | undefined;
}

/** Engine text that begins like other text. */
export interface Told {
  /** The ending of the file tells it; else its text must, by itself. */
  readonly by: 'ending' | 'text';
  /** Whether it may stand in a text, looked at quickly. */
  mayHold(text: string): boolean;
  /** Its pieces, in order. */
  read(text: string): FoundPiece[];
  /** Whether it stands inside the text of other engines, and comes first. */
  readonly comesFirst?: boolean;
}

export interface TemplateEngine {
  /** As its file here is called. */
  readonly name: string;
  /** Endings of its templates, without the first dot. */
  readonly endings: readonly string[];
  /** Endings of sources that only a build reads as its templates. */
  readonly buildEndings?: readonly string[];
  readonly marks?: readonly Marks[];
  readonly told?: Told;
  /** Begin and end of a comment. */
  readonly comments: readonly (readonly [begin: string, end: string])[];
  /** Words of what opens something that comes in any case: a block, a capture. */
  readonly always: ReadonlySet<string>;
  /** What a piece names. */
  names(code: string, role: Role): NamedFile | undefined;
  /** Whether what stands between a piece that opens something and its end may stand in more than the text shows. */
  wraps(code: string): Wrapping | undefined;
  /** Whether a piece, as a value of an attribute holds it, makes a branch or ends one. Only for engines told by the ending. */
  beginsBranch?(text: string): boolean;
  /** Whether names of files are looked for from the top of the engine's folders, wherever they are written. */
  readonly looksFromTop: boolean;
  /** Whether a server fills its pages where they lie, so that relative addresses lead from there. */
  readonly isServedInPlace: boolean;
  /** Names of elements that are none: the engine makes something else of them. */
  isOwnTag?(name: string): boolean;
}

export const words = (text: string): ReadonlySet<string> => new Set(text.split(' '));
