// What is asked of whatever fills a file, be it a template engine or a framework.

import type { SourceRange } from '../../base/source.js';
import type { EngineTag, Wrapped } from '../templates/index.js';
import type { PageElement, PageInclusion, ScriptReference, SheetReference } from './page.js';
import type { SourceElement } from './tree.js';

export interface Engine {
  /** What the markup parser gets: every offset is as it was. */
  readonly masked: string;
  /** What no value holds, in order: an edit must leave it alone. */
  readonly texts: readonly string[];
  /** Whether something that is not written out stands between the tags. */
  readonly isBetween: boolean;
  isFilled(elements: readonly PageElement[], contentEnds: readonly number[]): boolean;
  /** Whether it may fill the file with parts that other files hold. */
  showsParts(elements: readonly PageElement[], contentEnds: readonly number[]): boolean;
  /** The same, with parts that it does not name. */
  showsUnnamed(elements: readonly PageElement[], contentEnds: readonly number[]): boolean;
  /** What may come of a tag; `undefined` for one that is all written out. */
  tag(node: SourceElement, range: SourceRange | undefined): EngineTag | undefined;
  isAmongRows(node: SourceElement, isAround: boolean): boolean;
  isInTag(range: SourceRange): boolean;
  /** The offset from which on elements may stand in more than the tree shows. */
  markHalves(elements: readonly PageElement[], contentEnds: readonly number[]): number | undefined;
  /** Other files that it names. */
  inclusions(elements: readonly PageElement[], contentEnds: readonly number[]): readonly PageInclusion[];
  /** What may stand in more than the tree shows, or somewhere else. */
  wrapped(elements: readonly PageElement[], contentEnds: readonly number[]): readonly Wrapped[];
  /** The elements among whose children something may come, and whether text may. */
  holders(
    elements: readonly PageElement[],
    contentEnds: readonly number[],
  ): Iterable<{ readonly index: number; readonly prints: boolean }>;
  sheets(
    own: readonly SheetReference[],
    elements: readonly PageElement[],
    contentEnds: readonly number[],
  ): SheetReference[];
  scripts(own: readonly ScriptReference[]): ScriptReference[];
}
