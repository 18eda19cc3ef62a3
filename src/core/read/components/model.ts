// What is read of a component, whichever framework it is of.

import type { SourceRange } from '../../base/source.js';
import type { EngineTag } from '../templates/index.js';

export interface ComponentElement {
  readonly kind: 'element';
  /** As the framework hands it to the browser. */
  readonly name: string;
  readonly namespace: 'html' | 'svg' | 'mathml';
  readonly attributes: readonly WrittenAttribute[];
  readonly tag: SourceRange;
  /** Offset of the end tag, and behind the element; -1 for none. */
  readonly endTag: number;
  readonly end: number;
  readonly children: readonly ComponentNode[];
  /** What is not written out may come among its children. */
  readonly isOpen: boolean;
  /** What of its classes and other attributes only runs decide; `undefined` where all of it is written out. */
  readonly engine: EngineTag | undefined;
  /** Where its style is an object in code: the entries. */
  readonly styleObject: StyleObject | undefined;
  /** Characters of its style that its attribute or object writes; `undefined` for all of it. */
  readonly styleLength: number | undefined;
}

export interface WrittenAttribute {
  /** As in HTML. */
  readonly name: string;
  /** What is not written out of it is between marks: see `INVISIBLE_MARK`. */
  readonly value: string;
  readonly range: SourceRange;
}

export interface ComponentText {
  readonly kind: 'text';
  readonly value: string;
}

export type ComponentNode = ComponentElement | ComponentText;

/** A style that is an object of literals: `{ marginRight: 6, color: 'red' }`. */
export interface StyleObject {
  /** In the order of the declarations of the style's text: the entry, with its comma. */
  readonly entries: readonly SourceRange[];
}

export interface StyleBlock {
  /** As CSS. */
  readonly text: string;
  /** Where what is written in the file begins and ends. */
  readonly offset: number;
  readonly end: number;
  /** `css`, or the language that it is written in. */
  readonly lang: string;
  readonly media: string;
  /** Whether its rules style the elements of the component alone. */
  readonly isScoped: boolean;
  /** Why it cannot be read, whatever its language. */
  readonly unread: string | undefined;
  /** Whether its language is a preprocessor's: see `blocksWith`. */
  readonly toCompile: boolean;
}

/** In: the path of a component, what a block of it says, and in which language. Out: the CSS; `undefined` where none comes of it. */
export type BlockCompiler = (path: string, text: string, lang: string) => string | undefined;

export interface ComponentFile {
  /** Elements that nothing known stands around. */
  readonly roots: readonly ComponentNode[];
  /** Expressions between tags: an edit must leave them alone. */
  readonly expressions: readonly string[];
  readonly blocks: readonly StyleBlock[];
  /** Sheets that it imports by name, as it names them. */
  readonly imports: readonly string[];
  /** Sheets that it asks for names of classes. */
  readonly modules?: ReadonlyMap<string, string>;
}
