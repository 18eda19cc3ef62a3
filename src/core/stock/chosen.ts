// Class names that an expression chooses: in template text, in attributes that hold an expression, and in scripts.

import { hasTemplateText, type Page } from '../read/markup/index.js';
import { type ClassMention, classMentions, expressionMentions } from '../read/scripts/index.js';

export interface ChosenName {
  /** Without a dot. */
  readonly name: string;
  /** Written `.name`, where a bare name belongs. */
  readonly dotted: boolean;
  /** What the same expression chooses instead. */
  readonly partners: readonly string[];
  readonly offset: number;
}

const NAME = /^\.?-?[a-zA-Z_\u0080-\uffff][\w\u0080-\uffff-]*$/;

/** In: a page. Out: names in its class attributes that template text or an expression chooses. */
export function chosenInMarkup(page: Page): ChosenName[] {
  const found: ChosenName[] = [];
  for (const { tag } of page.elements) {
    for (const [name, { start, end }] of tag?.attributes ?? []) {
      if (name !== 'class' && !/[:.[]class\]?$/.test(name)) continue;
      const source = page.text.slice(start, end);
      const at = source.indexOf('=') + 1;
      if (at === 0) continue;
      const value = source.slice(at).replace(/^(\s*)["']|["']$/g, (quote) => ' '.repeat(quote.length));
      if (name !== 'class') found.push(...chosenInExpression(value, start + at));
      else if (hasTemplateText(value)) found.push(...chosenInTemplate(value, start + at));
    }
  }
  return found;
}

/** Names that a script chooses between, where its syntax tree is sure that they are classes. */
export function chosenInScript(text: string): ChosenName[] {
  const sure = classMentions(text).filter(({ how, choice }) => how === 'class' && choice !== undefined);
  return sure.map(({ name, dotted, choice, start }) => ({
    name,
    dotted,
    partners: sure
      .filter((other) => other.choice === choice && other.name !== name)
      .map((other) => other.name),
    offset: start,
  }));
}

function chosenInExpression(value: string, offset: number): ChosenName[] {
  const mentions = expressionMentions(value.trimStart());
  const shift = offset + value.length - value.trimStart().length;
  const isKey = ({ start }: ClassMention): boolean =>
    /[{,]\s*["']?\.?$/.test(value.trimStart().slice(0, start));
  return mentions
    .filter((one) => one.choice !== undefined || isKey(one))
    .map(({ name, dotted, choice, start }) => ({
      name,
      dotted,
      partners: mentions
        .filter((other) => other.choice === choice && choice !== undefined && other.name !== name)
        .map((other) => other.name),
      offset: shift + start,
    }));
}

const PIECES = /\{\{[\s\S]*?\}\}|\{%[\s\S]*?%\}|<%[\s\S]*?%>|<\?[\s\S]*?\?>/g;
const TERNARY = /\?\s*(["'])([^"'?]*)\1\s*:\s*(["'])([^"':]*)\3/g;

/** `{% if x %}a{% else %}b{% endif %}`, and `x ? 'a' : 'b'` inside the markers. */
function chosenInTemplate(value: string, offset: number): ChosenName[] {
  const found: ChosenName[] = [];
  const open: { names: { name: string; offset: number; branch: number }[]; branch: number }[] = [];
  let at = 0;
  const takeText = (end: number): void => {
    const around = open.at(-1);
    const text = value.slice(at, end);
    // What touches a marker that prints something is part of a name only.
    const printsBefore = /(\}\}|<%=[\s\S]*%>|<\?=[\s\S]*\?>)$/.test(value.slice(0, at));
    const printsAfter = /^(\{\{|<%=|<\?=)/.test(value.slice(end));
    if (around !== undefined) {
      for (const match of text.matchAll(/\S+/g)) {
        const partial =
          (printsBefore && match.index === 0) ||
          (printsAfter && match.index + match[0].length === text.length);
        if (!partial && NAME.test(match[0]))
          around.names.push({ name: match[0], offset: offset + at + match.index, branch: around.branch });
      }
    }
  };
  for (const piece of value.matchAll(PIECES)) {
    takeText(piece.index);
    at = piece.index + piece[0].length;
    const inner = piece[0]
      .replace(/^(\{\{|\{%|<%=?|<\?(php|=)?)-?\s*/, '')
      .replace(/\s*-?(\}\}|%\}|%>|\?>)$/, '');
    // What touches a word is a piece of that word.
    const isPart = /[^\s]$/.test(value.slice(0, piece.index)) || /^[^\s]/.test(value.slice(at));
    for (const match of isPart ? [] : inner.matchAll(TERNARY)) {
      const [first = '', second = ''] = [match[2], match[4]];
      const base = offset + piece.index + piece[0].indexOf(match[0]);
      const add = (name: string, partner: string, from: number): void => {
        for (const word of name.split(/\s+/))
          if (NAME.test(word))
            found.push(
              chosen(
                word,
                partner.split(/\s+/).filter((one) => NAME.test(one)),
                base + match[0].indexOf(word, from),
              ),
            );
      };
      add(first, second, 0);
      add(second, first, match[0].indexOf(match[3]!, 1 + first.length));
    }
    if (/^(if|unless)\b|\bif\s*\(.*[:{]$/.test(inner) && !/\belse/.test(inner))
      open.push({ names: [], branch: 0 });
    else if (/^(\}\s*)?(else|elsif|elseif|elif)\b/.test(inner)) {
      const around = open.at(-1);
      if (around !== undefined) around.branch++;
    } else if (/^(end|endif|endunless)\b|^\}$/.test(inner)) {
      const { names = [] } = open.pop() ?? {};
      for (const one of names) {
        const partners = names.filter(({ branch }) => branch !== one.branch).map(({ name }) => name);
        found.push(chosen(one.name, partners, one.offset));
      }
    }
  }
  return found;
}

function chosen(written: string, partners: readonly string[], offset: number): ChosenName {
  const bare = (name: string): string => name.replace(/^\./, '');
  return { name: bare(written), dotted: written.startsWith('.'), partners: partners.map(bare), offset };
}
