// Escapes in CSS: `\62 gcolor` is `bgcolor` (CSS Syntax 3, "consume an escaped code point").

import * as csstree from 'css-tree/dist/csstree.esm';

/** A text with each escape as the character that it means. */
export function withoutEscapes(text: string): string {
  return text.includes('\\') ? csstree.ident.decode(text) : text;
}
