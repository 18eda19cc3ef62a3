// What is left for a platform's own editor: of two states of a page that differ in the attributes of tags, what a person has
// to do at which block; and whether it was done.

import { inOneLine } from '../../base/phrases.js';
import type { Page, PageElement } from '../../read/markup/index.js';
import { type Declaration, parseDeclarations } from '../../read/sheets/index.js';
import { declarationKey } from '../../stock/index.js';

export interface Work {
  /** The id of the element, or of the nearest around it: where to jump to. */
  readonly anchor?: string | undefined;
  /** The heading that it stands under, and the beginning of its own text: what a person sees. */
  readonly heading?: string | undefined;
  readonly text: string;
  /** Name, id and classes, to tell it from its neighbours. */
  readonly element: string;
  /** Position among its siblings, from the top of the tree: to find it again. */
  readonly path: readonly number[];
  /** Declarations to take out of its style; what the style is to say then, empty for nothing. */
  readonly styleOut: readonly string[];
  readonly styleLeft: string;
  readonly classIn: readonly string[];
  readonly classOut: readonly string[];
  /** Old attributes to take out, such as `align="center"`. */
  readonly attributesOut: readonly string[];
}

const LONG = 60;

/** In: a page as it is and as it is to be, with the same elements. Out: in the order of the page. */
export function workBetween(before: Page, after: Page): Work[] {
  if (before.elements.length !== after.elements.length) return [];
  return before.elements.flatMap((element, at) => workOf(before, element, after.elements[at]!) ?? []);
}

function workOf(page: Page, old: PageElement, fresh: PageElement): Work | undefined {
  const said = new Set(declarationsIn(fresh.style).map(declarationForm));
  const styleOut = declarationsIn(old.style)
    .filter((one) => !said.has(declarationForm(one)))
    .map(declarationText);
  const classIn = fresh.classes.filter((name) => !old.classes.includes(name));
  const classOut = old.classes.filter((name) => !fresh.classes.includes(name));
  const attributesOut = old.attributes
    .filter(({ name }) => name !== 'style' && name !== 'class')
    .filter(({ name }) => !fresh.attributes.some((own) => own.name === name))
    .map(({ name, value }) => `${name}="${value}"`);
  if (styleOut.length + classIn.length + classOut.length + attributesOut.length === 0) return undefined;
  return {
    ...placeOf(page, old),
    ...{ styleOut, styleLeft: (fresh.style ?? '').trim(), classIn, classOut, attributesOut },
  };
}

type PlaceInPage = Pick<Work, 'anchor' | 'heading' | 'text' | 'element' | 'path'>;

function placeOf(page: Page, element: PageElement): PlaceInPage {
  const anchor = idAround(page, element);
  const heading = headingOf(page, element);
  const id = element.id === undefined ? '' : `#${element.id}`;
  return {
    ...(anchor === undefined ? {} : { anchor }),
    ...(heading === undefined ? {} : { heading }),
    text: shortened(textIn(page, element)),
    element: `${element.name}${id}${element.classes.map((name) => `.${name}`).join('')}`,
    path: pathOf(page, element),
  };
}

function idAround({ elements }: Page, element: PageElement): string | undefined {
  for (let at = element.index; at >= 0; at = elements[at]!.parent)
    if (elements[at]!.id !== undefined) return elements[at]!.id;
  return undefined;
}

const HEADING = /^h[1-6]$/;

/** The one that stands before it, or is it. */
function headingOf(page: Page, { index }: PageElement): string | undefined {
  for (let at = index; at >= 0; at--) {
    const text = HEADING.test(page.elements[at]!.name) ? textIn(page, page.elements[at]!) : '';
    if (text !== '') return shortened(text);
  }
  return undefined;
}

function textIn({ elements, texts }: Page, { index }: PageElement): string {
  const isInside = (at: number): boolean => {
    for (let one = at; one >= index; one = elements[one]!.parent) if (one === index) return true;
    return false;
  };
  return inOneLine(
    texts
      .filter(({ parent }) => isInside(parent))
      .map(({ value }) => value)
      .join(' '),
  );
}

function shortened(text: string): string {
  return [...text].length <= LONG ? text : `${[...text].slice(0, LONG - 1).join('')}…`;
}

function pathOf({ elements }: Page, element: PageElement): number[] {
  const path: number[] = [];
  for (let at = element.index; at >= 0; at = elements[at]!.parent) path.unshift(elements[at]!.position);
  return path;
}

export type WorkState = 'open' | 'done' | 'gone';

/** In: a piece of work, and the page as it is now; `undefined` where there is none any more. */
export function stateOfWork(work: Work, page: Page | undefined): WorkState {
  const element = page && findAgain(work, page);
  if (element === undefined) return 'gone';
  const said = new Set(declarationsIn(element.style).map(declarationForm));
  const isOut = (text: string): boolean =>
    parseDeclarations(text).declarations.every((one) => !said.has(declarationForm(one)));
  const isDone =
    work.styleOut.every(isOut) &&
    work.classIn.every((name) => element.classes.includes(name)) &&
    work.classOut.every((name) => !element.classes.includes(name)) &&
    work.attributesOut.every((text) =>
      element.attributes.every(({ name, value }) => `${name}="${value}"` !== text),
    );
  return isDone ? 'done' : 'open';
}

/** By its id; else where it stood, if it still says the same; else the one that says the same, if there is only one. */
function findAgain({ element, path, text }: Work, page: Page): PageElement | undefined {
  const [, name = '', id] = /^([^#.]+)(?:#([^.]+))?/.exec(element) ?? [];
  if (id !== undefined) return page.elements.find((one) => one.id === id);
  const alike = page.elements.filter((one) => one.name === name && shortened(textIn(page, one)) === text);
  const key = path.join(' ');
  return (
    alike.find((one) => pathOf(page, one).join(' ') === key) ?? (alike.length === 1 ? alike[0] : undefined)
  );
}

function declarationsIn(style: string | undefined): readonly Declaration[] {
  return style === undefined ? [] : parseDeclarations(style).declarations;
}

/** Equal forms say the same: both states of a page lie in one folder. */
function declarationForm(one: Declaration): string {
  return declarationKey(one, '');
}

function declarationText({ property, value, important }: Declaration): string {
  return `${property}: ${value}${important ? ' !important' : ''}`;
}
