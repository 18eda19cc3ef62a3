// The engine text of one page: the parser gets the page without it, and what it read is put right afterwards.

import type { Token } from 'parse5';
import { either, LETTER, startsWithOneOf } from '../../base/characters.js';
import { INVISIBLE_MARK } from '../../base/engine-marks.js';
import type { SourceRange } from '../../base/source.js';
import { isVoid } from '../../base/void-elements.js';
import {
  type Balance,
  balanceOf,
  type EnginePiece,
  type EngineTag,
  engineOf,
  enginePieces,
  inclusionsOf,
  type Masked,
  maskPieces,
  mayHoldEngineText,
  readEngineTag,
  type Wrapped,
  wrappedIn,
} from '../templates/index.js';
import type { Engine } from './engine.js';
import { NO_SHEETS, scriptsCalled, sheetsCalled } from './link-calls.js';
import type { PageElement, PageInclusion, ScriptReference, SheetReference } from './page.js';
import { hasTemplateText } from './template-text.js';
import { isSourceElement, type SourceElement } from './tree.js';

export class EngineText implements Engine {
  readonly #text: string;
  readonly #mask: Masked;
  readonly #tags: SourceRange[] = [];
  readonly #read = new Map<readonly Token.Attribute[], EngineTag>();
  /** Of each choice its branches, in order. */
  readonly #choices: readonly (readonly SourceRange[])[];
  readonly #balance: Balance;
  /** Names of elements that are none: an engine makes something else of them. */
  readonly #isOwnTag: (name: string) => boolean;
  #masked: string | undefined;
  #headAt: number | undefined;

  private constructor(text: string, path: string, pieces: readonly EnginePiece[]) {
    this.#text = text;
    const engine = engineOf(path);
    this.#isOwnTag = (name) => name.includes(':') || engine?.isOwnTag?.(name) === true;
    this.#mask = maskPieces(text, pieces);
    this.#choices = choicesIn(this.#mask.between);
    this.#balance = balanceOf(this.#mask.text, this.#choices);
  }

  /** Out: `undefined` for a text that no engine reads. */
  static in(text: string, path: string): EngineText | undefined {
    const pieces = mayHoldEngineText(text, path) ? enginePieces(text, path) : [];
    return pieces.length === 0 ? undefined : new EngineText(text, path, pieces);
  }

  /** What the markup parser gets: every offset is as it was. */
  get masked(): string {
    this.#masked ??= this.#maskedText();
    return this.#masked;
  }

  #maskedText(): string {
    let text = '';
    let at = 0;
    for (const { start, end } of [...this.#balance.hidden].sort((a, b) => a.start - b.start)) {
      text += this.#mask.text.slice(at, start) + this.#mask.text.slice(start, end).replace(/[^\r\n]/g, ' ');
      at = end;
    }
    return text + this.#mask.text.slice(at);
  }

