// Finds what a template engine reads in a file, before anybody reads the markup around it.

import { firstWord } from './engines/code.js';
import {
  type EnginePiece,
  EngineSource,
  type FoundPiece,
  type Marks,
  type TemplateEngine,
} from './engines/engine.js';
import { ENGINES, engineOf } from './engines/index.js';

export type { EnginePiece } from './engines/engine.js';

/** Markers with their engines; of two that begin alike the longer one first. */
const MARKS: readonly { readonly marks: Marks; readonly engine: TemplateEngine }[] = ENGINES.flatMap(
  (engine) => (engine.marks ?? []).map((marks) => ({ marks, engine })),
).sort((a, b) => b.marks.open.length - a.marks.open.length);
const TOLD_BY_TEXT = ENGINES.filter(({ told }) => told?.by === 'text');
/** What any of the markers begins with: pages are long, and hold few of these. */
const FIRST = new RegExp(`[${[...new Set(MARKS.map(({ marks }) => marks.open[0]!))].join('')}]`, 'g');

/** Whether engine text may stand in a text: where none does, nothing of this stage is needed. In: the path of its file. */
export function mayHoldEngineText(text: string, path = ''): boolean {
  const own = engineOf(path);
  return (
    MARKS.some(({ marks }) => holdsOpener(text, marks.open)) ||
    (own?.told?.by === 'ending' && own.told.mayHold(text)) ||
    TOLD_BY_TEXT.some(({ told }) => told!.mayHold(text))
  );
}

/** `<?xml` is no opener. */
function holdsOpener(text: string, open: string): boolean {
  if (open !== '<?') return text.includes(open);
  for (let at = text.indexOf(open); at >= 0; at = text.indexOf(open, at + 2))
    if (!text.startsWith('xml', at + 2)) return true;
  return false;
}

/** Whether a text has engine text in it. */
export function holdsEngineText(text: string, path = ''): boolean {
  return mayHoldEngineText(text, path) && enginePieces(text, path).length > 0;
}

/** In: the text of a file, and its path, which may tell the engine. Out: its pieces of engine text, in order. */
export function enginePieces(text: string, path = ''): EnginePiece[] {
  let found = markedPieces(text);
  const own = engineOf(path);
  if (own?.told?.by === 'ending') found = together(found, pieced(own, text));
  for (const engine of TOLD_BY_TEXT)
    if (engine.told!.mayHold(text)) {
      const more = pieced(engine, text);
      found = engine.told!.comesFirst === true ? together(more, found) : together(found, more);
    }
  return found;
}

/** What markers tell. */
function markedPieces(text: string): EnginePiece[] {
  const found: EnginePiece[] = [];
  const source = new EngineSource(text);
  const first = new RegExp(FIRST);
  for (let match = first.exec(text); match !== null; match = first.exec(text)) {
    const { index: at } = match;
    const begun = MARKS.find(({ marks }) => text.startsWith(marks.open, at));
    if (begun === undefined) continue;
    const piece = begun.marks.read(source, at);
    if (piece !== undefined) found.push(ofEngine(begun.engine, piece));
    first.lastIndex = piece?.end ?? at + begun.marks.open.length;
  }
  return found;
}

function pieced(engine: TemplateEngine, text: string): EnginePiece[] {
  return engine.told!.read(text).map((piece) => ofEngine(engine, piece));
}

function ofEngine(engine: TemplateEngine, piece: FoundPiece): EnginePiece {
  return { ...piece, engine, isBranch: piece.role === 'open' && !opensAlways(engine, piece.code) };
}

/** Whether a piece opens what comes in any case: `{{#> layout}}`, `{% block main %}`. */
function opensAlways(engine: TemplateEngine, code: string): boolean {
  const bare = code.startsWith('#') ? code.slice(1) : code;
  const own = '>*'.includes(bare[0] ?? ' ') ? bare.slice(1) : bare;
  return engine.always.has(firstWord(own.trimStart()));
}

/** Those that stand in none of the others, among them. */
function together(found: readonly EnginePiece[], more: readonly EnginePiece[]): EnginePiece[] {
  const all: EnginePiece[] = [];
  let next = 0;
  let end = 0;
  for (const piece of [...found, undefined]) {
    const start = piece?.start ?? Number.POSITIVE_INFINITY;
    for (; next < more.length && more[next]!.start < start; next++)
      if (more[next]!.start >= end && more[next]!.end <= start) all.push(more[next]!);
    if (piece === undefined) break;
    all.push(piece);
    end = piece.end;
  }
  return all;
}
