// The model of one HTML file: its elements in document order, and what in it brings styles or changes them.

import { BoundedMap } from '../../base/bounded.js';
import type { SourceRange } from '../../base/source.js';
import type { EngineTag, Inclusion, Wrapped } from '../templates/index.js';
import { hasTemplateText } from './template-text.js';

export interface Attribute {
  readonly name: string;
  readonly value: string;
}

/** Where a parser found an attribute. */
interface AttributeLocation {
  readonly startOffset: number;
  readonly endOffset: number;
}

const NONE: readonly number[] = [];
const lists = new BoundedMap<string, readonly string[]>(5000);

/** A start tag in the source. Several elements can come from one (misnested formatting), none from an implied one. */
export class SourceTag {
  readonly range: SourceRange;
  /** Names, and behind each other the offsets of both ends: most tags of a site are kept, and few are ever asked. */
  readonly #names: readonly string[];
  readonly #offsets: readonly number[];
  #attributes: ReadonlyMap<string, SourceRange> | undefined;
  /** Where the style is an object in code: the entries, in the order of the declarations. */
  readonly styleEntries: readonly SourceRange[] | undefined;
  /** Characters of the style that the attribute writes: code comes to the rest. */
  readonly styleLength: number | undefined;

  constructor(
    range: SourceRange,
    locations: Readonly<Record<string, AttributeLocation>> | undefined,
    styleEntries?: readonly SourceRange[],
    styleLength?: number,
  ) {
    this.range = range;
    this.styleEntries = styleEntries;
    this.styleLength = styleLength;
    const names = locations === undefined ? [] : Object.keys(locations);
    this.#names = lists.get(names.join(' '), () => names);
    const offsets: number[] = [];
    for (const name of names) offsets.push(locations![name]!.startOffset, locations![name]!.endOffset);
    this.#offsets = offsets.length === 0 ? NONE : offsets;
  }

  /** Ranges of whole attributes, name and value, by lower-case name; the first of a name counts, as in the parser. */
  get attributes(): ReadonlyMap<string, SourceRange> {
    this.#attributes ??= new Map(
      this.#names.map((name, at) => [
        name,
        { start: this.#offsets[2 * at]!, end: this.#offsets[2 * at + 1]! },
      ]),
    );
    return this.#attributes;
  }
}

export interface PageElement {
  readonly index: number;
  /** Index of the parent element, -1 at the top. */
  readonly parent: number;
  /** Index of the sibling element before and after, -1 for none. */
  readonly previous: number;
  next: number;
  firstChild: number;
  /** Position among all sibling elements, from 1. */
  readonly position: number;
  readonly name: string;
  readonly namespace: 'html' | 'svg' | 'mathml';
  readonly attributes: readonly Attribute[];
  readonly id: string | undefined;
  readonly classes: readonly string[];
  readonly style: string | undefined;
  readonly tag: SourceTag | undefined;
  /** Has child text or comments-free content: what `:empty` asks. */
  hasText: boolean;
  /** Template text stands among its children: elements may appear there that the file does not show. */
  hasTemplateText: boolean;
  /** Engine text in its start tag: where attributes that the file does not show may come of it, it is `tag`. */
  readonly templated: 'no' | 'values' | 'tag';
  /** What tags may come of the one in the file, where an engine reads in it. */
  readonly engine: EngineTag | undefined;
  /** A branch opens it and does not close it: what begins from this offset on may stand outside. */
  surelyUntil?: number;
}

export type SheetReference =
  | {
      readonly kind: 'link';
      readonly element: number;
      readonly address: string;
      readonly media: string;
      readonly title: string;
      readonly alternate: boolean;
      readonly disabled: boolean;
      readonly scriptingOff: boolean;
      /** Whether it names the hash of its sheet: a sheet of other text is not loaded. */
      readonly hasHash?: true;
      readonly range: SourceRange;
      /** The part that brings it to the page. */
      readonly broughtBy?: Pick<Page, 'path' | 'text'>;
      /** Who links it but the markup: the configuration, or a call that a template engine carries out; if it does so at times. */
      readonly by?: 'configuration' | 'engine' | 'engine at times';
    }
  | {
      readonly kind: 'block';
      readonly element: number;
      readonly text: string;
      /** Offset of the block's text in the page, undefined where the page does not hold it as one piece. */
      readonly offset: number | undefined;
      /** Where that begins which a compiler makes the block of. */
      readonly madeAt?: number;
      readonly media: string;
      readonly title: string;
      readonly scriptingOff: boolean;
      /** An engine writes into it: rules may be there that the file does not show. */
      readonly isFilled?: boolean;
      /** A build made the page, or a framework the block's names: what stands in the block is not edited there. */
      readonly isFixed?: boolean;
      /** The part that brings it to the page. */
      readonly broughtBy?: Pick<Page, 'path' | 'text'>;
      /** A framework makes its rules style the elements of this file alone. */
      readonly isScoped?: boolean;
      /** A branch may leave it out. */
      readonly by?: 'engine at times';
    };

