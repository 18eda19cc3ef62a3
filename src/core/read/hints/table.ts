// Old attributes: one entry per element name and attribute, with the CSS that it stands for and what it depends on, by the
// HTML standard's Rendering chapter (https://html.spec.whatwg.org/multipage/rendering.html), as Chromium has it. What is not
// in here is no styling: it is not counted, not mapped, and not moved.

import { hasOneOf } from '../../base/characters.js';
import { attributeOf, type PageElement } from '../markup/index.js';
import { dimension, fontSize, legacyColour, pixels, wholeNumber } from './values.js';

export interface HintDeclaration {
  readonly property: string;
  readonly value: string;
}

/** In: the attribute's value and its element. Out: the declarations, or that no CSS is known to declare exactly the same. */
export type HintMapping = (
  value: string,
  element: Pick<PageElement, 'attributes'>,
) => readonly HintDeclaration[] | undefined;

export const one = (property: string, value: string | undefined): HintDeclaration[] =>
  value === undefined ? [] : [{ property, value }];
const length =
  (...properties: string[]): HintMapping =>
  (value) =>
    properties.flatMap((property) => one(property, dimension(value)));
const lengthAboveZero =
  (property: string): HintMapping =>
  (value) =>
    one(property, dimension(value, true));
const colour =
  (property: string): HintMapping =>
  (value) =>
    one(property, legacyColour(value));
const image: HintMapping = (value) =>
  // What an address could break out of is left alone.
  value.trim() === ''
    ? []
    : hasOneOf(value, '"\\\n')
      ? undefined
      : one('background-image', `url("${value.trim()}")`);
/** No CSS is known that declares exactly the same. */
const unknown: HintMapping = () => undefined;
/** It has no effect: browsers pass over it. */
const nothing: HintMapping = () => [];
const NO_ATTRIBUTES = { attributes: [] };

/** `align` of blocks and table parts: the values that also place boxes have names of their own in browsers. */
const textAlign: HintMapping = (value) => {
  const word = value.toLowerCase();
  const own = {
    middle: '-webkit-center',
    center: '-webkit-center',
    left: '-webkit-left',
    right: '-webkit-right',
  };
  if (word in own) return one('text-align', own[word as keyof typeof own]);
  return word === 'justify' ? one('text-align', word) : undefined;
};

/** `align` of images and frames. */
const imageAlign: HintMapping = (value) => {
  // Versions of browsers align it by the middle of the line, or by the baseline as the standard has it.
  if (value.toLowerCase() === 'center') return undefined;
  const known = new Map([
    ['left', 'float:left;vertical-align:top'],
    ['right', 'float:right;vertical-align:top'],
    ['top', 'vertical-align:top'],
    ['texttop', 'vertical-align:text-top'],
    ['middle', 'vertical-align:-webkit-baseline-middle'],
    ['absmiddle', 'vertical-align:middle'],
    ['bottom', 'vertical-align:baseline'],
    ['absbottom', 'vertical-align:bottom'],
  ]);
  return (known.get(value.toLowerCase()) ?? '')
    .split(';')
    .filter((part) => part !== '')
    .map((part) => ({ property: part.split(':')[0]!, value: part.split(':')[1]! }));
};

const imageBorder: HintMapping = (value) => {
  const width = Math.max(0, wholeNumber(value) ?? 0);
  return [
    { property: 'border-width', value: pixels(width) },
    { property: 'border-style', value: 'solid' },
  ];
};

const verticalAlign: HintMapping = (value) => {
  const word = value.toLowerCase();
  return ['top', 'middle', 'bottom', 'baseline'].includes(word) ? one('vertical-align', word) : undefined;
};

const tableAlign: HintMapping = (value) => {
  const word = value.toLowerCase();
  if (word === 'center')
    return [
      { property: 'margin-inline-start', value: 'auto' },
      { property: 'margin-inline-end', value: 'auto' },
    ];
  return word === 'left' || word === 'right' ? one('float', word) : undefined;
};

const ruleAlign: HintMapping = (value) => {
  const [left, right] = { left: ['0', 'auto'], right: ['auto', '0'] }[value.toLowerCase()] ?? [
    'auto',
    'auto',
  ];
  return [
    { property: 'margin-left', value: left! },
    { property: 'margin-right', value: right! },
  ];
};

/** A rule drawn in one colour, if it is one. */
function solid(colour: string | undefined): HintDeclaration[] {
  return [
    ...one('border-style', 'solid'),
    ...one('border-color', colour),
    ...one('background-color', colour),
  ];
}

/** With `frame` or `rules` beside it, the border of a table is drawn in ways that no CSS is known for. */
export function hasOddBorder(attributes: PageElement['attributes']): boolean {
  return ['frame', 'rules'].some((name) => attributeOf(attributes, name) !== undefined);
}

