// Engine text that begins like other text, and is taken for it only where the ending of the file says which engine reads it:
// `{name}` and `{if}`, `@if` and `@name`, and lines of code that end what such a line began.

import type { Role } from './roles.js';

export type Dialect = 'braces' | 'directives' | 'code lines';

/** In: the path of a file. */
export function dialectOf(path: string): Dialect | undefined {
  if (/\.tpl$/i.test(path)) return 'braces';
  if (/\.blade\.php$/i.test(path)) return 'directives';
  return /\.(cs|vb)html$/i.test(path) ? 'code lines' : undefined;
}

export interface DialectPiece {
  readonly start: number;
  readonly end: number;
  readonly role: Role;
  readonly prints: boolean;
  readonly code: string;
}

const CALL = String.raw`\((?:[^()]|\((?:[^()]|\([^()]*\))*\))*\)`;
/** No space behind the brace, as engines that use it ask for: a rule in a style block has a colon or one. */
const BRACES = /\{([$/@.#]?[\w][^\s{}:;]*(?:\s[^{}\n;]*)?|else)\}/g;
const DIRECTIVES = new RegExp(String.raw`(?<![\w@.])@([a-zA-Z]+)\b(\s*${CALL})?`, 'g');
const CODE = new RegExp(
  String.raw`@\*[\s\S]*?\*@|@${CALL}|(?<![\w@.])@(?:if|else|for|foreach|while|switch|using|lock|section)\b[^{\n]*\{|@\{[\s\S]*?\n\s*\}|(?<![\w@.])@[A-Za-z_][\w.]*(?:${CALL})?(?:\.\w+(?:${CALL})?)*|^[ \t]*\}(?:\s*else\b[^{\n]*\{)?[ \t]*$`,
  'gm',
);
const RAW = /<(script|style)\b[\s\S]*?<\/\1/gi;

/** In: a text, and the dialect of its file. Out: the pieces of it that only the dialect has, in order. */
export function dialectPieces(text: string, dialect: Dialect): DialectPiece[] {
  const pattern = dialect === 'braces' ? BRACES : dialect === 'directives' ? DIRECTIVES : CODE;
  const raw = [...text.matchAll(RAW)].map(({ 0: whole, index }) => [index, index + whole.length] as const);
  const isRaw = (at: number): boolean => raw.some(([start, end]) => start < at && at < end);
  return [...text.matchAll(pattern)].flatMap((match) => {
    const { 0: whole, 1: word = '', index: start } = match;
    // A brace on a line of its own is a script's own there.
    if (isRaw(start) && (dialect === 'directives' || /^[ \t]*\}/.test(whole))) return [];
    const role =
      dialect === 'braces'
        ? bracesRole(word, (name) => text.includes(`{/${name}}`))
        : dialect === 'directives'
          ? directiveRole(word, whole)
          : lineRole(whole);
    const isQuiet = /^@\*/.test(whole) || (dialect === 'directives' && QUIET.test(word));
    return [
      { start, end: start + whole.length, role, prints: role === 'none' && !isQuiet, code: codeOf(whole) },
    ];
  });
}

function codeOf(whole: string): string {
  return whole.replace(/^\{|\}$|^@\(?/g, '').replace(/\)$/, (end) => (whole.startsWith('@(') ? '' : end));
}

function bracesRole(code: string, isEnded: (name: string) => boolean): Role {
  if (/^\/\w/.test(code)) return 'close';
  if (/^else|^foreachelse\b|^sectionelse\b/.test(code)) return 'else';
  const name = /^[a-zA-Z_]\w*(?=\s|$)/.exec(code)?.[0];
  return name !== undefined && isEnded(name) ? 'open' : 'none';
}

const OPENS =
  /^(if|unless|isset|empty|auth|guest|for|foreach|forelse|while|switch|can|cannot|error|once|env|production|push|prepend|component|componentFirst|slot|fragment|verbatim|hasSection|sectionMissing)$/;
const QUIET = /^(extends|php|endphp|csrf|method|props|vite|use|break|continue|parent|case|default)$/;

function directiveRole(word: string, whole: string): Role {
  if (/^(end|stop$|show$)/.test(word)) return 'close';
  if (/^(else|elseif|elsecan|empty)$/.test(word))
    return word === 'empty' && whole.includes('(') ? 'open' : 'else';
  // `@section('title', 'Fares')` ends itself.
  if (word === 'section') return whole.includes(',') ? 'none' : 'open';
  return OPENS.test(word) ? 'open' : 'none';
}

function lineRole(whole: string): Role {
  if (/^\s*\}\s*else/.test(whole)) return 'else';
  if (/^\s*\}/.test(whole)) return 'close';
  return /\{$/.test(whole) ? 'open' : 'none';
}
