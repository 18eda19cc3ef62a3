// What an engine may put somewhere else than it is written, or into something that the file does not show: the block of a
// helper that prints around it, a macro, what is kept for a layout, what stands between two calls that begin and end a form.

import { isVoid } from '../../base/void-elements.js';
import { withoutStrings } from './engines/code.js';
import type { Wrapping } from './engines/engine.js';
import type { EnginePiece } from './pieces.js';

export interface Wrapped {
  readonly start: number;
  readonly end: number;
  readonly how: Wrapping;
}

/** In: a text; its pieces that stand between tags, in order. Out: what may stand in more than the text shows. */
export function wrappedIn(text: string, pieces: readonly EnginePiece[]): Wrapped[] {
  return [...inBlocks(text, pieces), ...betweenCalls(text, pieces), ...inTags(text, pieces)];
}

/** What stands between a piece that opens something and the one that closes it. */
function inBlocks(text: string, pieces: readonly EnginePiece[]): Wrapped[] {
  const found: Wrapped[] = [];
  const open: EnginePiece[] = [];
  const note = (opener: EnginePiece, end: number): void => {
    const how = opener.engine.wraps(opener.code);
    if (how !== undefined) found.push({ start: opener.end, end, how });
  };
  for (const piece of pieces) {
    // `<?php } function card() { ?>` ends one thing and begins another.
    const isOther = piece.role === 'else' && /\bfunction\s/.test(piece.code);
    if (piece.role === 'open' || isOther) {
      const before = isOther ? open.pop() : undefined;
      if (before !== undefined) note(before, piece.start);
      open.push(piece);
    } else if (piece.role === 'close') {
      const opener = open.pop();
      if (opener !== undefined) note(opener, piece.start);
    }
  }
  for (const opener of open) note(opener, text.length);
  return found;
}

/** Calls by which something begins that a later call ends. */
const BEGINS =
  /\b(?:ob_start|\w*(?:[bB]egin|[oO]pen|[sS]tart)(?:_?[fF]orm|_?[bB]lock|_?[wW]idget|_?[tT]ag|_?[cC]ontent\w*)?|form_(?:start|open\w*)|(?:[fF]orm|Html)(?:->|::)(?:create|open|model)|(?:->|::)(?:begin|start|open))\s*\(/;
const ENDS =
  /\b(?:ob_(?:get|end)_\w+|\w*(?:[eE]nd|[cC]lose|[sS]top|[fF]inish)(?:_?[fF]orm|_?[bB]lock|_?[wW]idget|_?[tT]ag|_?[cC]ontent\w*)?|form_(?:end|close)|(?:->|::)(?:end|stop|close|finish))\s*\(/;
/** They open what shows nothing. */
const NO_ELEMENT = /\b(?:wp_body_open|fopen|session_start|opendir|set_time_limit|\w*[iI]s_?[oO]pen\w*)\s*\(/g;
const KEEPS = /\bob_start|(?:->|::)start\b|[bB]lock|[cC]ontent/;
const PRINTS = /^<\?=|^<%=|^\{|\b(?:echo|print|ob_start)\b/;

/** What stands between a call that begins something and the one that ends it. */
function betweenCalls(text: string, pieces: readonly EnginePiece[]): Wrapped[] {
  const found: Wrapped[] = [];
  const open: { readonly from: number; readonly how: Wrapped['how']; readonly prints: boolean }[] = [];
  for (const { start, end, role, code } of pieces) {
    if (role !== 'none' || code === '') continue;
    const bare = withoutStrings(code).replace(NO_ELEMENT, '');
    const begins = BEGINS.exec(bare);
    const ends = ENDS.exec(bare);
    if (ends !== null) {
      const opener = open.pop();
      if (opener !== undefined) found.push({ start: opener.from, end: start, how: opener.how });
    }
    if (begins === null || (ends !== null && ends.index > begins.index)) continue;
    const how = KEEPS.test(begins[0]) ? 'elsewhere' : 'within';
    open.push({ from: end, how, prints: PRINTS.test(text.slice(start, end)) });
  }
  // What ends nowhere is something else, but for what prints.
  for (const { from, how, prints } of open) if (prints) found.push({ start: from, end: text.length, how });
  return found;
}

const TAGS = /<(\/?)([a-z][a-z0-9]*)\b(?:[^<>"']|"[^"]*"|'[^']*')*?(\/?)>/gi;
/** What stands between a tag that code prints and the one by which it closes it. */
function inTags(text: string, pieces: readonly EnginePiece[]): Wrapped[] {
  const found: Wrapped[] = [];
  const open: { readonly name: string; readonly from: number }[] = [];
  for (const { start, end, code } of pieces) {
    if (!code.includes('<')) continue;
    for (const [, slash, written, isAlone] of code.matchAll(TAGS)) {
      const name = written!.toLowerCase();
      if (isAlone !== '' || isVoid(name)) continue;
      if (slash === '') open.push({ name, from: end });
      else {
        const at = open.findLastIndex((one) => one.name === name);
        const [opener] = at < 0 ? [] : open.splice(at);
        if (opener !== undefined && opener.from <= start)
          found.push({ start: opener.from, end: start, how: 'within' });
      }
    }
  }
  for (const { from } of open)
    if (from < text.length) found.push({ start: from, end: text.length, how: 'within' });
  return found;
}
