// When a declaration that wins cannot show: one entry for each reason, with what would make it work. Each is tried in
// Chromium by its test: with the declaration and without it, a page looks the same.

import { startsWithAny } from '../../base/phrases.js';
import type { Surroundings } from './surroundings.js';

export interface IdleRule {
  /** Longhands, and with `-` at the end the beginnings of some. */
  readonly of: readonly string[];
  /** In: the longhand's own value. Out: why it does nothing here, `undefined` where it may. */
  readonly why: (here: Surroundings, longhand: string, value: string) => string | undefined;
  readonly remedy: string;
  /** It holds whatever the value: also for what a shorthand declares in a way that is not taken apart. */
  readonly anyValue?: true;
}

const SIZES = ['width', 'height', 'min-width', 'min-height', 'max-width', 'max-height'];

const PARTS_OF_TABLES = [
  'table-row',
  'table-row-group',
  'table-header-group',
  'table-footer-group',
  'table-column',
  'table-column-group',
];
const TABLES = ['table', 'inline-table', 'table-caption', 'table-cell', ...PARTS_OF_TABLES];

const when = (holds: boolean, why: string): string | undefined => (holds ? why : undefined);
const zero = (value: string): boolean => /^0(%|[a-z]+)?$/.test(value);

export const IDLE_RULES: readonly IdleRule[] = [
  {
    of: [
      'top',
      'right',
      'bottom',
      'left',
      'inset-block-start',
      'inset-block-end',
      'inset-inline-start',
      'inset-inline-end',
    ],
    why: (here, _, value) => when(value !== 'auto' && here.isStatic, 'the element is not positioned'),
    remedy: 'position: relative, or a margin instead',
  },
  {
    of: ['z-index'],
    why: (here, _, value) =>
      when(value !== 'auto' && here.isStatic && here.isNoItem, 'the element is not positioned'),
    remedy: 'position: relative',
  },
  {
    of: SIZES,
    why: (here) => when(here.isInlineBox, 'an inline box has the size of its text'),
    remedy: 'display: inline-block',
  },
  {
    of: ['margin-top', 'margin-bottom'],
    why: (here, _, value) =>
      when(here.isInlineBox && !zero(value), 'an inline box has no margins above and below'),
    remedy: 'display: inline-block, or line-height',
  },
  {
    of: ['margin-left', 'margin-right'],
    why: (here, _, value) => {
      if (value !== 'auto') return undefined;
      if (here.isInlineBox) return 'an inline box has nothing to share out';
      const fills =
        here.isBlockInFlow &&
        here.every('width', 'auto', (width) => width === 'auto') &&
        here.every('max-width', 'none', (width) => width === 'none');
      return when(fills, 'the box is as wide as its line, so that nothing is left to share out');
    },
    remedy: 'a width or max-width',
  },
  {
    of: ['vertical-align'],
    why: (here) =>
      when(
        here.isDisplayed('block', 'list-item', 'flow-root', 'flex', 'grid', 'table') ||
          here.isFloated ||
          here.isOutOfFlow,
        'only what stands in a line, and table cells, are aligned by it',
      ),
    remedy: 'align-items on a flex parent, or display: inline-block',
  },
  {
    of: ['flex-direction', 'flex-wrap'],
    anyValue: true,
    why: (here) => when(here.isNotDisplayed('flex', 'inline-flex'), 'the element is no flex container'),
    remedy: 'display: flex',
  },
  {
    of: ['justify-content', 'align-items', 'row-gap', 'column-gap'],
    why: (here, longhand) => {
      const columns =
        longhand !== 'align-items' &&
        !(
          here.every('column-count', 'auto', (value) => value === 'auto') &&
          here.every('column-width', 'auto', (value) => value === 'auto')
        );
      return when(
        !columns && here.isNotDisplayed('flex', 'grid', 'inline-flex', 'inline-grid'),
        'the element is no flex or grid container',
      );
    },
    remedy: 'display: flex, or grid',
  },
  {
    of: ['grid-template-', 'grid-auto-', 'justify-items'],
    anyValue: true,
    why: (here) => when(here.isNotDisplayed('grid', 'inline-grid'), 'the element is no grid container'),
    remedy: 'display: grid',
  },
  {
    of: ['flex-grow', 'flex-shrink', 'flex-basis'],
    anyValue: true,
    why: (here) =>
      when(
        here.parent?.isNotDisplayed('flex', 'inline-flex', 'contents') ?? false,
        'its parent is no flex container',
      ),
    remedy: 'display: flex on the parent',
  },
  {
    of: ['order', 'align-self'],
    why: (here) => when(here.isNoItem && here.isInFlow, 'its parent is no flex or grid container'),
    remedy: 'display: flex on the parent',
  },
  {
    of: ['grid-row-start', 'grid-row-end', 'grid-column-start', 'grid-column-end'],
    anyValue: true,
    why: (here) =>
      when(
        here.isInFlow && (here.parent?.isNotDisplayed('grid', 'inline-grid', 'contents') ?? false),
        'its parent is no grid container',
      ),
    remedy: 'display: grid on the parent',
  },
  {
    of: ['float'],
    why: (here, _, value) => {
      if (value === 'none') return undefined;
      if (here.isOutOfFlow) return 'what is positioned absolutely does not float';
      return when(here.isItem, 'an item of a flex or grid container does not float');
    },
    remedy: 'margin-left: auto, or order',
  },
  {
    of: ['clear'],
    why: (here, _, value) =>
      when(value !== 'none' && here.isInlineBox, 'only blocks move down past what floats'),
    remedy: 'display: block',
  },
  {
    of: ['width', 'height'],
    why: (here, longhand, value) => {
      if (!here.isNoItem || here.isInlineBox || here.isDisplayed(...TABLES)) return undefined;
      const own = sizeOf(value);
      if (own === undefined) return undefined;
      const beyond = (limit: string, holds: (bound: number) => boolean): boolean =>
        here.every(limit, 'x', (bound) => {
          const size = sizeOf(bound);
          return size !== undefined && size.unit === own.unit && holds(size.number);
        });
      if (beyond(`min-${longhand}`, (bound) => bound >= own.number))
        return `min-${longhand} is more than that`;
      return when(
        beyond(`max-${longhand}`, (bound) => bound <= own.number) &&
          here.every(`min-${longhand}`, 'auto', (bound) => bound === 'auto' || zero(bound)),
        `max-${longhand} is less than that`,
      );
    },
    remedy: 'change the limit, or take one of the two out',
  },
  {
    of: ['height'],
    why: (here, _, value) => {
      const parent = here.parent;
      const endless =
        !here.isQuirks &&
        parent !== undefined &&
        parent.element.parent >= 0 &&
        here.isInFlow &&
        here.isNoItem &&
        parent.isBlockInFlow &&
        parent.isDisplayed('block', 'list-item', 'flow-root') &&
        parent.every('height', 'auto', (height) => height === 'auto');
      return when(
        /^[\d.]+%$/.test(value) && endless,
        'a share of a parent whose height is left to its content',
      );
    },
    remedy: 'a height on the parent, or a length here',
  },
  {
    of: ['padding-'],
    why: (here, _, value) => {
      if (zero(value)) return undefined;
      const collapsed =
        here.isDisplayed('table') && here.every('border-collapse', 'separate', (one) => one === 'collapse');
      if (collapsed) return 'a table with collapsed borders has no padding of its own';
      return when(here.isDisplayed(...PARTS_OF_TABLES), 'rows have no padding');
    },
    remedy: 'padding on its cells: td and th',
  },
  {
    of: ['margin-'],
    why: (here, _, value) =>
      when(
        !zero(value) && here.isDisplayed('table-cell', ...PARTS_OF_TABLES),
        'cells and rows have no margins',
      ),
    remedy: 'padding on the cells, or border-spacing on the table',
  },
  {
    of: ['border-spacing'],
    anyValue: true,
    why: (here) =>
      when(
        !here.holdsTable &&
          here.isDisplayed('table') &&
          here.every('border-collapse', 'separate', (one) => one === 'collapse'),
        'cells with collapsed borders have no space between them',
      ),
    remedy: 'border-collapse: separate',
  },
  {
    of: ['table-layout'],
    why: (here, _, value) =>
      when(
        value === 'fixed' &&
          (here.isNotDisplayed('table', 'inline-table') ||
            here.every('width', 'auto', (width) => width === 'auto')),
        'it takes a table with a width',
      ),
    remedy: 'a width on the table',
  },
  {
    of: ['text-align', 'text-indent'],
    why: (here) => when(here.isInlineBox && !here.hasChildren, 'an inline box is as wide as its text'),
    remedy: 'the same on the block around it',
  },
  {
    of: ['text-overflow'],
    why: (here, _, value) =>
      when(
        value !== 'clip' && here.every('overflow-x', 'visible', (one) => one === 'visible'),
        'nothing is cut off here',
      ),
    remedy: 'overflow: hidden and white-space: nowrap',
  },
  {
    of: ['list-style-type', 'list-style-position', 'list-style-image'],
    anyValue: true,
    why: (here) =>
      when(
        !here.hasChildren && here.isNotDisplayed('list-item'),
        'the element is no list item and has none inside',
      ),
    remedy: 'the same on the list',
  },
  {
    of: ['content'],
    why: (here, _, value) =>
      when(
        !here.isPseudo && !here.isReplaced && startsWithAny(value, ['"', 'counter', 'attr', 'open-quote']),
        'only ::before and ::after take text',
      ),
    remedy: 'the same on ::before',
  },
  {
    of: [
      'border-top-width',
      'border-top-color',
      'border-right-width',
      'border-right-color',
      'border-bottom-width',
      'border-bottom-color',
      'border-left-width',
      'border-left-color',
    ],
    why: (here, longhand) => {
      const style = longhand.replace(/(width|color)$/, 'style');
      const bordered =
        here.isReplaced || ['fieldset', 'hr', 'dialog', 'img', 'marquee'].includes(here.element.name);
      return when(
        !bordered && here.every(style, 'none', (one) => one === 'none' || one === 'hidden'),
        'the border has no style',
      );
    },
    remedy: 'border-style: solid',
  },
  {
    of: [
      'background-position-x',
      'background-position-y',
      'background-size',
      'background-repeat',
      'background-repeat-x',
      'background-repeat-y',
      'background-attachment',
    ],
    anyValue: true,
    why: (here) =>
      when(
        here.every('background-image', 'none', (one) => one === 'none'),
        'there is no background image',
      ),
    remedy: 'a background-image',
  },
  {
    of: ['object-fit', 'object-position'],
    anyValue: true,
    why: (here) => when(!here.isReplaced, 'the element is no picture and no video'),
    remedy: 'the same on the img inside',
  },
  {
    of: ['transform', 'rotate', 'scale', 'translate'],
    why: (here, _, value) => when(value !== 'none' && here.isInlineBox, 'an inline box is not transformed'),
    remedy: 'display: inline-block',
  },
  {
    of: ['overflow-x', 'overflow-y', 'aspect-ratio'],
    why: (here) => when(here.isInlineBox, 'an inline box has the size of its text'),
    remedy: 'display: inline-block',
  },
  {
    of: ['position'],
    why: (here, _, value) =>
      when(
        value === 'sticky' &&
          ['top', 'right', 'bottom', 'left', 'inset-block-start', 'inset-block-end'].every((side) =>
            here.every(side, 'auto', (one) => one === 'auto'),
          ),
        'nothing says at which edge it stays',
      ),
    remedy: 'top: 0',
  },
  {
    of: [
      'animation-duration',
      'animation-delay',
      'animation-iteration-count',
      'animation-direction',
      'animation-fill-mode',
      'animation-timing-function',
    ],
    why: (here) =>
      when(
        here.every('animation-name', 'none', (one) => one === 'none'),
        'there is no animation',
      ),
    remedy: 'an animation-name',
  },
  {
    of: ['resize'],
    why: (here, _, value) =>
      when(
        value !== 'none' &&
          !here.isReplaced &&
          here.every('overflow-x', 'visible', (one) => one === 'visible'),
        'what does not scroll has no handle',
      ),
    remedy: 'overflow: auto',
  },
];

function sizeOf(value: string): { number: number; unit: string } | undefined {
  const match = /^([\d.]+)(px|em|rem|ch|vw|vh|%)?$/.exec(value);
  if (match === null || (match[2] === undefined && match[1] !== '0')) return undefined;
  return { number: Number(match[1]), unit: match[2] ?? 'px' };
}
