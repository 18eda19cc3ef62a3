// What an expression can come to, where every outcome of it is written out: `paid ? 'paid' : 'due'` is one of two words.

/** In: the code of a piece that prints. Out: all that it may print; `undefined` where something is not written out. */
export function outcomesOf(code: string): readonly string[] | undefined {
  return ofExpression(code.replace(/^(echo|print)\b/, '').replace(/;\s*$/, ''));
}

const STRING = /^(?:"([^"\\$#]*)"|'([^'\\]*)')$/;

function ofExpression(text: string): readonly string[] | undefined {
  const code = withoutParentheses(text.trim());
  const literal = STRING.exec(code);
  if (literal !== null) return [literal[1] ?? literal[2] ?? ''];
  if (code === '') return undefined;
  const parts = topLevel(code);
  const question = parts.findIndex(({ mark }) => mark === '?');
  if (question >= 0) return ofTernary(code, parts, question);
  const after = parts.find(({ mark }) => mark === 'if' || mark === 'unless');
  if (after === undefined) return undefined;
  const otherwise = parts.find(({ mark, at }) => mark === 'else' && at > after.at);
  const first = ofExpression(code.slice(0, after.at));
  const second = otherwise === undefined ? [''] : ofExpression(code.slice(otherwise.at + 4));
  return first && second && [...first, ...second];
}

function ofTernary(code: string, parts: readonly Part[], question: number): readonly string[] | undefined {
  let depth = 0;
  for (const { mark, at } of parts.slice(question)) {
    if (mark === '?') depth++;
    if (mark !== ':') continue;
    depth--;
    if (depth > 0) continue;
    const first = ofExpression(code.slice(parts[question]!.at + 1, at));
    const second = ofExpression(code.slice(at + 1));
    return first && second && [...first, ...second];
  }
  // Some engines take no second part for nothing.
  const only = ofExpression(code.slice(parts[question]!.at + 1));
  return only && [...only, ''];
}

interface Part {
  readonly mark: string;
  readonly at: number;
}

/** The marks of a choice that stand in no string and no parentheses. */
function topLevel(code: string): Part[] {
  const found: Part[] = [];
  let depth = 0;
  const tokens =
    /"(?:[^"\\]|\\[\s\S])*"|'(?:[^'\\]|\\[\s\S])*'|\?\.|\?\?|\?:|::|[([{]|[)\]}]|[?:]|\b(?:if|unless|else)\b/g;
  for (const { 0: token, index } of code.matchAll(tokens)) {
    if (/^[([{]/.test(token)) depth++;
    else if (/^[)\]}]/.test(token)) depth--;
    else if (depth === 0 && /^([?:]|if|unless|else)$/.test(token)) found.push({ mark: token, at: index });
  }
  return found;
}

function withoutParentheses(code: string): string {
  if (!code.startsWith('(') || !code.endsWith(')')) return code;
  let depth = 0;
  for (let at = 0; at < code.length; at++) {
    if (code[at] === '(') depth++;
    if (code[at] === ')' && --depth === 0 && at < code.length - 1) return code;
  }
  return withoutParentheses(code.slice(1, -1).trim());
}
