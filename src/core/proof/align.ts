// Pairs the elements of two states of a page, and checks that nothing moved in the markup but classes, styles and
// sheet references.

import { isExactHint, neutralFor } from '../read/hints/index.js';
import { attributeOf, type Page, type PageElement } from '../read/markup/index.js';

export type Alignment =
  | {
      readonly kind: 'aligned';
      /** Index before, index after. */
      readonly pairs: readonly (readonly [number, number])[];
      /** Links and style elements that only the later, or only the earlier state has. */
      readonly added: readonly number[];
      readonly removed: readonly number[];
      /** Index after of elements that an outdated one became: `<span>` for `<font>`. */
      readonly renamed: readonly number[];
    }
  | {
      readonly kind: 'moved';
      readonly what: string;
      readonly before: number | undefined;
      readonly after: number | undefined;
    };

export interface AlignOptions {
  /** The scripts in the pages are meant to change: what they do is compared, not their text. */
  readonly scriptsChange?: boolean;
  /** What an attribute of the earlier state declares in the later one, where names in values change. */
  readonly renamed?: (value: string) => string;
}

/** In: two states of one page. Out: the pairs in document order, or the first thing that moved. */
export function alignPages(before: Page, after: Page, options: AlignOptions = {}): Alignment {
  if (before.kind !== after.kind) return moved(`it was a ${before.kind} and is a ${after.kind}`);
  if (before.quirks !== after.quirks) return moved('quirks mode changed');
  if (before.base !== after.base) return moved('its <base> changed');
  if (before === after) {
    const same = before.elements.map(({ index }): [number, number] => [index, index]);
    return { kind: 'aligned', pairs: same, added: [], removed: [], renamed: [] };
  }
  const pairs: [number, number][] = [];
  const added: number[] = [];
  const removed: number[] = [];
  const renamed: number[] = [];
  const toAfter = new Map<number, number>([[-1, -1]]);
  let i = 0;
  let j = 0;
  while (i < before.elements.length || j < after.elements.length) {
    const a = before.elements[i];
    const b = after.elements[j];
    if (a !== undefined && b !== undefined && isSame(before, a, after, b, toAfter, options)) {
      pairs.push([i, j]);
      if (a.name !== b.name) renamed.push(j);
      toAfter.set(i, j);
      i++;
      j++;
    } else if (b !== undefined && bringsSheet(b)) added.push(j++);
    else if (a !== undefined && bringsSheet(a)) removed.push(i++);
    else return { kind: 'moved', what: describe(before, a, after, b), before: a?.index, after: b?.index };
  }
  return textsMoved(before, after, toAfter, options) ?? { kind: 'aligned', pairs, added, removed, renamed };
}

function moved(what: string): Alignment {
  return { kind: 'moved', what, before: undefined, after: undefined };
}

function isSame(
  before: Page,
  a: PageElement,
  after: Page,
  b: PageElement,
  toAfter: ReadonlyMap<number, number>,
  { renamed }: AlignOptions,
): boolean {
  if (a.namespace !== b.namespace || toAfter.get(a.parent) !== b.parent) return false;
  if (a.name !== b.name && !isNeutral(before, a, b)) return false;
  // Equal lists are one list, nearly always.
  if (a.attributes === b.attributes && a.name === b.name) return true;
  return otherAttributes(before, a, renamed) === otherAttributes(after, b);
}

/** In quirks mode browsers colour the lines under links by the `<font>` inside: there it is more than CSS. */
function isNeutral(page: Page, a: PageElement, b: PageElement): boolean {
  return !page.quirks && neutralFor(a.name) === b.name;
}

function otherAttributes(
  page: Page,
  element: PageElement,
  renamed: (value: string) => string = (value) => value,
): string {
  let text = '';
  for (const { name, value } of element.attributes) {
    if (!isCompared(page, element, name)) text += `${name}=${renamed(value)}\0`;
  }
  return text;
}

