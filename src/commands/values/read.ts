// The values of a loaded site, and the colours that stand on each other.

import { type ColourPair, colourPairs, type Values, valuesOf } from '../../core/ask/values/index.js';
import { type Place, placeIn } from '../../core/base/source.js';
import type { Page } from '../../core/read/markup/index.js';
import type { Sheet } from '../../core/read/sheets/index.js';
import { findNearMisses, type NearValue } from '../../core/search/index.js';
import type { Site } from '../../site/rendering/load.js';

type SourceOf = (place: Place) => Place;

const AS_IT_IS: SourceOf = (place) => place;

/** In: where a place of its pages stands in what a person writes; sources of a preprocessor. */
export function valuesIn(
  { model, themes }: Site,
  sourceOf: SourceOf = AS_IT_IS,
  sources: ReadonlyMap<string, Sheet> = new Map(),
): Values {
  const own = themes.flatMap((file) => {
    const program = model.sheetAt(file);
    return program === undefined ? [] : [[file, program.sheet] as const];
  });
  const sheets = [...own, ...sources].map(([path, sheet]) => ({ path, text: sheet.text, sheet }));
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
  const { named, unnamed } = valuesOf({ sheets, styles, blocks });
  if (sourceOf === AS_IT_IS) return { named, unnamed };
  return {
    named: named.map((one) => ({
      ...one,
      place: sourceOf(one.place),
      sets: one.sets.map((set) => ({ ...set, place: sourceOf(set.place) })),
    })),
    unnamed: unnamed.map((one) => ({ ...one, place: sourceOf(one.place) })),
  };
}

/** Worst first. */
export function pairsIn({ model }: Site, sourceOf: SourceOf = AS_IT_IS): ColourPair[] {
  const placeAt = (page: Page, element: number): Place | undefined => {
    const range = page.elements[element]?.tag?.range;
    return range && sourceOf(placeIn(page.path, page.text, range.start));
  };
  return colourPairs(model, placeAt);
}

/** Values that nearly are another. */
export function nearIn({ model, themes }: Site, sourceOf: SourceOf = AS_IT_IS): NearValue[] {
  return findNearMisses(model, themes).map((one) => ({ ...one, places: one.places.map(sourceOf) }));
}
