// Selectors to copy: the shortest that picks out one element, and those that pick out its kind.

import { DIGIT, hasOneOf } from '../../base/characters.js';
import { ALWAYS, compileSelectorList, NEVER, type StyleReader } from '../../cascade/index.js';
import { fromModuleClass } from '../../read/components/index.js';
import type { PageElement } from '../../read/markup/index.js';

export interface ProposedSelector {
  readonly selector: string;
  /** How many elements of the page it picks out. */
  readonly elements: number;
  /** Names in it that look made by a program. */
  readonly generated: readonly string[];
}

export interface SelectorAdvice {
  /** Picks out this element of the page and no other; `undefined` where nothing short does. */
  readonly alone: ProposedSelector | undefined;
  /** Picks out the elements of the page with the same name and classes, and no others. */
  readonly kindOnPage: ProposedSelector | undefined;
  /** By element name and classes alone, for every page. */
  readonly kindOnSite: ProposedSelector;
  /** Classes of the element that look made by a program. */
  readonly generated: readonly string[];
}

/** In: an element of a page. Out: what to write to style it, or its kind. */
export function adviseSelectors(reader: StyleReader, index: number): SelectorAdvice {
  const { elements } = reader.page;
  const element = elements[index]!;
  const kind = elements.filter((other) => isSameKind(element, other)).map((other) => other.index);
  const candidates = [...writtenFor(reader, element)];
  const pick = (wanted: readonly number[]): ProposedSelector | undefined => {
    for (const selector of candidates) {
      const found = matching(reader, selector, wanted.length);
      if (found?.length === wanted.length && found.every((at, i) => at === wanted[i]))
        return propose(selector, found.length);
    }
    return undefined;
  };
  const usual = kindSelector(element);
  return {
    alone: pick([index]) ?? byPosition(reader, element),
    kindOnPage: pick(kind),
    kindOnSite: propose(usual, matching(reader, usual)?.length ?? 0),
    generated: element.classes.filter(looksGenerated),
  };
}

function propose(selector: string, elements: number): ProposedSelector {
  const names = [...selector.matchAll(/[.#]((?:\\.|[\w\u0080-\uffff-])+)/g)].map(([, name]) => name!);
  return { selector, elements, generated: names.filter(looksGenerated) };
}

function isSameKind(a: PageElement, b: PageElement): boolean {
  return (
    a.name === b.name &&
    a.namespace === b.namespace &&
    a.classes.length === b.classes.length &&
    a.classes.every((name) => b.classes.includes(name))
  );
}

/** Classes that a selector can ask for: what a build makes of those of a module, nobody knows. */
function namesOf({ classes }: PageElement): string[] {
  return classes.filter((name) => fromModuleClass(name) === undefined);
}

/** `td.kw-num`: lasting classes where there are any. */
function kindSelector(element: PageElement): string {
  const classes = namesOf(element).filter((name) => !looksGenerated(name));
  return (
    `${classes.length === 1 ? '' : element.name}${classes.map((name) => `.${escapeName(name)}`).join('')}` ||
    element.name
  );
}

/** Shortest and most lasting first: own names, then those of ancestors in front. */
function* writtenFor({ page }: StyleReader, element: PageElement): Generator<string> {
  const own = [...ownParts(element)];
  const lasting = (part: string): boolean =>
    ![...part.matchAll(/[.#]([\w-]+)/g)].some(([, name]) => looksGenerated(name!));
  yield* own.filter(lasting);
  const above: string[] = [];
  for (let at = element.parent; at >= 0; at = page.elements[at]!.parent) {
    const ancestor = page.elements[at]!;
    for (const part of ownParts(ancestor))
      if (part !== 'html' && part !== 'body' && lasting(part)) above.push(part);
  }
  const parent = page.elements[element.parent];
  for (const part of own.filter(lasting)) {
    for (const scope of above) yield `${scope} ${part}`;
    if (parent !== undefined)
      for (const near of ownParts(parent)) if (lasting(near)) yield `${near} > ${part}`;
  }
  for (const scope of above.filter((part) => hasOneOf(part, '.#')).slice(0, 8))
    for (const nth of positionsOf(element)) yield `${scope} ${nth}`;
  yield* own.filter((part) => !lasting(part));
}

function* ownParts(element: PageElement): Generator<string> {
  if (element.templated !== 'no') return void (yield element.name);
  if (element.id !== undefined && element.id !== '') yield `#${escapeName(element.id)}`;
  const classes = namesOf(element).map((name) => `.${escapeName(name)}`);
  yield* classes;
  yield element.name;
  for (const one of classes) yield `${element.name}${one}`;
  for (const [at, one] of classes.entries())
    for (const other of classes.slice(at + 1)) yield `${one}${other}`;
}

function* positionsOf(element: PageElement): Generator<string> {
  if (element.previous < 0) yield `${element.name}:first-child`;
  else if (element.next < 0) yield `${element.name}:last-child`;
  yield `${element.name}:nth-child(${element.position})`;
}

/** From the nearest ancestor that a name picks out, child by child. */
function byPosition(reader: StyleReader, element: PageElement): ProposedSelector | undefined {
  const { elements } = reader.page;
  let path = '';
  for (let at = element; ; at = elements[at.parent]!) {
    for (const part of path === '' ? [] : ownParts(at)) {
      const selector = `${part} > ${path}`;
      const found = matching(reader, selector, 1);
      if (found?.length === 1 && found[0] === element.index) return propose(selector, 1);
    }
    const step = at.parent < 0 ? at.name : `${at.name}:nth-child(${at.position})`;
    path = path === '' ? step : `${step} > ${path}`;
    if (at.parent < 0) break;
  }
  return undefined;
}

/** Elements that a selector certainly matches. In: `most`, after which it is not worth going on. Out: `undefined` for more, or none sure. */
export function matching(
  reader: StyleReader,
  selector: string,
  most = Number.POSITIVE_INFINITY,
): number[] | undefined {
  const list = compileSelectorList(selector);
  if (list.kind === 'invalid') return undefined;
  const found: number[] = [];
  for (const { index } of reader.page.elements) {
    let matched = false;
    for (const one of list.selectors) {
      const truth = reader.matches(one, index);
      if (truth !== NEVER && truth !== ALWAYS) return undefined;
      matched ||= truth === ALWAYS;
    }
    if (matched && found.push(index) > most) return undefined;
  }
  return found;
}

/**
 * Whether a name looks made by a program: letters and digits in turn, or letters of both cases without a word in them.
 * Such names change with the next build.
 */
export function looksGenerated(name: string): boolean {
  const parts = name.split(/[-_]+/).filter((part) => part !== '');
  return parts.some((part) => {
    if (part.length < 5) return false;
    const turns = part.match(/[a-z](?=\d)|\d(?=[a-z])/gi)?.length ?? 0;
    if (turns >= 2 && !/[a-z]{4}/i.test(part)) return true;
    if (/^[0-9a-f]{6,}$/i.test(part) && hasOneOf(part, DIGIT) && /[a-f]/i.test(part)) return true;
    const flips = part.match(/[a-z][A-Z]|[A-Z]{2}[a-z]/g)?.length ?? 0;
    return flips >= 2 && !/[aeiou][^aeiouA-Z]{1,3}[aeiou]/.test(part) && part.length <= 12;
  });
}

function escapeName(name: string): string {
  return name
    .replace(/^(-?)(\d)/, (_, dash: string, digit: string) => `${dash}\\3${digit} `)
    .replace(/[^\w\s\\\u0080-\uffff-]/g, (char) => `\\${char}`);
}
