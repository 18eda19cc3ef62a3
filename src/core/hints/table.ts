// The CSS that each presentational attribute stands for: one entry per element name and attribute, by the HTML standard's
// Rendering chapter (https://html.spec.whatwg.org/multipage/rendering.html), as Chromium has it.

import { attributeOf, type PageElement } from '../markup/index.js';
import { dimension, fontSize, legacyColour, wholeNumber } from './values.js';

export interface HintDeclaration {
  readonly property: string;
  readonly value: string;
}

/** In: the attribute's value and its element. Out: the declarations, or that it is not known. */
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
/** Of the body: whole numbers. */
const margins =
  (...properties: string[]): HintMapping =>
  (value) => {
    const width = wholeNumber(value);
    return width === undefined || width < 0 ? [] : properties.flatMap((name) => one(name, `${width}px`));
  };
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
    : /["\\\n]/.test(value)
      ? undefined
      : one('background-image', `url("${value.trim()}")`);
const unknown: HintMapping = () => undefined;

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
  const known = new Map([
    ['left', 'float:left;vertical-align:top'],
    ['right', 'float:right;vertical-align:top'],
    ['top', 'vertical-align:top'],
    ['texttop', 'vertical-align:text-top'],
    ['middle', 'vertical-align:-webkit-baseline-middle'],
    ['absmiddle', 'vertical-align:middle'],
    ['center', 'vertical-align:-webkit-baseline-middle'],
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
    { property: 'border-width', value: `${width}px` },
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
  return [...one('border-width', `${width}px`), ...one('border-style', width > 0 ? style : undefined)];
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
  // Only what is surely a list of names is taken as one.
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
  if (!width?.endsWith('px') || !height?.endsWith('px')) return declarations;
  if (width === '0px' || height === '0px') return undefined;
  return [
    ...declarations,
    ...one('aspect-ratio', `auto ${Number.parseFloat(width)} / ${Number.parseFloat(height)}`),
  ];
}

const IMAGE: readonly (readonly [string, HintMapping])[] = [
  ['align', imageAlign],
  ['hspace', length('margin-left', 'margin-right')],
  ['vspace', length('margin-top', 'margin-bottom')],
  ['width', imageWidth],
  ['height', length('height')],
];
const TABLE_PART: readonly (readonly [string, HintMapping])[] = [
  ['align', textAlign],
  ['valign', verticalAlign],
  ['bgcolor', colour('background-color')],
  ['background', image],
];
const TABLE_CELL: readonly (readonly [string, HintMapping])[] = [
  ...TABLE_PART,
  ['width', lengthAboveZero('width')],
  ['height', lengthAboveZero('height')],
  ['nowrap', () => one('white-space', 'nowrap')],
];

export const HINT_TABLE: ReadonlyMap<string, ReadonlyMap<string, HintMapping>> = new Map(
  (
    [
      [
        'table',
        [
          ['align', tableAlign],
          ['bgcolor', colour('background-color')],
          ['background', image],
          ['border', tableBorder],
          ['bordercolor', tableBorderColour],
          ['cellpadding', () => []],
          ['cellspacing', (value) => one('border-spacing', dimension(value))],
          ['width', lengthAboveZero('width')],
          ['height', length('height')],
          ['hspace', unknown],
          ['vspace', unknown],
          ['frame', unknown],
          ['rules', unknown],
        ],
      ],
      ...['td', 'th'].map((name) => [name, TABLE_CELL] as const),
      ...['tr', 'thead', 'tbody', 'tfoot'].map(
        (name) => [name, [...TABLE_PART, ['height', length('height')]]] as const,
      ),
      ...['col', 'colgroup'].map((name) => [name, [...TABLE_PART, ['width', length('width')]]] as const),
      ['caption', [['align', captionSide]]],
      [
        'body',
        [
          ['bgcolor', colour('background-color')],
          ['background', image],
          ['text', colour('color')],
          ['link', unknown],
          ['vlink', unknown],
          ['alink', unknown],
          ...['marginwidth', 'leftmargin'].map(
            (name) => [name, margins('margin-left', 'margin-right')] as const,
          ),
          ...['marginheight', 'topmargin'].map(
            (name) => [name, margins('margin-top', 'margin-bottom')] as const,
          ),
        ],
      ],
      ['img', [...IMAGE, ['border', imageBorder]]],
      ['object', [...IMAGE, ['border', imageBorder]]],
      ['embed', IMAGE],
      ['video', IMAGE.slice(3)],
      [
        'iframe',
        [
          ['align', imageAlign],
          ['width', length('width')],
          ['height', length('height')],
          ['frameborder', frameBorder],
          ['marginwidth', unknown],
          ['marginheight', unknown],
        ],
      ],
      [
        'input',
        [
          ['align', unknown],
          ['hspace', unknown],
          ['vspace', unknown],
          ['border', unknown],
        ],
      ],
      [
        'hr',
        [
          ['align', ruleAlign],
          ['color', (value) => solid(legacyColour(value))],
          [
            'noshade',
            (_, { attributes }) => (attributeOf(attributes, 'color') === undefined ? solid('#808080') : []),
          ],
          ['size', ruleSize],
          ['width', length('width')],
        ],
      ],
      ['br', [['clear', clear]]],
      [
        'font',
        [
          ['color', colour('color')],
          ['face', fontFace],
          ['size', (value) => one('font-size', fontSize(value))],
        ],
      ],
      ['ul', [['type', bulletType]]],
      ['ol', [['type', numberType]]],
      ['li', [['type', (value) => bulletType(value, NO_ATTRIBUTES) ?? numberType(value, NO_ATTRIBUTES)]]],
      ['legend', [['align', unknown]]],
      ...['div', 'p'].map((name) => [name, [['align', textAlign]]] as const),
      ...['h1', 'h2', 'h3', 'h4', 'h5', 'h6'].map((name) => [name, [['align', headingAlign]]] as const),
    ] as readonly (readonly [string, readonly (readonly [string, HintMapping])[]])[]
  ).map(([name, mappings]) => [name, new Map(mappings)]),
);

/** Headings take `align` as a value of `text-align`, so that they do not place boxes. */
function headingAlign(value: string): readonly HintDeclaration[] | undefined {
  const word = value.toLowerCase();
  if (word === 'middle') return one('text-align', 'center');
  return ['left', 'right', 'center', 'justify'].includes(word) ? one('text-align', word) : undefined;
}

const NO_ATTRIBUTES = { attributes: [] };
