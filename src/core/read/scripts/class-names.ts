// Class names in the strings of a script: where the syntax tree is sure that a string is one, and where it only might be.

import { type AnyNode, type CallExpression, parseExpressionAt } from 'acorn';
import { ancestor } from 'acorn-walk';
import { parseScript } from './parse.js';

export interface ClassMention {
  readonly name: string;
  /** Offsets in the script's text, of the name without a dot. */
  readonly start: number;
  readonly end: number;
  /** `class` and `selector`: certainly a class. `string`: a word that is spelled like one. */
  readonly how: 'class' | 'selector' | 'string';
  /** Written `.name` where a bare name belongs. */
  readonly dotted: boolean;
  /** Equal for the two ends of one `a ? b : c`. */
  readonly choice: number | undefined;
}

const CLASS_CALL = new Set(['addClass', 'removeClass', 'toggleClass', 'hasClass', 'getElementsByClassName']);
const LIST_CALL = new Set(['add', 'remove', 'toggle', 'contains', 'replace']);
const SELECTOR_CALL = new Set([
  'querySelector',
  'querySelectorAll',
  'closest',
  'matches',
  'find',
  'filter',
  'children',
  'siblings',
  'not',
  'is',
  'has',
]);
const SELECTOR_FUNCTION = new Set(['$', 'jQuery']);
const WORD = /[a-zA-Z_\u0080-\uffff-][\w\u0080-\uffff-]*/g;

/** Every word in a string of a script. A script that does not parse has only words that might be names. */
export function classMentions(text: string): ClassMention[] {
  const program = parseScript(text);
  if (program === undefined) return wordsOf(text, 0, 'string', undefined);
  return mentionsIn(program, text);
}

/** The same for an expression, as it stands in an attribute: its strings and the keys of its objects are names. */
export function expressionMentions(text: string): ClassMention[] {
  try {
    const tree = parseExpressionAt(text, 0, { ecmaVersion: 'latest' });
    if (tree.end < text.trimEnd().length) return quotedWords(text);
    const found: ClassMention[] = mentionsIn(tree, text).map((one) => ({ ...one, how: 'class' }));
    ancestor(tree, {
      Property(node) {
        const { key } = node;
        if (node.computed || node.shorthand) return;
        if (key.type === 'Identifier') found.push(...wordsOf(key.name, key.start, 'class', undefined));
        else if (key.type === 'Literal' && typeof key.value === 'string')
          found.push(
            ...mentionsOf(text.slice(key.start + 1, key.end - 1), key.start + 1, 'class', undefined),
          );
      },
    });
    return found;
  } catch {
    return quotedWords(text);
  }
}

/** No expression of a script: the quoted words of whatever it is. */
function quotedWords(text: string): ClassMention[] {
  return [...text.matchAll(/(["'])([^"']*)\1/g)].flatMap((match) =>
    wordsOf(match[2]!, match.index + 1, 'class', undefined),
  );
}

function mentionsIn(tree: AnyNode, text: string): ClassMention[] {
  const found: ClassMention[] = [];
  ancestor(tree, {
    Literal(node, _state, ancestors) {
      if (typeof node.value !== 'string') return;
      const how = roleOf(ancestors as AnyNode[]);
      found.push(
        ...mentionsOf(
          text.slice(node.start + 1, node.end - 1),
          node.start + 1,
          how,
          choiceOf(ancestors as AnyNode[]),
        ),
      );
    },
    TemplateElement(node) {
      found.push(...wordsOf(text.slice(node.start, node.end), node.start, 'string', undefined));
    },
  });
  return found;
}

function mentionsOf(
  text: string,
  offset: number,
  how: ClassMention['how'],
  choice: number | undefined,
): ClassMention[] {
  // Escapes would shift the offsets.
  if (text.includes('\\')) return wordsOf(text, offset, 'string', choice);
  if (how !== 'selector') return wordsOf(text, offset, how, choice);
  return [...text.matchAll(/\.(-?[a-zA-Z_\u0080-\uffff][\w\u0080-\uffff-]*)/g)].map((match) => ({
    name: match[1]!,
    start: offset + match.index + 1,
    end: offset + match.index + match[0].length,
    how,
    dotted: false,
    choice,
  }));
}

function wordsOf(
  text: string,
  offset: number,
  how: ClassMention['how'],
  choice: number | undefined,
): ClassMention[] {
  return [...text.matchAll(WORD)].map((match) => ({
    name: match[0],
    start: offset + match.index,
    end: offset + match.index + match[0].length,
    how,
    dotted: how === 'class' && text[match.index - 1] === '.' && /(^|\s)\.$/.test(text.slice(0, match.index)),
    choice,
  }));
}

/** What a string is for, by what stands around it: through choices and joins of strings. */
function roleOf(ancestors: readonly AnyNode[]): ClassMention['how'] {
  let at = ancestors.length - 1;
  let own = ancestors[at]!;
  for (at--; at >= 0; at--) {
    const around = ancestors[at]!;
    const passes =
      (around.type === 'ConditionalExpression' && around.test !== own) ||
      around.type === 'LogicalExpression' ||
      around.type === 'ParenthesizedExpression' ||
      (around.type === 'BinaryExpression' && around.operator === '+');
    if (!passes) return roleIn(around, own);
    own = around;
  }
  return 'string';
}

function roleIn(around: AnyNode, own: AnyNode): ClassMention['how'] {
  if (
    around.type === 'AssignmentExpression' &&
    around.right === own &&
    around.left.type === 'MemberExpression'
  )
    return nameOf(around.left.property) === 'className' ? 'class' : 'string';
  if (around.type !== 'CallExpression') return 'string';
  const { callee } = around;
  if (callee.type === 'Identifier')
    return SELECTOR_FUNCTION.has(callee.name) && around.arguments[0] === own ? 'selector' : 'string';
  if (callee.type !== 'MemberExpression') return 'string';
  const name = nameOf(callee.property) ?? '';
  if (CLASS_CALL.has(name)) return 'class';
  if (
    LIST_CALL.has(name) &&
    callee.object.type === 'MemberExpression' &&
    nameOf(callee.object.property) === 'classList'
  )
    return 'class';
  if (SELECTOR_CALL.has(name) && around.arguments[0] === own) return 'selector';
  return isClassAttribute(around, name) && around.arguments[1] === own ? 'class' : 'string';
}

function isClassAttribute({ arguments: [first] }: CallExpression, name: string): boolean {
  return (name === 'setAttribute' || name === 'attr') && first?.type === 'Literal' && first.value === 'class';
}

function nameOf(node: AnyNode): string | undefined {
  if (node.type === 'Identifier') return node.name;
  return node.type === 'Literal' && typeof node.value === 'string' ? node.value : undefined;
}

function choiceOf(ancestors: readonly AnyNode[]): number | undefined {
  const [around, own] = [ancestors.at(-2), ancestors.at(-1)];
  return around?.type === 'ConditionalExpression' && around.test !== own ? around.start : undefined;
}
