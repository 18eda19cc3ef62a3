// Custom properties that hold on every page of a sheet.

import { parseSheet } from '../../read/sheets/index.js';
import type { SharedSheet } from '../../read/sheets/shared-sheet.js';
import type { SharedRule } from '../../search/index.js';
import type { Edit } from './edit.js';
import { appendText } from './rules.js';
import { writeRules } from './shared-sheet.js';

export interface RootValue {
  /** With its two dashes. */
  readonly name: string;
  readonly text: string;
}

/** In: the sheet and its text. Out: edits that define values beside those that it has, else in a rule of their own. */
export function writeRootValues(text: string, sheet: SharedSheet, values: readonly RootValue[]): Edit[] {
  const there = parseSheet(text).rules.find(
    ({ selector, conditions, layer, scope, declarations }) =>
      selector === ':root' &&
      conditions.length === 0 &&
      layer === undefined &&
      scope === undefined &&
      declarations.some(({ property }) => property.startsWith('--')),
  );
  if (there !== undefined) {
    const added = values.map(({ name, text: value }) => `${name}: ${value}`);
    return [appendText(text, there, added, new Set())];
  }
  const rule: SharedRule = {
    selectors: [':root'],
    part: 'tokens',
    declarations: values.map(({ name, text: value }) => ({
      declaration: { property: name, value, important: false, range: { start: 0, end: 0 } },
      holder: sheet.path,
    })),
  };
  return writeRules(text, sheet, [rule]);
}
