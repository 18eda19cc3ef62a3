// Elements that were meant and keep what they had, and by what.

import { showPlace } from '../../core/base/source.js';
import type { Unmoved } from '../../core/change/restyle/index.js';
import { clean, declarationsLine, dim, heading, row } from './paper.js';

const REACHED_BY: Readonly<Record<Unmoved['why'], string>> = {
  'style attribute': 'its own style attribute; kept. "acervus draft" moves what repeats',
  'old attribute': 'its own old attribute; kept',
  'stronger rule': 'a stronger rule; restyle that one too',
  '!important': 'an !important rule; nothing but another beats it',
  'platform rule': 'a platform rule that is stronger; "acervus override" beats it',
  'sheet not linked': 'the page does not link the sheet',
};

export function unmovedLines(unmoved: readonly Unmoved[]): string[] {
  if (unmoved.length === 0) return [];
  const lines = [heading('Not moved', 'what they have instead, and by what')];
  for (const { property, value, why, selector: by, place, elements: own } of unmoved) {
    const from = by === '' ? '' : `${clean(by)}: `;
    const said = value === '' ? property : `${property}: ${value}`;
    lines.push(
      row({
        count: own,
        mark: 'kept',
        text: `${declarationsLine([said])}  ${dim(from + REACHED_BY[why])}`,
        place: showPlace(place),
      }),
    );
  }
  return lines;
}
