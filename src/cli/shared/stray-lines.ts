// Why a change is refused: the differences that nobody asked for.

import { type Difference, differenceText } from '../../core/proof/index.js';
import { clean, more, row } from './paper.js';

/** Each once. */
export function strayLines(
  { strays, wrong = [] }: { readonly strays: readonly Difference[]; readonly wrong?: readonly string[] },
  all: boolean,
): string[] {
  const texts = [...new Set([...strays.map(differenceText), ...wrong])];
  const shown = all ? texts : texts.slice(0, 6);
  const lines = shown.map((text) => row({ mark: 'broken', text: clean(text) }));
  if (texts.length > shown.length) lines.push(more(texts.length - shown.length, '--all'));
  return lines;
}
