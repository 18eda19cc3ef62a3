// What an engine may put somewhere else than it is written, or into something that the file does not show: the block of a
// helper that prints around it, a macro, what is kept for a layout, what stands between two calls that begin and end a form.

import type { EnginePiece } from './pieces.js';
import { withoutStrings } from './roles.js';

export interface Wrapped {
  readonly start: number;
  readonly end: number;
  /** `within`: in what stands around it in the file, and perhaps in more; `elsewhere`: nobody knows in what. */
  readonly how: 'within' | 'elsewhere';
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
    const how = howOf(opener, text.slice(opener.start, opener.start + 3));
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

/** In: a piece that opens something, and the marks that it begins with. */
function howOf({ code }: EnginePiece, marks: string): Wrapped['how'] | undefined {
  if (marks.startsWith('<')) return howOfCode(code);
  if (marks.startsWith('@')) return howOfDirective(code);
  if (marks.startsWith('{{')) return howOfSection(code);
  return howOfWord(code);
}

const CHOOSES =
  /^(?:\}\s*)?(?:else\b|if\b|unless\b|elsif\b|elseif\b|for\b|foreach\b|while\b|until\b|switch\b|case\b|begin\b|try\b|do\b|loop\b|cache\b|\w*fields_for\b)/i;
const REPEATS =
  /(?:\.|->|\b_\.)\s*(?:each\w*|forEach|map\w*|collect|times|upto|downto|step|select|reject|filter|find_each|in_groups\w*|with_index|sort_by|reverse|entries|keys|tap|presence|then)\b/;
const NAMED =
  /^(?:(?:public|private|protected|static|abstract|final|async)\s+)*(?:function\s+\w|class\s|define\b)|^(?:const|let|var)?\s*[\w$.[\]'"]+\s*=\s*(?:async\s*)?(?:function\b|\([^)]*\)\s*=>|\w+\s*=>|capture\b|->|lambda\b|proc\b)/;
const KEPT = /^[\w.]*\b(?:content_for|capture|provide|append_to|prepend_to|define_method)\b/;

function howOfCode(code: string): Wrapped['how'] | undefined {
  const heads = headsOf(withoutStrings(code));
  if (heads.some((head) => NAMED.test(head) || KEPT.test(head))) return 'elsewhere';
  return heads.every((head) => head === '' || CHOOSES.test(head) || REPEATS.test(head))
    ? undefined
    : 'within';
}

/** Of code that is left open, the beginnings of what it leaves open. */
function headsOf(code: string): string[] {
  const heads: { readonly text: string; readonly parens: number }[] = [];
  let [from, parens] = [0, 0];
  for (const [at, char] of [...code].entries()) {
    if (char === '(') parens++;
    else if (char === ')') parens--;
    else if (char === '{') {
      heads.push({ text: code.slice(from, at).trim(), parens });
      from = at + 1;
    } else if (char === '}') {
      heads.pop();
      from = at + 1;
    } else if (char === ';' && parens <= (heads.at(-1)?.parens ?? 0)) from = at + 1;
  }
  const texts = heads.map(({ text }) => text);
  // `foreach (…):`, `form_for do |f|`
  const rest = code.slice(from).trim();
  return /:$|\bdo\b[^;]*$/.test(rest) ? [...texts, rest] : texts;
}

function howOfDirective(code: string): Wrapped['how'] | undefined {
  if (/^(?:push|prepend|component\w*|slot|helper|functions)\b/.test(code)) return 'elsewhere';
  return /^using\b/.test(code) ? 'within' : undefined;
}

const PLAIN_SECTION =
  /^(?:if|unless|each|with|for|foreach|range|let|in|get|has|is|match|compare|lookup|block|eq|ne|and|or|not|gt|lt|gte|lte|iter)(?![a-z-])|^(?:if|unless|each|for|when)[A-Z_]\w*/;

/** `{{#if x}}`, `{{#items}}`; what has a name of its own and is given something may print around what it is given. */
function howOfSection(code: string): Wrapped['how'] | undefined {
  const own = code.replace(/^[#^]/, '').trim();
  if (/^[>*]|^(?:define|content\w*|extend|embed|layout\w*)\b/.test(own)) return 'elsewhere';
  return PLAIN_SECTION.test(own) || !/\s/.test(own) ? undefined : 'within';
}

const PLAIN_WORD =
  /^(?:if\w*|elif|for|foreach|block|with|autoescape|spaceless|strip|nocache|literal|cache|unless|case|paginate|trans|translate|blocktrans\w*|compress|filter|apply|verbatim|raw|language|localize|localtime|timezone|comment|while|switch|section|sandbox|guard|permission|style|stylesheet|schema|javascript|script)\b/;

function howOfWord(code: string): Wrapped['how'] | undefined {
  if (
    /^(?:macro|call|set|capture|function|embed|define|fill|slot|component|partial|contentfor|content_for)\b/i.test(
      code,
    )
  )
    return 'elsewhere';
  return PLAIN_WORD.test(code) ? undefined : 'within';
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
const VOID = /^(?:area|base|br|col|embed|hr|img|input|link|meta|param|source|track|wbr)$/i;

/** What stands between a tag that code prints and the one by which it closes it. */
function inTags(text: string, pieces: readonly EnginePiece[]): Wrapped[] {
  const found: Wrapped[] = [];
  const open: { readonly name: string; readonly from: number }[] = [];
  for (const { start, end, code } of pieces) {
    if (!code.includes('<')) continue;
    for (const [, slash, written, isAlone] of code.matchAll(TAGS)) {
      const name = written!.toLowerCase();
      if (isAlone !== '' || VOID.test(name)) continue;
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