  /** What no value holds, in order: an edit must leave it alone. What links a sheet is among the sheets. */
  get texts(): string[] {
    return this.#mask.outside
      .filter(({ prints, code }) => !prints || sheetsCalled(code).names.length === 0)
      .map(({ start, end }) => this.#text.slice(start, end));
  }

  /** What may come of a tag; `undefined` for one without engine text. Puts it back into the values of the attributes. */
  tag({ attrs, startTag }: SourceElement, range: SourceRange | undefined): EngineTag | undefined {
    if (range === undefined) return undefined;
    const own = within(this.#mask.inTags, range);
    const others = this.#balance.inPlaceOf.get(range.start) ?? [];
    if (own.length === 0 && others.length === 0) return undefined;
    const known = this.#read.get(attrs);
    if (known !== undefined) return known;
    this.#tags.push(range);
    for (const attribute of attrs) {
      const place = startTag?.attrs?.[attribute.name];
      if (place === undefined || !attribute.value.includes(this.#mask.letter)) continue;
      attribute.value = this.#restored(
        attribute.value,
        within(own, { start: place.startOffset, end: place.endOffset }),
      );
    }
    const read = readEngineTag(
      [range, ...others].map((one) => ({
        text: this.#text.slice(one.start, one.end),
        offset: one.start,
        pieces: within(this.#mask.inTags, one),
      })),
      this.#mask.letter,
    );
    for (const attribute of attrs) {
      const start = startTag?.attrs?.[attribute.name]?.startOffset;
      if (start === undefined || attribute.name === 'class' || !read.sometimes.has(attribute.name)) continue;
      if (!hasTemplateText(attribute.value))
        attribute.value = `${this.#branchAt(own, start)}${attribute.value}`;
    }
    this.#read.set(attrs, read);
    return read;
  }

  /** What a branch may leave out is told with what the branch hangs on: then nobody takes it for what stands there always. */
  #branchAt(pieces: readonly EnginePiece[], offset: number): string {
    const before = pieces.filter(({ start, role }) => start < offset && role !== 'none');
    const piece = before.at(-1) ?? pieces[0] ?? this.#mask.between.findLast(({ start }) => start < offset);
    return piece === undefined ? '' : markedAsEngine(this.#text.slice(piece.start, piece.end));
  }

  #restored(value: string, pieces: readonly EnginePiece[]): string {
    const runs: string[] = [];
    let end = -1;
    for (const piece of pieces) {
      const text = markedAsEngine(this.#text.slice(piece.start, piece.end));
      // What stands side by side is one word to the parser.
      if (piece.start === end) runs.push(`${runs.pop()}${text}`);
      else runs.push(text);
      end = piece.end;
    }
    return value.replace(new RegExp(`${this.#mask.letter}+`, 'g'), (word) => runs.shift() ?? word);
  }

  /** Whether something stands between the tags. */
  get isBetween(): boolean {
    return this.#mask.between.length > 0;
  }

  /** Whether an engine fills the page. Text about an engine, as in a manual, is none that an engine reads. */
  isFilled(elements: readonly PageElement[], contentEnds: readonly number[]): boolean {
    return this.#standIn(
      ({ prints, role, code }) => role === 'open' || (prints && startsWithOneOf(code, IS_CODE)),
      elements,
      contentEnds,
    );
  }

  /** Whether what it fills it with may be a part: that something is shown at times only brings in none. */
  showsParts(elements: readonly PageElement[], contentEnds: readonly number[]): boolean {
    return this.#standIn(maySayMore, elements, contentEnds);
  }

  /** The same, with one that no name in it tells. */
  showsUnnamed(elements: readonly PageElement[], contentEnds: readonly number[]): boolean {
    const named = new Set(
      inclusionsOf(this.#text, this.#mask.between).flatMap(({ kind, names, start }) =>
        kind !== 'yield' && names.length > 0 ? [start] : [],
      ),
    );
    return this.#standIn((piece) => maySayMore(piece) && !named.has(piece.start), elements, contentEnds);
  }

  #standIn(
    isMeant: (piece: EnginePiece) => boolean,
    elements: readonly PageElement[],
    contentEnds: readonly number[],
  ): boolean {
    const starts = this.#mask.between.filter(isMeant).map(({ start }) => start);
    return this.#holdersOf(starts, elements, contentEnds).some((index) => !isShown(elements, index));
  }

  /** Where the head comes at times, what stands in it comes whenever the file is a page. */
  #isAtTimes(offset: number): boolean {
    this.#headAt ??= this.#mask.text.search(/<(?:html|head)[\s>]/i);
    const holds = ({ start, end }: SourceRange, at: number): boolean => start <= at && at < end;
    return this.#choices.some((branches) =>
      branches.some((branch) => holds(branch, offset) && !holds(branch, this.#headAt!)),
    );
  }

  /** The sheets of a page, those that a call of the engine links among them, in order. */
  sheets(
    own: readonly SheetReference[],
    elements: readonly PageElement[],
    contentEnds: readonly number[],
  ): SheetReference[] {
    const startOf = (one: SheetReference): number =>
      one.kind === 'link' ? one.range.start : (one.offset ?? one.madeAt ?? 0);
    const written = own.map(
      (one): SheetReference => (this.#isAtTimes(startOf(one)) ? { ...one, by: 'engine at times' } : one),
    );
    const called = this.#mask.between.flatMap(({ start, end, prints, code }) => {
      const { names, isAtTimes: isByCode } = prints ? sheetsCalled(code) : NO_SHEETS;
      const [holder] = names.length === 0 ? [] : this.#holdersOf([start], elements, contentEnds);
      const by = isByCode || this.#isAtTimes(start) ? 'engine at times' : 'engine';
      return names.map(
        (address): SheetReference => ({
          ...{ kind: 'link', element: holder ?? -1, address, media: '', title: '', by },
          ...{ alternate: false, disabled: false, scriptingOff: false, range: { start, end } },
        }),
      );
    });
    return [...written, ...called].sort((a, b) => startOf(a) - startOf(b));
  }

  /** The scripts of a page, those that a call of the engine links among them. */
  scripts(own: readonly ScriptReference[]): ScriptReference[] {
    const called = this.#mask.between.flatMap(({ start, end, prints, code }) =>
      (prints ? scriptsCalled(code) : []).map(
        (address): ScriptReference => ({ kind: 'link', address, range: { start, end } }),
      ),
    );
    return [...own, ...called];
  }

