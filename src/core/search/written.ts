// A style as it will be written: its selectors, and its rules.

import type { Declaration } from '../read/sheets/index.js';
import type { Part } from '../read/sheets/shared-sheet.js';
import type { MovableDeclaration } from '../stock/index.js';
import { selectorText } from './by-selectors.js';
import type { NamedStyle } from './home.js';

/** A declaration, and the path of the file that its addresses are relative to. */
export interface Placed {
  readonly declaration: Declaration;
  readonly holder: string;
}

export interface SharedRule {
  readonly selectors: readonly string[];
  readonly part: Part;
  readonly declarations: readonly Placed[];
  /** `@media …` around it, the outermost first. */
  readonly conditions?: readonly string[];
}

/** The selectors of a style as they are written; none where it needs no rule. */
export function selectorsOf({ home, strength, className }: NamedStyle): string[] {
  switch (home.kind) {
    case 'already given':
    case 'existing class':
      return [];
    case 'existing selector':
    case 'position':
      return [...home.selectors];
    case 'new class':
      return [
        `${home.scope === undefined ? '' : `${home.scope} `}${selectorText(`.${className}`, strength)}`,
      ];
  }
}

/** One rule for the elements, and one for the cells of tables where a table declares something of its cells. */
export function rulesOf(style: NamedStyle): SharedRule[] {
  const selectors = selectorsOf(style);
  if (selectors.length === 0) return [];
  const own = placed(style.movables, ({ declarations }) => declarations);
  const cells = placed(style.movables, (movable) => movable.cells ?? []);
  const { part } = style;
  return [
    ...(own.length === 0 ? [] : [{ selectors, part, declarations: own }]),
    ...(cells.length === 0
      ? []
      : [{ selectors: selectors.flatMap(cellSelectors), part, declarations: cells }]),
  ];
}

function placed(
  movables: readonly MovableDeclaration[],
  pick: (movable: MovableDeclaration) => MovableDeclaration['declarations'],
): SharedRule['declarations'] {
  // As they were written: most stood in one tag.
  return [...movables]
    .sort((a, b) => (a.declarations[0]?.range.start ?? 0) - (b.declarations[0]?.range.start ?? 0))
    .flatMap((movable) => pick(movable).map((declaration) => ({ declaration, holder: movable.holder })));
}

/** The cells of a table, and not those of a table inside it. */
function cellSelectors(table: string): string[] {
  const weak = /^:where\((.*)\)$/.exec(table)?.[1];
  return ['td', 'th'].map((cell) =>
    weak === undefined ? `${table} > * > tr > ${cell}` : `:where(${weak} > * > tr > ${cell})`,
  );
}
