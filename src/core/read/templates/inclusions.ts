// Which other files a template names: the layout that it fills, the parts that it shows, the blocks that it has or fills, and
// where a layout puts what it is filled with.

import type { NamedFile } from './engines/engine.js';
import { maskPieces } from './mask.js';
import { type EnginePiece, enginePieces, mayHoldEngineText } from './pieces.js';

export interface Inclusion extends NamedFile {
  readonly start: number;
  readonly end: number;
  /** Of a block, where what stands in it ends; `end` without an end. */
  readonly until: number;
}

/** In: the text of a template, and its path. Out: in order. */
export function inclusionsIn(text: string, path: string): Inclusion[] {
  const pieces = mayHoldEngineText(text, path) ? enginePieces(text, path) : [];
  return inclusionsOf(text, pieces.length === 0 ? [] : maskPieces(text, pieces).between);
}

/** The same, of the pieces of a text that stand between its tags. */
export function inclusionsOf(text: string, pieces: readonly EnginePiece[]): Inclusion[] {
  const ends = endsOf(pieces);
  const found = pieces.flatMap((piece): Inclusion[] => {
    const { start, end, code, role, engine } = piece;
    const one = engine.names(code, role);
    return one === undefined ? [] : [{ ...one, start, end, until: ends.get(piece) ?? end }];
  });
  const layout = layoutAtTop(text);
  if (layout === undefined) return found;
  return [{ kind: 'extends', names: [layout], start: 0, end: 0, until: 0 }, ...found];
}

/** Words for no layout. */
const NONE = new Set(['false', 'null', 'none', 'nil']);

/** `layout: page` among the data at the head of a file. */
function layoutAtTop(text: string): string | undefined {
  if (!text.startsWith('---\n') && !text.startsWith('---\r\n')) return undefined;
  const end = text.indexOf('\n---', 3);
  const line = text
    .slice(0, Math.max(0, end))
    .split('\n')
    .find((one) => one.startsWith('layout:'));
  const layout = /^layout:[ \t]*["']?([\w./-]+)/.exec(line ?? '')?.[1];
  return layout === undefined || NONE.has(layout) ? undefined : layout;
}

/** What opens something, with where that ends. */
function endsOf(pieces: readonly EnginePiece[]): Map<EnginePiece, number> {
  const ends = new Map<EnginePiece, number>();
  const open: EnginePiece[] = [];
  for (const piece of pieces) {
    if (piece.role === 'open') open.push(piece);
    const opener = piece.role === 'close' ? open.pop() : undefined;
    if (opener !== undefined) ends.set(opener, piece.start);
  }
  return ends;
}