  /**
   * Notes the elements that may be around less than the tree shows. Out: the offset from which on others may stand in more
   * than it shows.
   */
  markHalves(elements: readonly PageElement[], contentEnds: readonly number[]): number | undefined {
    const { halves, looseFrom, lostFrom } = this.#balance;
    if (halves.size === 0 && lostFrom === undefined) return looseFrom;
    for (const element of elements) {
      const own = element.tag && halves.get(element.tag.range.start);
      const until = Math.min(own ?? Number.POSITIVE_INFINITY, lostFrom ?? Number.POSITIVE_INFINITY);
      if (until !== Number.POSITIVE_INFINITY) element.surelyUntil = until;
      // Nor which stand side by side.
      const contentEnd = contentEnds[element.index]!;
      if (lostFrom !== undefined && (contentEnd < 0 || contentEnd > lostFrom)) element.hasTemplateText = true;
    }
    return lostFrom === undefined ? looseFrom : Math.min(lostFrom, looseFrom ?? lostFrom);
  }

  /** Other files that it names, and what a layout is filled with. */
  inclusions(elements: readonly PageElement[], contentEnds: readonly number[]): PageInclusion[] {
    const found = inclusionsOf(this.#text, this.#mask.between);
    const holders = this.#holdersOf(
      found.map(({ start }) => start),
      elements,
      contentEnds,
    );
    return found.map((one, at) => ({
      ...one,
      element: holders[at]!,
      isAtTimes: this.#isAtTimes(one.start),
    }));
  }

  /** What may stand in more than the tree shows, or somewhere else: what the tags of an engine's own hold, too. */
  wrapped(elements: readonly PageElement[], contentEnds: readonly number[]): Wrapped[] {
    const held = elements.flatMap(({ name, tag, index }): Wrapped[] => {
      const end = contentEnds[index]!;
      const isOwn = tag !== undefined && end >= 0 && this.#isOwnTag(name);
      return isOwn ? [{ start: tag.range.end, end, how: 'elsewhere' }] : [];
    });
    return [...wrappedIn(this.#text, this.#mask.between), ...held];
  }

  /** Whether something stands in a tag that an engine reads in. */
  isInTag({ start }: SourceRange): boolean {
    return this.#tags.some((tag) => tag.start <= start && start < tag.end);
  }

  /** Whether rows or cells may come of engine text. In: an element; whether that is so of the one around it. */
  isAmongRows({ tagName, startTag, childNodes, end }: SourceElement, isAround: boolean): boolean {
    if (!TABLE_PARTS.has(tagName)) return false;
    // What stands between a table and the rows of a body that is only implied is seen from the table.
    if (startTag === null) return isAround;
    const { between } = this.#mask;
    let start = startTag.endOffset;
    for (const child of childNodes) {
      if (!isSourceElement(child) || child.startTag === null) continue;
      if (within(between, { start, end: child.startTag.startOffset }).length > 0) return true;
      start = child.end >= 0 ? child.end : child.startTag.endOffset;
    }
    return end >= 0 && within(between, { start, end }).length > 0;
  }

  /** The elements among whose children engine text stands, and whether something is printed there. */
  *holders(
    elements: readonly PageElement[],
    contentEnds: readonly number[],
  ): Iterable<{ readonly index: number; readonly prints: boolean }> {
    const { between } = this.#mask;
    const found = this.#holdersOf(
      between.map(({ start }) => start),
      elements,
      contentEnds,
    );
    for (const [number, index] of found.entries())
      if (index >= 0) yield { index, prints: between[number]!.prints };
  }

  /** By offset, in order: the element that it stands in, -1 for none. */
  #holdersOf(
    offsets: readonly number[],
    elements: readonly PageElement[],
    contentEnds: readonly number[],
  ): number[] {
    const inOrder = elements
      .filter(({ tag }) => tag !== undefined)
      .sort((a, b) => a.tag!.range.start - b.tag!.range.start);
    let last = -1;
    return offsets.map((offset) => {
      while (last + 1 < inOrder.length && inOrder[last + 1]!.tag!.range.start < offset) last++;
      let at = inOrder[last]?.index ?? -1;
      while (at >= 0 && isBehind(elements[at]!, contentEnds[at]!, offset)) at = elements[at]!.parent;
      return at;
    });
  }
}

