// A tag that carries styling, and the movable declarations that it is cut into.

import type { KeptReason } from '../base/reasons/index.js';
import type { Place, SourceRange } from '../base/source.js';
import type { Page, PageElement, SourceTag } from '../read/markup/index.js';
import type { Declaration } from '../read/sheets/index.js';

import type { Movable } from './movables.js';

/** A style attribute in the source. */
export interface StyleAttribute {
  /** The whole attribute. */
  readonly range: SourceRange;
  readonly value: string;
  readonly declarations: readonly Declaration[];
  /** The source of the value equals the value: offsets in it are offsets in the source. */
  readonly literal: boolean;
}

/** One start tag that says how its element looks: in a style attribute, in old attributes, by its name. */
export interface StyledTag {
  readonly page: Page;
  /** The first element made from the tag; `undefined` inside `<template>`. */
  readonly element: PageElement | undefined;
  readonly tag: SourceTag | undefined;
  /** Offset of the tag; inside `<template>` that of the style attribute. */
  readonly start: number;
  readonly style: StyleAttribute | undefined;
  readonly movables: readonly MovableDeclaration[];
  /** Tags of the site that are written like it, and that it stands for. */
  readonly also: readonly Place[];
  /** What part of a tag of a source it stands for: less than 1 where a build makes several tags of one. */
  readonly share: number;
}

/** How many tags of the site a styled tag stands for; all that are made of one tag of a source are one. */
export function tagsOf({ also, share }: Pick<StyledTag, 'also' | 'share'>): number {
  return share * (1 + also.length);
}

/** What is taken out of a tag when a movable declaration moves. */
export type MovableSource =
  | { readonly kind: 'style' }
  | { readonly kind: 'attributes'; readonly names: readonly string[] }
  | { readonly kind: 'name' };

export interface MovableDeclaration extends Movable {
  readonly from: MovableSource;
  /** Why it must stay, known before any proof. */
  readonly objection: KeptReason | undefined;
}

export interface StyledTagOptions {
  /** Whether `width` and `height` of pictures may move: as attributes they reserve space before a picture is there. */
  readonly pictureSizes: 'keep' | 'move';
  /** Whether old attributes go at any count, or as all else where they repeat. */
  readonly outdated?: 'repeats' | 'move';
  /** Whether styles leave the tags of mail. */
  readonly mail?: 'keep' | 'move';
  /** Where a build made the pages: what is known of the sources of their tags. */
  readonly built?: BuiltTags | undefined;
}

/** Of pages that a build made. */
export interface BuiltTags {
  /** Why a tag must stay as it is; `undefined` where it may be edited. */
  objection(page: Page, tag: SourceTag | undefined): KeptReason | undefined;
  /** Where it stands in the sources. */
  placeOf(page: Page, tag: SourceTag | undefined): Place | undefined;
}

/** Whether all of these tags may be edited, as far as a build decides it. */
export function mayEditAll(
  tags: readonly { readonly page: Page; readonly element: PageElement }[],
  built: BuiltTags | undefined,
): boolean {
  return (
    built === undefined || tags.every(({ page, element }) => built.objection(page, element.tag) === undefined)
  );
}