/** The width of a table's border: one for a value that is no number. */
export function borderWidth(attributes: PageElement['attributes']): number {
  const value = attributeOf(attributes, 'border');
  const width = value === undefined ? 0 : wholeNumber(value);
  return width === undefined || width < 0 ? 1 : width;
}

export function hasBorderColour(attributes: PageElement['attributes']): boolean {
  return (attributeOf(attributes, 'bordercolor') ?? '') !== '';
}

const tableBorder: HintMapping = (_, { attributes }) => {
  if (hasOddBorder(attributes)) return undefined;
  const width = borderWidth(attributes);
  const style = hasBorderColour(attributes) ? 'solid' : 'outset';
  return [...one('border-width', pixels(width)), ...one('border-style', width > 0 ? style : undefined)];
};

const tableBorderColour: HintMapping = (value, { attributes }) =>
  hasOddBorder(attributes) ? undefined : one('border-color', legacyColour(value));

const captionSide: HintMapping = (value) =>
  ['top', 'bottom'].includes(value.toLowerCase()) ? one('caption-side', value.toLowerCase()) : undefined;

const frameBorder: HintMapping = (value) => ((wholeNumber(value) ?? 0) === 0 ? one('border-width', '0') : []);

const ruleSize: HintMapping = (value) => {
  const size = wholeNumber(value);
  if (size === undefined) return undefined;
  return size <= 1 ? one('border-bottom-width', '0') : one('height', `${size - 2}px`);
};

const NUMBERS = new Map([
  ['a', 'lower-alpha'],
  ['A', 'upper-alpha'],
  ['i', 'lower-roman'],
  ['I', 'upper-roman'],
  ['1', 'decimal'],
]);
const numberType: HintMapping = (value) =>
  NUMBERS.has(value) ? one('list-style-type', NUMBERS.get(value)) : undefined;
const bulletType: HintMapping = (value) => {
  const word = value.toLowerCase();
  return ['disc', 'circle', 'square'].includes(word) ? one('list-style-type', word) : undefined;
};

const clear: HintMapping = (value) => {
  const word = value.toLowerCase();
  if (word === '') return [];
  if (word === 'all') return one('clear', 'both');
  return ['left', 'right', 'both', 'none'].includes(word) ? one('clear', word) : undefined;
};

const fontFace: HintMapping = (value) =>
  // Only what is certainly a list of names is taken as one.
  /^\s*[a-z][\w -]*(\s*,\s*[a-z][\w -]*)*\s*$/i.test(value) &&
  !/\b(inherit|initial|unset|revert|default)\b/i.test(value)
    ? one('font-family', value.trim())
    : undefined;

/** With both sides given as numbers, they reserve the space of the picture before it is there. */
function imageWidth(
  value: string,
  { attributes }: Pick<PageElement, 'attributes'>,
): HintDeclaration[] | undefined {
  const [width, height] = [dimension(value), dimension(attributeOf(attributes, 'height') ?? '')];
  const declarations = one('width', width);
  const isLength = (text: string | undefined): text is string => text !== undefined && !text.endsWith('%');
  if (!isLength(width) || !isLength(height)) return declarations;
  if (width === '0' || height === '0') return undefined;
  return [
    ...declarations,
    ...one('aspect-ratio', `auto ${Number.parseFloat(width)} / ${Number.parseFloat(height)}`),
  ];
}

/** An attribute that is styling on an element. */
export interface OldAttribute {
  readonly says: HintMapping;
  /** Names a group of the element's attributes that mean something only together: they move together or not at all. */
  readonly group?: string;
}

type Entries = Readonly<Record<string, HintMapping | OldAttribute>>;

const together = (group: string, says: HintMapping): OldAttribute => ({ says, group });

const IMAGE: Entries = {
  align: imageAlign,
  hspace: length('margin-left', 'margin-right'),
  vspace: length('margin-top', 'margin-bottom'),
  width: together('size', imageWidth),
  height: together('size', length('height')),
};
const TABLE_PART: Entries = {
  align: textAlign,
  valign: verticalAlign,
  bgcolor: colour('background-color'),
  background: image,
  nowrap: nothing,
};
const ROW: Entries = { ...TABLE_PART, height: length('height'), width: nothing };
const COLUMN: Entries = { ...TABLE_PART, width: length('width'), height: length('height') };
const CELL: Entries = {
  ...TABLE_PART,
  width: lengthAboveZero('width'),
  height: lengthAboveZero('height'),
  nowrap: () => one('white-space', 'nowrap'),
};
const TEXT: Entries = { align: textAlign };
const HEADING: Entries = { align: headingAlign };

