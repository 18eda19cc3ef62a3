// Class names that an expression chooses: in template text, in attributes that hold an expression, and in scripts.

import { endsWithOneOf, not, SPACE, startsWithOneOf } from '../base/characters.js';
import { withoutStart } from '../base/phrases.js';
import { hasTemplateText, type Page } from '../read/markup/index.js';
import { type ClassMention, classMentions, expressionMentions } from '../read/scripts/index.js';
import { type EnginePiece, enginePieces, printedBy } from '../read/templates/index.js';

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
      else if (hasTemplateText(value)) found.push(...chosenInTemplate(value, start + at, page.path));
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

interface OfferedName {
  readonly name: string;
  readonly offset: number;
  /** Number of the branch of its choice. */
  readonly branch: number;
}

interface OpenChoice {
  readonly names: OfferedName[];
  branch: number;
}

/** `{% if x %}a{% else %}b{% endif %}`, and `x ? 'a' : 'b'` inside the markers. In: a value, its offset, the path of its page. */
function chosenInTemplate(value: string, offset: number, path: string): ChosenName[] {
  const found: ChosenName[] = [];
  const open: OpenChoice[] = [];
  const pieces = enginePieces(value, path);
  let at = 0;
  for (const [number, piece] of pieces.entries()) {
    const before = pieces[number - 1];
    open
      .at(-1)
      ?.names.push(
        ...namesIn(value, at, piece.start, { before, behind: piece }, open.at(-1)!.branch, offset),
      );
    at = piece.end;
    // What touches a word is a piece of that word.
    const isPart =
      endsWithOneOf(value.slice(0, piece.start), not(SPACE)) ||
      startsWithOneOf(value.slice(piece.end), not(SPACE));
    if (piece.role === 'none' && !isPart) found.push(...chosenByExpression(value, piece, offset));
    else if (piece.role === 'open') open.push({ names: [], branch: 0 });
    else if (piece.role === 'else' && open.length > 0) open.at(-1)!.branch++;
    else if (piece.role === 'close') {
      const { names = [] } = open.pop() ?? {};
      for (const one of names) {
        const partners = names.filter(({ branch }) => branch !== one.branch).map(({ name }) => name);
        found.push(chosen(one.name, partners, one.offset));
      }
    }
  }
  return found;
}

/** The names between two pieces. What touches one that prints is part of a name only. */
function namesIn(
  value: string,
  start: number,
  end: number,
  { before, behind }: { readonly before: EnginePiece | undefined; readonly behind: EnginePiece },
  branch: number,
  offset: number,
): OfferedName[] {
  return wordsIn(value.slice(start, end)).flatMap(({ text: name, at }) => {
    const isPart =
      (printsPart(before) && at === 0) || (printsPart(behind) && start + at + name.length === end);
    return isPart || !NAME.test(name) ? [] : [{ name, offset: offset + start + at, branch }];
  });
}

function printsPart(piece: EnginePiece | undefined): boolean {
  return piece?.prints === true && piece.role === 'none';
}

/** The names in the outcomes of an expression, each with those of the others. */
function chosenByExpression(value: string, { start, end, code }: EnginePiece, offset: number): ChosenName[] {
  const outcomes = printedBy(code) ?? [];
  if (outcomes.length < 2) return [];
  const from = value.slice(start, end).indexOf(code);
  const named = outcomes.map(({ text, at }) =>
    wordsIn(text)
      .filter(({ text: word }) => NAME.test(word))
      .map((word) => ({ name: word.text, offset: offset + start + from + at + word.at })),
  );
  return named.flatMap((own, number) =>
    own.map((one) => {
      const others = named.filter((_, other) => other !== number).flat();
      return chosen(
        one.name,
        others.map(({ name }) => name),
        one.offset,
      );
    }),
  );
}

function wordsIn(text: string): { readonly text: string; readonly at: number }[] {
  return [...text.matchAll(/\S+/g)].map(({ 0: word, index }) => ({ text: word, at: index }));
}

function chosen(written: string, partners: readonly string[], offset: number): ChosenName {
  const bare = (name: string): string => withoutStart(name, '.');
  return { name: bare(written), dotted: written.startsWith('.'), partners: partners.map(bare), offset };
}