/** The style of an element as far as its attribute, or an object in code, writes it; `undefined` where it writes none. */
export function styleAsWritten({ style, tag }: Pick<PageElement, 'style' | 'tag'>): string | undefined {
  return style?.slice(0, tag?.styleLength) || undefined;
}

/** Whether a link is in force at once, in every medium, whatever else is chosen. */
export function isPlainLink(reference: SheetReference): boolean {
  return (
    reference.kind === 'link' &&
    /^(all)?$/i.test(reference.media.trim()) &&
    reference.title === '' &&
    !reference.alternate &&
    !reference.disabled &&
    !reference.scriptingOff &&
    reference.by !== 'engine at times'
  );
}

/** Whether the configuration says that a sheet is there. */
export function isGiven(reference: SheetReference): boolean {
  return reference.kind === 'link' && reference.by === 'configuration';
}

export type ScriptReference =
  | {
      readonly kind: 'link';
      readonly address: string;
      readonly range: SourceRange;
      /** The part that brings it to the page. */
      readonly broughtBy?: Pick<Page, 'path' | 'text'>;
    }
  | {
      readonly kind: 'inline';
      /** The part that brings it to the page, and holds it. */
      readonly broughtBy?: Pick<Page, 'path' | 'text'>;
      readonly text: string;
      readonly offset: number;
      readonly how: 'script' | 'handler';
    };

/** Text, comments, and the source of what is not read as elements, for seeing that an edit left them alone. */
export interface PageText {
  readonly parent: number;
  /** Index of the element before it among its siblings, -1 for none. */
  readonly previous: number;
  readonly value: string;
}

export interface MarkupDefect {
  readonly kind: 'doubled attribute';
  readonly detail: string;
  readonly range: SourceRange;
}

export interface PageInclusion extends Inclusion {
  readonly element: number;
  /** It stands in a branch. */
  readonly isAtTimes: boolean;
}

/** What stands around the tops of a part. */
export interface Around {
  /** Names all of it: equal keys, equal surroundings. */
  readonly key: string;
  /** Parts of the file, in order, none in another one; what begins in none of them may stand in anything. */
  readonly ranges: readonly (SourceRange & { readonly chains: readonly Chain[] })[];
  /** Whether it stands in the head wherever it is shown: white space in it shows nothing. */
  readonly isInHead: boolean;
  /** The whole pages that show it, where all of them are known. */
  readonly shownBy: readonly string[] | undefined;
}

/** One way in which a part is shown: the elements around it, outermost first, as a page of these alone. */
export interface Chain {
  readonly page: Page;
  /** Paths of the whole pages at its end; none where more may stand around it. */
  readonly roots: readonly string[];
  /** Names it as selectors see it. */
  readonly key: string;
}

