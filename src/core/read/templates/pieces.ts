// Finds what a template engine reads in a file, before anybody reads the markup around it.

import { dialectOf, dialectPieces } from './dialects.js';
import { dollarPieces, mayHoldDollars } from './dollars.js';
import { mayHoldPrefixed, prefixedPieces } from './prefixed.js';
import { type CodeFamily, codeRole, handlebarsRole, type Role, statementRole } from './roles.js';

/** One piece of engine text, markers and all. */
export interface EnginePiece {
  readonly start: number;
  readonly end: number;
  /** What it does to the text behind it: begins a branch, goes on with the other one, ends it. */
  readonly role: Role;
  /** Where it opens something: whether what follows may come or not. */
  readonly isBranch: boolean;
  /** Whether something may come out of it. */
  readonly prints: boolean;
  /** What stands between its markers. */
  readonly code: string;
}

/** What begins a piece, longest first where one begins like another. */
const OPENERS = /\{\{\{|\{\{|\{%|\{#|\{!!|<%|<\?(?!xml[\s?])|\$\{/g;

/** Whether engine text may stand in a text: where none does, nothing of this stage is needed. In: the path of its file. */
export function mayHoldEngineText(text: string, path = ''): boolean {
  OPENERS.lastIndex = 0;
  return (
    OPENERS.test(text) ||
    (dialectOf(path) !== undefined && /[{@]/.test(text)) ||
    mayHoldPrefixed(text) ||
    mayHoldDollars(text)
  );
}

/** Whether a text has engine text in it. */
export function holdsEngineText(text: string, path = ''): boolean {
  return mayHoldEngineText(text, path) && enginePieces(text, path).length > 0;
}

/** In: the text of a file, and its path, which may tell the engine. Out: its pieces of engine text, in order. */
export function enginePieces(text: string, path = ''): EnginePiece[] {
  const found: Found[] = [];
  const hasStatements = text.includes('{%');
  const openers = new RegExp(OPENERS);
  for (let match = openers.exec(text); match !== null; match = openers.exec(text)) {
    const piece = pieceAt(text, match.index, match[0], hasStatements);
    if (piece === undefined) continue;
    found.push(piece);
    openers.lastIndex = piece.end;
  }
  const dialect = dialectOf(path);
  const own = dialect === undefined ? found : together(found, dialectPieces(text, dialect));
  const tagged = mayHoldPrefixed(text) ? together(prefixedPieces(text), own) : own;
  const all = mayHoldDollars(text) ? together(tagged, dollarPieces(text)) : tagged;
  return all.map((piece) => ({ ...piece, isBranch: piece.role === 'open' && !ALWAYS.test(piece.code) }));
}

/** Those that stand in none of the others, among them. */
function together(found: readonly Found[], more: readonly Found[]): Found[] {
  const all: Found[] = [];
  let next = 0;
  let end = 0;
  for (const piece of [...found, { start: Number.POSITIVE_INFINITY, end: 0 }]) {
    for (; next < more.length && more[next]!.start < piece.start; next++)
      if (more[next]!.start >= end && more[next]!.end <= piece.start) all.push(more[next]!);
    if ('code' in piece) all.push(piece);
    end = piece.end;
  }
  return all;
}

/** What opens something that comes in any case. */
const ALWAYS =
  /^#?[>*]?\s*(block|content_for|capture|compress|spaceless|autoescape|with|form_for|form_tag|form_with|section|filter|trans|blocktrans\w*|cache|define|fill|slot|embed|javascript|macro|call|set|component|push|prepend|inline|strip|literal|nocache)\b/;

type Found = Omit<EnginePiece, 'isBranch'>;

function pieceAt(text: string, start: number, opener: string, hasStatements: boolean): Found | undefined {
  switch (opener) {
    case '{{{':
      return between(text, start, '{{{', '}}}', handlebarsRole);
    case '{{':
      return handlebars(text, start);
    case '{%':
      return statement(text, start);
    case '{#': {
      // Where no statement stands, it is a fragment in a sheet or a script.
      const isPlain = hasStatements || /^\{#\s[^\n]*\s#\}/.test(text.slice(start, start + 500));
      const end = isPlain ? text.indexOf('#}', start) : -1;
      return end < 0 ? undefined : { start, end: end + 2, role: 'none', prints: false, code: '' };
    }
    case '{!!':
      return between(text, start, '{!!', '!!}', () => 'none');
    case '<%':
      return percent(text, start);
    case '<?':
      return php(text, start);
    default: {
      const end = text.indexOf('}', start);
      const line = text.indexOf('\n', start);
      if (end < 0 || (line >= 0 && line < end)) return undefined;
      return { start, end: end + 1, role: 'none', prints: true, code: text.slice(start + 2, end) };
    }
  }
}

function between(
  text: string,
  start: number,
  opener: string,
  closer: string,
  roleOf: (code: string) => Role,
): Found | undefined {
  const end = text.indexOf(closer, start + opener.length);
  if (end < 0) return undefined;
  const code = text.slice(start + opener.length, end).trim();
  const role = roleOf(code);
  return { start, end: end + closer.length, role, prints: role === 'none', code };
}

/** `{{ }}`: what is printed, and in some engines branches and comments. */
function handlebars(text: string, start: number): Found | undefined {
  const comment = /^\{\{~?!--/.test(text.slice(start, start + 6)) || text.startsWith('{{--', start);
  const found = between(text, start, '{{', comment ? '--}}' : '}}', () => 'none');
  if (found === undefined || comment) return found && { ...found, role: 'none', prints: false };
  const code = found.code.replace(/^[~-]\s*|\s*[~-]$/g, '');
  if (code.startsWith('!') || code.startsWith('/*')) return { ...found, code, prints: false };
  const role = handlebarsRole(code);
  return { ...found, code, role, prints: role === 'none' };
}

/** What stands in these is text, or nothing. */
const WHOLE = /^(comment|raw|verbatim)\b/;

function statement(text: string, start: number): Found | undefined {
  const found = between(text, start, '{%', '%}', () => 'none');
  if (found === undefined) return undefined;
  const code = found.code.replace(/^[-+~]\s*|\s*[-+~]$/g, '');
  const whole = WHOLE.exec(code)?.[1];
  if (whole !== undefined) {
    const closer = new RegExp(`\\{%[-+~]?\\s*end${whole}\\s*[-+~]?%\\}`, 'g');
    closer.lastIndex = found.end;
    const end = closer.exec(text);
    if (end !== null && whole === 'comment')
      return { start, end: closer.lastIndex, role: 'none', prints: false, code: '' };
  }
  const role = statementRole(code, (word) =>
    new RegExp(`\\{%[-+~]?\\s*end_?${word}\\b`).test(text.slice(found.end)),
  );
  return {
    ...found,
    code,
    role,
    prints: role === 'none' && !/^(set|load|assign|import|from|extends|use|with|csrf_token)\b/.test(code),
  };
}

/** `<% %>`: Ruby, JavaScript, Java and others. */
function percent(text: string, start: number): Found | undefined {
  if (text.startsWith('<%%', start)) return { start, end: start + 3, role: 'none', prints: true, code: '' };
  const comment = text.startsWith('<%--', start);
  const closer = comment ? '--%>' : '%>';
  const at = text.indexOf(closer, start + 2);
  const end = at < 0 ? text.length : at + closer.length;
  const inner = text.slice(start + 2, at < 0 ? text.length : at);
  const [, sign = ''] = /^([-=#@!_:]*)/.exec(inner) ?? [];
  const code = inner.slice(sign.length).replace(/[-_]$/, '').trim();
  if (comment || sign.startsWith('#')) return { start, end, role: 'none', prints: false, code: '' };
  const role = codeRole(code, 'any');
  const prints = sign.includes('=') || sign === ':' || (sign === '-' && role === 'none');
  return { start, end, role, prints, code };
}

function php(text: string, start: number): Found {
  const opened = /^<\?(php\b|=)?/i.exec(text.slice(start, start + 6))![0];
  const end = phpEnd(text, start + opened.length);
  const inner = text.slice(start + opened.length, end);
  const code = inner.replace(/\?>\s*$/, '').trim();
  const family: CodeFamily = 'php';
  const role = opened === '<?=' ? 'none' : codeRole(code, family);
  // A function that is called may print.
  return {
    start,
    end,
    role,
    prints: opened === '<?=' || /\b(echo|print|include|require)(_once)?\b|\w\s*\(/.test(code),
    code,
  };
}

/** Behind `?>`: one in a string ends nothing, one in a comment of a line does. */
function phpEnd(text: string, from: number): number {
  const tokens =
    /\?>|"(?:[^"\\]|\\[\s\S])*"|'(?:[^'\\]|\\[\s\S])*'|\/\*[\s\S]*?\*\/|(?:\/\/|#)(?:(?!\?>)[^\n])*/g;
  tokens.lastIndex = from;
  for (let token = tokens.exec(text); token !== null; token = tokens.exec(text))
    if (token[0] === '?>') return tokens.lastIndex;
  return text.length;
}