/** What only the ending of a file tells to be engine text is put in marks that tell it wherever the value goes, unseen. */
function markedAsEngine(text: string): string {
  return hasTemplateText(text) ? text : `${INVISIBLE_MARK}${text}${INVISIBLE_MARK}`;
}

/** What may come or not: from what opens a branch, or the other one, to what ends it. */
function choicesIn(pieces: readonly EnginePiece[]): SourceRange[][] {
  const found: SourceRange[][] = [];
  const open: { piece: EnginePiece; from: number; branches: SourceRange[] }[] = [];
  for (const piece of pieces) {
    if (piece.role === 'open') open.push({ piece, from: piece.end, branches: [] });
    if (piece.role !== 'else' && piece.role !== 'close') continue;
    const last = piece.role === 'else' ? open.at(-1) : open.pop();
    if (last === undefined) continue;
    last.branches.push({ start: last.from, end: piece.start });
    last.from = piece.end;
    // What has another branch comes or not, whatever it is.
    if (piece.role === 'close' && (last.piece.isBranch || last.branches.length > 1))
      found.push(last.branches);
  }
  return found;
}

function maySayMore({ prints, role, code }: EnginePiece): boolean {
  return (
    (role === 'open' && !(CHOOSES.test(code) && !BRINGS.test(code))) ||
    (prints && startsWithOneOf(code, IS_CODE))
  );
}

/** What begins like a name, a string or a mark of some engine: `{{1,2},{3,4}}` is none. */
const IS_CODE = either(LETTER, '_$@\'"#^>&/!~(-');
/** A branch or a loop, or words to be translated. */
const CHOOSES = /^[#~-]?\s*(?:if\w*|unless|for|foreach|while|switch|case|each|range|trans|blocktrans\w*)\b/i;
const BRINGS = /\b(?:echo|print|include\w*|require\w*|render\w*|yield|partial|block|slot|content)\b/i;
/** Elements that show text as it is written. */
const SHOWS = new Set(['pre', 'code', 'samp', 'kbd', 'tt', 'xmp', 'listing', 'plaintext']);

function isShown(elements: readonly PageElement[], index: number): boolean {
  for (let at = index; at >= 0; at = elements[at]!.parent) if (SHOWS.has(elements[at]!.name)) return true;
  return false;
}

/** Whether an element has ended where an offset is. */
function isBehind({ name, namespace }: PageElement, contentEnd: number, offset: number): boolean {
  return (contentEnd >= 0 && contentEnd <= offset) || (namespace === 'html' && isVoid(name));
}

function within(pieces: readonly EnginePiece[], { start, end }: SourceRange): readonly EnginePiece[] {
  let low = 0;
  for (let high = pieces.length; low < high; ) {
    const middle = (low + high) >> 1;
    if (pieces[middle]!.start < start) low = middle + 1;
    else high = middle;
  }
  let last = low;
  while (last < pieces.length && pieces[last]!.start < end) last++;
  return low === last ? NONE : pieces.slice(low, last);
}

const NONE: readonly EnginePiece[] = [];
const TABLE_PARTS = new Set(['table', 'tbody', 'thead', 'tfoot', 'tr']);
