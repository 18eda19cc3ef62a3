// What a piece of engine text does to the text behind it, told by the words it begins with and the braces it leaves open.

/** `open`, `else` and `close` are those of a branch or a loop: what stands between may come, or not. */
export type Role = 'open' | 'else' | 'close' | 'none';

export type CodeFamily = 'php' | 'any';

/** `{{#if}}`, `{{^x}}`, `{{else}}`, `{{/if}}`; `{{ if }}`, `{{ range }}`, `{{ end }}`. */
export function handlebarsRole(code: string): Role {
  if (/^[#^]\s*[>*]?\s*[\w.@'"([]/.test(code)) return 'open';
  if (/^(else\b|\^$)/.test(code)) return 'else';
  if (/^\/(?![*/])|^end\b/.test(code)) return 'close';
  return /^(if|range|with|each|block|define|iter)\s+\S/.test(code) ? 'open' : 'none';
}

/** `{% if %}`, `{% else %}`, `{% endif %}`. In: whether an end of a word follows. */
export function statementRole(code: string, isEnded: (word: string) => boolean): Role {
  const word = /^[a-zA-Z_]\w*/.exec(code)?.[0] ?? '';
  if (/^end/.test(word)) return 'close';
  if (/^(else|elif|elsif|elseif|when|empty|plural)$/.test(word)) return 'else';
  // `{% set x = 1 %}` ends itself.
  if (word === '' || (word === 'set' && code.includes('='))) return 'none';
  return isEnded(word) ? 'open' : 'none';
}

const RUBY_OPENS = /^(if|unless|case|while|until|for|begin)\b|\bdo\s*(\|[^|]*\|)?$/;
const RUBY_ELSE = /^(else|elsif|when|in|rescue|ensure)\b/;

/** In: code as it stands in `<% %>` or `<?php ?>`. */
export function codeRole(code: string, family: CodeFamily): Role {
  const bare = withoutStrings(code);
  if (/^(end(if|for|foreach|while|switch)\s*;?)$/i.test(bare)) return 'close';
  if (/^(else|elseif\b.*|case\b.*|default)\s*:$/i.test(bare)) return 'else';
  if (/^(if|for|foreach|while|switch)\b[\s\S]*\)\s*:$/i.test(bare)) return 'open';
  const depth = braces(bare);
  if (depth.lowest < 0) return depth.open > 0 ? 'else' : 'close';
  if (depth.open > 0) return 'open';
  if (family === 'php' || /[{};]\s*$/.test(bare)) return 'none';
  if (/^end\b/.test(bare)) return 'close';
  if (RUBY_ELSE.test(bare)) return 'else';
  // `if x then y end` ends what it opened.
  return RUBY_OPENS.test(bare) && !/\bend$/.test(bare) ? 'open' : 'none';
}

/** Code without what its strings and comments say. */
export function withoutStrings(code: string): string {
  return code
    .replace(/\/\*[\s\S]*?\*\/|\/\/[^\n]*/g, ' ')
    .replace(/"(?:[^"\\]|\\[\s\S])*"|'(?:[^'\\]|\\[\s\S])*'/g, '""')
    .trim();
}

/** How deep the braces of a code go below where it begins, and how many it leaves open above that. */
function braces(code: string): { lowest: number; open: number } {
  let depth = 0;
  let lowest = 0;
  for (const char of code) {
    if (char === '{') depth++;
    else if (char === '}') depth--;
    lowest = Math.min(lowest, depth);
  }
  return { lowest, open: depth - lowest };
}
