// The values of a loaded site, and the colours that stand on each other.

import type { Page } from '../../../core/markup/index.js';
import { type Place, placeIn } from '../../../core/source.js';
import { type ColourPair, colourPairs, type Values, valuesOf } from '../../../core/values/index.js';
import type { Site } from '../../../site/rendering/load.js';

export function valuesIn({ model, themes }: Site): Values {
  const sheets = themes.flatMap((file) => {
    const program = model.sheetAt(file);
    return program === undefined ? [] : [{ path: file, text: program.sheet.text, sheet: program.sheet }];
  });
  const styles = model.pages.flatMap((page) =>
    page.elements.flatMap(({ style, tag }) => {
      const range = tag?.attributes.get('style');
      return style === undefined || range === undefined
        ? []
        : [{ css: style, place: placeIn(page.path, page.text, range.start) }];
    }),
  );
  const blocks = model.pages.flatMap((page) =>
    page.sheets.flatMap((one) =>
      one.kind === 'block' && one.offset !== undefined
        ? [{ css: one.text, path: page.path, text: page.text, offset: one.offset }]
        : [],
    ),
  );
  return valuesOf({ sheets, styles, blocks });
}

/** Worst first. */
export function pairsIn({ model }: Site): ColourPair[] {
  const placeAt = (page: Page, element: number): Place | undefined => {
    const range = page.elements[element]?.tag?.range;
    return range && placeIn(page.path, page.text, range.start);
  };
  return colourPairs(model, placeAt);
}