export interface Page {
  readonly path: string;
  readonly text: string;
  /** A whole document, or a fragment that pages include. */
  readonly kind: 'page' | 'component';
  /** A page that nothing marks as a whole document: a fragment, perhaps, that is also opened by itself. */
  readonly bare: boolean;
  readonly quirks: boolean;
  /** Written for mail programs. */
  readonly isMail: boolean;
  /** The `href` of a `<base>` element, if there is one. */
  readonly base: string | undefined;
  readonly elements: readonly PageElement[];
  /** Engine text stands between its tags, or what looks like it. */
  readonly holdsEngineText: boolean;
  /** A template engine puts something in between its tags: it may show components. */
  readonly isFilled: boolean;
  /** Whether it may fill it with parts that other files hold; with some that it does not name. */
  readonly showsParts: boolean;
  readonly showsUnnamed: boolean;
  /** A branch closes what it has not opened: what begins from this offset on may stand in something else besides. */
  readonly looseFrom: number | undefined;
  /** What an engine may put into more than the tree shows, or somewhere else. */
  readonly wrapped: readonly Wrapped[];
  /** Other files that it names, and what a layout is filled with: each with the element that it stands in, -1 for none. */
  readonly inclusions: readonly PageInclusion[];
  /** Of a part, what is known to stand around it; see `cascade/standing.ts`. */
  readonly around?: Around | undefined;
  /** Template text stands in a tag so that any class or id may be there. */
  readonly hasTemplatedTags: boolean;
  readonly texts: readonly PageText[];
  /** Offsets of the end tags of outdated elements, by index. */
  readonly outdatedEnds: ReadonlyMap<number, number>;
  /** By index of an element, the offset behind its content; -1 where the source does not say. */
  readonly contentEnds: readonly number[];
  readonly sheets: readonly SheetReference[];
  readonly scripts: readonly ScriptReference[];
  /** Start tags inside `<template>` that carry a style attribute: inert, copied by scripts. */
  readonly inert: readonly { readonly style: string; readonly range: SourceRange }[];
  /** Class attributes inside `<template>`. */
  readonly inertClasses: readonly SourceRange[];
  /** Types, `.classes` and `#ids` of elements inside `<template>`. */
  readonly inertNames: readonly string[];
  /** Whether people write elements into it: something on it is `contenteditable`. */
  readonly isEdited: boolean;
  /** Texts of style elements inside `<template>`. */
  readonly inertBlocks: readonly SourceRange[];
  readonly shadowRoots: boolean;
  /** How deep its elements are nested. */
  readonly depth: number;
  /** A `<meta>` content security policy, which may switch style attributes and sheets off. */
  readonly hasPolicy: boolean;
  /** Why nobody knows what its elements look like. */
  readonly unread: string | undefined;
  readonly defects: readonly MarkupDefect[];
  /** Of a page that is not parsed yet: what is known of its elements. */
  readonly outline?: {
    /** Types, `.classes` and `#ids`, in lower case. */
    readonly names: ReadonlySet<string>;
    readonly classes: readonly string[];
    readonly count: number;
    readonly styles: readonly (readonly [style: string, offset: number])[];
    readonly hasHints: boolean;
  };
  /** Offsets to link a sheet at, best first: see `edits/link.ts`. */
  readonly head: {
    readonly endTag: number | undefined;
    readonly start: number | undefined;
    readonly first: number;
  };
}

/** How many elements it has. */
export function countOf(page: Page): number {
  return page.outline?.count ?? page.elements.length;
}

/** Offset of the attribute's value in the page, `undefined` where character references or line ends change it. */
export function valueOffset(page: Page, range: SourceRange, value: string): number | undefined {
  const source = page.text.slice(range.start, range.end);
  const equals = source.indexOf('=');
  if (equals < 0) return undefined;
  const behind = source.slice(equals + 1);
  const opening = /^[\t\n\f\r ]*["']?/.exec(behind)?.[0].length ?? 0;
  const at = equals + 1 + opening;
  return source.startsWith(value, at) && source.length - at - value.length <= 1
    ? range.start + at
    : undefined;
}

/** The classes that engine text may give an element; `undefined` where it could give it any name. */
export function mayHaveOf({ templated, engine, id }: PageElement): readonly string[] | undefined {
  if (templated === 'no') return NO_NAMES;
  return templated === 'values' && !hasTemplateText(id ?? '') ? engine?.mayHave : undefined;
}

const NO_NAMES: readonly string[] = [];

/** The whole pages that may show a component: those that an engine fills, where there are some; none that is mail. */
export function pagesThatShow(pages: readonly Page[]): readonly Page[] {
  const filled = pages.filter(mayShow);
  return filled.length > 0 ? filled : pages.filter(({ kind }) => kind === 'page');
}

/** Whether a page is one that an engine fills with parts. */
export function mayShow({ kind, showsParts, showsUnnamed, isMail, sheets }: Page): boolean {
  if (kind !== 'page' || !showsParts || isMail) return false;
  // What no sheet is linked from, and what has places for blocks and named parts alone, is filled with these.
  return showsUnnamed || sheets.some((one) => one.kind === 'link');
}

/** Whether something that no file shows may stand on a page: what an engine prints that fills it, or a part of one. */
export function mayHoldMore(page: Page): boolean {
  return mayShow(page) || (page.isFilled && page.sheets.some(isGiven));
}

const made = new WeakMap<Page, Map<SourceTag, number[]>>();

/** The elements that were made from a tag: one, save where formatting is misnested. */
export function elementsOfTag(page: Page, tag: SourceTag | undefined): readonly number[] {
  if (tag === undefined) return [];
  let byTag = made.get(page);
  if (byTag === undefined) {
    byTag = new Map();
    for (const { index, tag: own } of page.elements) {
      if (own === undefined) continue;
      const known = byTag.get(own);
      if (known === undefined) byTag.set(own, [index]);
      else known.push(index);
    }
    made.set(page, byTag);
  }
  return byTag.get(tag) ?? [];
}
