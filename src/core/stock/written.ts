// Every declaration the developer owns, with the place it is written at: style attributes, style blocks, theme sheets,
// and old attributes as what they say.

import type { SiteModel } from '../cascade/index.js';
import { type Page, presentationalHint } from '../markup/index.js';
import type { Declaration, Sheet } from '../sheets/index.js';
import { parseSheet } from '../sheets/index.js';
import { type Place, placeIn } from '../source.js';
import { type Carrier, valueOffset } from './inline.js';
import { declarationKey } from './units.js';

export type WrittenIn = 'style attribute' | 'style block' | 'theme sheet' | 'old attribute';

export interface Written {
  readonly where: WrittenIn;
  readonly path: string;
  readonly offset: number;
  /** Equal keys say the same under the same conditions. */
  readonly key: string;
  /** As a person reads it: `color: #fff`, `bgcolor="#eef"`. */
  readonly text: string;
  readonly declaration: Declaration | undefined;
}

/** Finds places for offsets in a site's pages and sheets. */
export class Places {
  readonly #model: SiteModel;

  constructor(model: SiteModel) {
    this.#model = model;
  }

  at(path: string, offset: number): Place {
    const { pages, sheets } = this.#model.sources;
    return placeIn(path, pages.get(path) ?? sheets.get(path) ?? '', offset);
  }
}

export interface Block {
  readonly page: Page;
  readonly offset: number;
  readonly sheet: Sheet;
}

/** Style blocks whose text stands in the page as one piece; equal texts share one parse. */
export function styleBlocks(model: SiteModel): Block[] {
  const parsed = new Map<string, Sheet>();
  const blocks: Block[] = [];
  for (const page of model.pages) {
    for (const reference of page.sheets) {
      if (reference.kind !== 'block' || reference.offset === undefined) continue;
      let sheet = parsed.get(reference.text);
      if (sheet === undefined) {
        sheet = parseSheet(reference.text);
        parsed.set(reference.text, sheet);
      }
      blocks.push({ page, offset: reference.offset, sheet });
    }
  }
  return blocks;
}

/** Everything written, in no order that matters. `themes` are paths of the sheets that may be edited. */
export function everythingWritten(
  model: SiteModel,
  carriers: readonly Carrier[],
  blocks: readonly Block[],
  themes: readonly string[],
): Written[] {
  const found: Written[] = [];
  for (const { page, range, value, declarations } of carriers) {
    const start = valueOffset(page, range, value) ?? range.start;
    for (const declaration of declarations) {
      found.push(writtenOf('style attribute', page.path, start + declaration.range.start, declaration, ''));
    }
  }
  for (const { page, offset, sheet } of blocks) addSheet(found, 'style block', page.path, offset, sheet);
  for (const path of themes) {
    const program = model.sheetAt(path);
    if (program !== undefined) addSheet(found, 'theme sheet', path, 0, program.sheet);
  }
  for (const page of model.pages) {
    for (const element of page.elements) {
      for (const { written, attribute } of presentationalHint(element)) {
        const range = attribute === undefined ? undefined : element.tag?.attributes.get(attribute);
        const offset = range?.start ?? element.tag?.range.start ?? 0;
        found.push({
          where: 'old attribute',
          path: page.path,
          offset,
          key: written.toLowerCase(),
          text: written,
          declaration: undefined,
        });
      }
    }
  }
  return found;
}

function addSheet(found: Written[], where: WrittenIn, path: string, offset: number, sheet: Sheet): void {
  for (const { conditions, declarations } of sheet.rules) {
    const under = conditions.map(({ kind, text }) => `@${kind} ${text} `).join('');
    for (const declaration of declarations)
      found.push(writtenOf(where, path, offset + declaration.range.start, declaration, under));
  }
}

function writtenOf(
  where: WrittenIn,
  path: string,
  offset: number,
  declaration: Declaration,
  under: string,
): Written {
  const { property, value, important } = declaration;
  const text = `${property}: ${value.replace(/\s+/g, ' ')}${important ? ' !important' : ''}`;
  return { where, path, offset, key: under + declarationKey(declaration, path), text, declaration };
}
