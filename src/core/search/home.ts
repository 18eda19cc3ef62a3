// Where a style goes, and all that is known of it.

import { startsWithAny } from '../base/phrases.js';
import type { KeptReason } from '../base/reasons/index.js';
import type { Place } from '../base/source.js';
import { PARTS, type Part } from '../read/sheets/shared-sheet.js';
import type { MovableDeclaration, StyledTag } from '../stock/index.js';
import type { Strength } from './reach.js';

export type Home =
  /** Without it everything looks the same. */
  | { readonly kind: 'already given' }
  /** A class that a sheet defines already. */
  | { readonly kind: 'existing class'; readonly name: string; readonly because: string }
  /** Selectors that pick these elements out as they are. */
  | { readonly kind: 'existing selector'; readonly selectors: readonly string[] }
  | { readonly kind: 'position'; readonly selectors: readonly string[] }
  /** Named later. */
  | { readonly kind: 'new class'; readonly scope: string | undefined };

export interface Member {
  readonly styledTag: StyledTag;
  /** The movable declarations of this tag that the style takes over. */
  readonly movables: readonly MovableDeclaration[];
}

export interface Style {
  readonly home: Home;
  readonly strength: Strength;
  /** Keys of the movable declarations, sorted. */
  readonly keys: readonly string[];
  /** The movable declarations as they are written into the sheet. */
  readonly movables: readonly MovableDeclaration[];
  readonly members: readonly Member[];
  readonly part: Part;
  /** What holds its rule instead of the shared sheet: the own block of the only page that uses it, or a module of components. */
  readonly page: string | undefined;
  /** The place among new rules: later ones win. */
  readonly order: number;
  /** Why a home that is better by rank was not possible. */
  readonly instead: string | undefined;
  /** The rule that asks for more strength than the plain selector has. */
  readonly beats: Extract<KeptReason, { kind: 'stronger rule' }> | undefined;
}

const LAYOUT = [
  'margin',
  'padding',
  'width',
  'height',
  'min-',
  'max-',
  'display',
  'float',
  'clear',
  'position',
  'top',
  'right',
  'bottom',
  'left',
  'inset',
  'flex',
  'grid',
  'gap',
  'row-gap',
  'column-gap',
  'align',
  'justify',
  'place',
  'order',
  'overflow',
  'box-sizing',
  'vertical-align',
  'z-index',
  'table-layout',
];

/** Styles that only place and size things are layout; all others are components. */
export function partOf(declarations: readonly { readonly property: string }[]): Part {
  return declarations.every(({ property }) => startsWithAny(property, LAYOUT)) ? 'layout' : 'components';
}

/** Numbers new rules in the order in which the sheet will hold them. */
export class RuleOrder {
  #last = 0;

  /** The number that the next rule would have. */
  peek(part: Part): number {
    return PARTS.indexOf(part) * 1_000_000 + this.#last + 1;
  }

  next(part: Part): number {
    return PARTS.indexOf(part) * 1_000_000 + ++this.#last;
  }
}

/** The place of a tag in the files as they are, whatever step found it. */
export type PlaceOf = (styledTag: StyledTag) => Place;

/** Paths of all pages that tags stand on. */
export function pagesOf(styledTags: readonly StyledTag[]): Set<string> {
  return new Set(styledTags.flatMap(({ page, also }) => [page.path, ...also.map(({ path }) => path)]));
}

/** A style with the class that its elements wear, if they wear one for it. */
export interface NamedStyle extends Style {
  readonly className: string | undefined;
  /** By path of a component, the name by which its code knows the module that the class stands in. */
  readonly askedOf?: ReadonlyMap<string, string> | undefined;
}

/** What was made of the styles that a search found: names given, some refused by a person. */
export interface Decided {
  readonly styles: readonly NamedStyle[];
  readonly kept: readonly Kept[];
}

/** A declaration that stays where it is. */
export interface Kept {
  readonly styledTag: StyledTag;
  readonly movable: MovableDeclaration;
  readonly reason: KeptReason;
}
