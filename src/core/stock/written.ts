// Every declaration the developer owns: in style attributes, style blocks, theme sheets, and old attributes as what
// they say.

import { withSingleSpaces } from '../base/phrases.js';
import { hasTemplateText } from '../read/markup/index.js';
import type { Declaration, Sheet } from '../read/sheets/index.js';
import { parseSheet } from '../read/sheets/index.js';
import { declarationKey, type Movable } from './movables.js';
import type { BlockSighting, StockData, StyleSighting } from './statistics.js';
import { readStyle } from './styled-tags.js';

export type WrittenIn = 'style attribute' | 'style block' | 'theme sheet' | 'old attribute';

export interface Written {
  readonly where: WrittenIn;
  /** Equal keys declare the same under the same conditions. */
  readonly key: string;
  /** As a person reads it: `color: #fff`, `bgcolor="#eef"`. */
  readonly text: string;
  readonly declaration: Declaration | undefined;
  readonly times: number;
}

/** The different style attributes, each read once. */
export interface WrittenStyle extends StyleSighting {
  readonly declarations: readonly Declaration[];
  readonly movables: readonly Movable[];
  readonly templated: boolean;
}

/** The different style blocks, each parsed once. */
export interface WrittenBlock extends BlockSighting {
  readonly sheet: Sheet;
}

export interface WrittenSheet {
  readonly path: string;
  readonly sheet: Sheet;
}

export interface Everything {
  readonly styles: readonly WrittenStyle[];
  readonly blocks: readonly WrittenBlock[];
  readonly themes: readonly WrittenSheet[];
  readonly written: readonly Written[];
}

/** Reads what a survey's book holds. `themes` are the sheets that may be edited. Order is that of first places. */
export function everythingWritten(stock: StockData, themes: readonly WrittenSheet[]): Everything {
  const written: Written[] = [];
  const add = (where: WrittenIn, holder: string, one: Declaration, under: string, times: number): void => {
    const { property, value, important } = one;
    const text = `${property}: ${withSingleSpaces(value)}${important ? ' !important' : ''}`;
    written.push({ where, key: under + declarationKey(one, holder), text, declaration: one, times });
  };
  const styles = [...stock.styles.values()].map((one): WrittenStyle => {
    const { declarations, movables } = readStyle(one.style, one.holder);
    for (const each of declarations) add('style attribute', one.holder, each, '', one.times);
    return { ...one, declarations, movables, templated: hasTemplateText(one.style) };
  });
  const addSheet = (where: WrittenIn, holder: string, sheet: Sheet, times: number): void => {
    for (const { conditions, declarations } of sheet.rules) {
      const under = conditions.map(({ kind, text }) => `@${kind} ${text} `).join('');
      for (const one of declarations) add(where, holder, one, under, times);
    }
  };
  const blocks = [...stock.blocks.values()].map((one): WrittenBlock => {
    const sheet = parseSheet(one.text);
    addSheet('style block', one.holder, sheet, one.times);
    return { ...one, sheet };
  });
  for (const { path, sheet } of themes) addSheet('theme sheet', path, sheet, 1);
  for (const [text, times] of stock.hints)
    written.push({ where: 'old attribute', key: text.toLowerCase(), text, declaration: undefined, times });
  return { styles, blocks, themes, written };
}