/** Attributes whose whole effect is in the outcomes: classes, styles, and old attributes that CSS can say exactly. */
function isCompared(page: Page, element: PageElement, name: string): boolean {
  return name === 'class' || name === 'style' || isExactHint(page, element, name);
}

function bringsSheet(element: PageElement): boolean {
  if (element.name === 'style') return true;
  return (
    element.name === 'link' && /(^|\s)stylesheet(\s|$)/i.test(attributeOf(element.attributes, 'rel') ?? '')
  );
}

function describe(before: Page, a: PageElement | undefined, after: Page, b: PageElement | undefined): string {
  if (a === undefined) return `<${b?.name}> is new`;
  if (b === undefined) return `<${a.name}> is gone`;
  if (a.name !== b.name) return `<${a.name}> became <${b.name}>`;
  const others = [
    ...a.attributes.filter(({ name }) => !isCompared(before, a, name)),
    ...b.attributes.filter(({ name }) => !isCompared(after, b, name)),
  ];
  const attribute = others.find(
    ({ name }) => attributeOf(a.attributes, name) !== attributeOf(b.attributes, name),
  );
  return attribute === undefined
    ? `<${a.name}> stands elsewhere`
    : `${attribute.name} of <${a.name}> changed`;
}

/** Texts and comments must be the same in the same places; white space in the head moves with the links. */
function textsMoved(
  before: Page,
  after: Page,
  toAfter: ReadonlyMap<number, number>,
  { scriptsChange = false }: AlignOptions,
): Alignment | undefined {
  const kept = new Set(toAfter.values());
  const isLeft = (page: Page, index: number): boolean =>
    scriptsChange && page.elements[index]?.name === 'script';
  const first = placedTexts(before, (index) => (isLeft(before, index) ? undefined : toAfter.get(index)));
  const second = placedTexts(after, (index) =>
    kept.has(index) && !isLeft(after, index) ? index : undefined,
  );
  const count = Math.max(first.length, second.length);
  for (let at = 0; at < count; at++) {
    const [one, two] = [first[at], second[at]];
    if (one?.owner === two?.owner && one?.behind === two?.behind && one?.text === two?.text) continue;
    return { kind: 'moved', what: 'text changed', before: one?.parent, after: two?.parent };
  }
  return undefined;
}

interface PlacedText {
  text: string;
  readonly parent: number;
  /** The element that it stands in, and the one in front of it, as the later state counts them; -1 for none. */
  readonly owner: number;
  readonly behind: number;
}

function placedTexts(page: Page, place: (index: number) => number | undefined): PlacedText[] {
  const texts: PlacedText[] = [];
  const isHead = isPartOfHead(page);
  for (const { parent, previous, value } of page.texts) {
    const inHead = parent < 0 ? isHead : page.elements[parent]?.name === 'head';
    if (inHead && value.trim() === '') continue;
    const owner = place(parent);
    if (owner === undefined) continue;
    // Text behind an element that only one state has belongs behind the element before that one.
    let front = previous;
    while (front >= 0 && place(front) === undefined) front = page.elements[front]!.previous;
    const behind = front < 0 ? -1 : place(front)!;
    const last = texts.at(-1);
    const goesOn = last?.owner === owner && last.behind === behind && !isComment(value);
    if (goesOn && !isComment(last.text)) last.text += value;
    else texts.push({ text: value, parent, owner, behind });
  }
  return texts;
}

/** Whether a part is the head of pages, or stands in it: nothing else may hold what it does. */
function isPartOfHead({ kind, elements, text, around }: Page): boolean {
  if (kind !== 'component' || around?.isInHead === true) return kind === 'component';
  const tops = elements.filter(({ parent }) => parent < 0).map(({ name }) => name);
  const isMarked = /<head[\s>]/i.test(text) || tops.some((name) => ['title', 'meta', 'base'].includes(name));
  return (
    isMarked &&
    tops.every((name) =>
      ['title', 'meta', 'base', 'link', 'style', 'script', 'noscript', 'template'].includes(name),
    )
  );
}

function isComment(text: string): boolean {
  return text.startsWith('<!--');
}
