// A file as the markup parser gets it: every piece of engine text written over, every offset as it was.

import { either, endsWithOneOf, not, SPACE, startsWithOneOf } from '../../base/characters.js';
import type { EnginePiece } from './pieces.js';

export interface Masked {
  readonly text: string;
  /** The letter that stands for engine text in names and values: it stands nowhere else in the file. */
  readonly letter: string;
  /** Pieces that stand in tags and their values. */
  readonly inTags: readonly EnginePiece[];
  /** Pieces that no value of an attribute holds. */
  readonly outside: readonly EnginePiece[];
  /** Pieces that stand between tags: elements may come of them. */
  readonly between: readonly EnginePiece[];
}

/** Letters that are taken for a name's wherever names are read, and that hardly anybody writes. */
const LETTERS = 'ᚠᚢᚦᚨᚱᚲᚷᚹᚺᚾ';

/** A letter that may stand for engine text. */
export const ENGINE_LETTER = new RegExp(`[${LETTERS}]`);

/** Characters that a mark is looked for beyond the end of what is read: one that goes over it is none. */
const LONGEST = 64;

type State = 'text' | 'tag' | 'value' | 'raw' | 'comment';

/** In: the text, and its pieces in order. */
export function maskPieces(text: string, pieces: readonly EnginePiece[]): Masked {
  const letter = [...LETTERS].find((one) => !text.includes(one)) ?? LETTERS[0]!;
  const inTags: EnginePiece[] = [];
  const outside: EnginePiece[] = [];
  const between: EnginePiece[] = [];
  const walk = new MarkupWalk(text);
  let out = '';
  for (const [number, piece] of pieces.entries()) {
    out += text.slice(walk.at, piece.start);
    walk.goTo(piece.start);
    const own = text.slice(piece.start, piece.end);
    const touches =
      walk.state === 'value' ||
      (walk.state === 'tag' &&
        piece.prints &&
        (endsWithOneOf(text.slice(Math.max(0, piece.start - 1), piece.start), not(either(SPACE, '"\'>'))) ||
          startsWithOneOf(text.slice(piece.end, piece.end + 1), not(either(SPACE, '"\'>/')))) &&
        // A piece beside another one touches nothing.
        pieces[number - 1]?.end !== piece.start &&
        pieces[number + 1]?.start !== piece.end);
    if (walk.state === 'tag' || walk.state === 'value') inTags.push(piece);
    else if (walk.state === 'text') between.push(piece);
    if (walk.state !== 'value' && !touches) outside.push(piece);
    const isWord = touches || (walk.state === 'raw' && piece.prints && isWritten(text, walk, piece.start));
    out += isWord ? letter.repeat(own.length) : own.replace(/[^\r\n]+/g, (line) => ' '.repeat(line.length));
    walk.skip(piece.end);
  }
  return { text: out + text.slice(walk.at), letter, inTags, outside, between };
}

/** Whether what is printed stands where a word may: anywhere in a script; of a sheet in a value, else it may be rules. */
function isWritten(text: string, { rawName }: MarkupWalk, start: number): boolean {
  if (rawName !== 'style') return true;
  return /:[^{};]*$/.test(text.slice(Math.max(0, start - 200), start));
}

const RAW = new Set(['script', 'style', 'textarea', 'title', 'xmp', 'iframe', 'noembed', 'noframes']);

/** Where in the markup an offset stands, as far as that matters: after the HTML standard's tokenizer. */
class MarkupWalk {
  at = 0;
  state: State = 'text';
  #quote = '';
  #raw = '';
  /** The name of the tag that is being read. */
  #name = '';

  constructor(readonly text: string) {}

  /** Of the element whose text is no markup. */
  get rawName(): string {
    return this.#raw.toLowerCase();
  }

  /** Reads on up to an offset. */
  goTo(end: number): void {
    while (this.at < end) this.#step(end);
  }

  /** Goes over engine text. */
  skip(end: number): void {
    // A value without quotes may begin with it.
    if (this.state === 'tag' && /=\s*$/.test(this.text.slice(Math.max(0, this.at - 8), this.at))) {
      this.state = 'value';
      this.#quote = '';
    }
    this.at = end;
  }

  #step(end: number): void {
    const { text } = this;
    switch (this.state) {
      case 'text': {
        const tag = this.#find(/<(?:!--|[a-z!/?])/i, end);
        if (tag === undefined) return;
        if (tag === '<!--') this.state = 'comment';
        else {
          this.state = 'tag';
          this.at--;
          this.#name = /^\/?[a-z][^\s/>]*/i.exec(text.slice(this.at, this.at + 40))?.[0] ?? '';
          this.at = Math.min(end, this.at + Math.max(1, this.#name.length));
        }
        return;
      }
      case 'comment':
        if (this.#find(/-->/, end) !== undefined) this.state = 'text';
        return;
      case 'raw':
        if (this.#find(new RegExp(`</${this.#raw}(?=[\\s/>])`, 'i'), end) !== undefined) this.state = 'tag';
        return;
      case 'value':
        if (this.#find(this.#quote === '' ? /[\s>]/ : new RegExp(this.#quote), end) === undefined) return;
        this.state = 'tag';
        if (this.#quote === '') this.at--;
        return;
      case 'tag': {
        const mark = this.#find(/>|=\s*["']?/, end);
        if (mark === undefined) return;
        if (mark === '>') {
          this.state = RAW.has(this.#name.toLowerCase()) ? 'raw' : 'text';
          this.#raw = this.#name;
          this.#name = '';
        } else if (this.at < end || endsWithOneOf(mark, '"\'')) {
          this.state = 'value';
          this.#quote = /["']$/.exec(mark)?.[0] ?? '';
        }
      }
    }
  }

  /** Goes behind the first match that ends before `end`, else to it. */
  #find(pattern: RegExp, end: number): string | undefined {
    // Not in all that follows: of a file in a thousand pieces that would be read a thousand times.
    const match = pattern.exec(this.text.slice(this.at, end + LONGEST));
    const behind = match === null ? Number.POSITIVE_INFINITY : this.at + match.index + match[0].length;
    this.at = Math.min(behind, end);
    return behind <= end ? match?.[0] : undefined;
  }
}