const ENTRIES: Readonly<Record<string, Entries>> = {
  table: {
    align: tableAlign,
    bgcolor: colour('background-color'),
    background: image,
    border: together('border', tableBorder),
    bordercolor: together('border', tableBorderColour),
    cellpadding: nothing,
    cellspacing: (value) => one('border-spacing', dimension(value)),
    width: lengthAboveZero('width'),
    height: length('height'),
    hspace: unknown,
    vspace: unknown,
    frame: together('border', unknown),
    rules: together('border', unknown),
  },
  td: CELL,
  th: CELL,
  tr: ROW,
  thead: ROW,
  tbody: ROW,
  tfoot: ROW,
  col: COLUMN,
  colgroup: COLUMN,
  caption: { align: captionSide },
  body: {
    bgcolor: colour('background-color'),
    background: image,
    text: colour('color'),
    link: unknown,
    vlink: unknown,
    alink: unknown,
    // In a frame they count together with what the frame declares of its margins.
    marginwidth: unknown,
    leftmargin: unknown,
    marginheight: unknown,
    topmargin: unknown,
  },
  img: { ...IMAGE, border: imageBorder },
  object: { ...IMAGE, border: imageBorder },
  embed: IMAGE,
  video: { width: IMAGE.width!, height: IMAGE.height! },
  iframe: {
    align: imageAlign,
    width: length('width'),
    height: length('height'),
    frameborder: frameBorder,
    marginwidth: unknown,
    marginheight: unknown,
  },
  input: { align: unknown, hspace: unknown, vspace: unknown, border: unknown },
  hr: {
    align: ruleAlign,
    color: together('colour', (value) => solid(legacyColour(value))),
    noshade: together('colour', (_, { attributes }) =>
      attributeOf(attributes, 'color') === undefined ? solid('#808080') : [],
    ),
    size: ruleSize,
    width: length('width'),
  },
  br: { clear },
  font: {
    color: colour('color'),
    face: fontFace,
    size: (value) => one('font-size', fontSize(value)),
  },
  ul: { type: bulletType },
  ol: { type: numberType },
  li: { type: (value) => bulletType(value, NO_ATTRIBUTES) ?? numberType(value, NO_ATTRIBUTES) },
  legend: { align: unknown },
  div: TEXT,
  p: TEXT,
  h1: HEADING,
  h2: HEADING,
  h3: HEADING,
  h4: HEADING,
  h5: HEADING,
  h6: HEADING,
};

export const OLD_ATTRIBUTES: ReadonlyMap<string, ReadonlyMap<string, OldAttribute>> = new Map(
  Object.entries(ENTRIES).map(([element, entries]) => [
    element,
    new Map(
      Object.entries(entries).map(([attribute, entry]) => [
        attribute,
        typeof entry === 'function' ? { says: entry } : entry,
      ]),
    ),
  ]),
);

const EVERY_NAME = new Set([...OLD_ATTRIBUTES.values()].flatMap((entries) => [...entries.keys()]));

/** Whether an attribute of this name is styling on any element. */
export function isOldAttribute(name: string): boolean {
  return EVERY_NAME.has(name);
}

/** An element that is styling by its name. */
export interface OldElement {
  /** The element that declares nothing in its place; `undefined` where what is drawn is not known exactly. */
  readonly neutral: string | undefined;
  /** What browsers' own sheets declare of it. */
  readonly says: readonly HintDeclaration[];
}

export const OLD_ELEMENTS: ReadonlyMap<string, OldElement> = new Map([
  ['center', { neutral: 'div', says: one('text-align', '-webkit-center') }],
  ['font', { neutral: 'span', says: [] }],
  ['big', { neutral: 'span', says: one('font-size', 'larger') }],
  ...['strike', 'tt', 'marquee', 'nobr'].map((name): [string, OldElement] => [
    name,
    { neutral: undefined, says: [] },
  ]),
]);

/** The element that may take an outdated one's place; `undefined` for all that stay as they are. */
export function neutralFor(name: string): string | undefined {
  return OLD_ELEMENTS.get(name)?.neutral;
}

/** Outdated elements that may become another, and that other. */
export const BECOMING: readonly (readonly [name: string, neutral: string])[] = [...OLD_ELEMENTS].flatMap(
  ([name, { neutral }]) => (neutral === undefined ? [] : [[name, neutral] as const]),
);

/** Headings take `align` as a value of `text-align`, so that they do not place boxes. */
function headingAlign(value: string): readonly HintDeclaration[] | undefined {
  const word = value.toLowerCase();
  if (word === 'middle') return one('text-align', 'center');
  return ['left', 'right', 'center', 'justify'].includes(word) ? one('text-align', word) : undefined;
}
