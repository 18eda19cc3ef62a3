// Rules and values that the proof took back, as they are told beside the declarations that stay in the markup.

import type { SiteModel } from '../cascade/index.js';
import type { KeptElsewhere } from '../draft/index.js';
import type { Refusals } from '../proof/index.js';
import type { SheetMove, ValueToken } from '../search/index.js';
import { placeIn } from '../source.js';

/** In: the site as it is. */
export function refusedMoves(refused: Refusals<SheetMove>, model: SiteModel): KeptElsewhere[] {
  return [...refused].map(([move, reason]): KeptElsewhere => {
    if (move.kind === 'grouped rule') {
      const [first] = move.rules;
      const text = model.sheetAt(move.path)?.sheet.text ?? '';
      return {
        text: move.rules.map(({ selectors }) => selectors[0]).join(', '),
        declarations: move.rules.length * first!.declarations.length,
        place: placeIn(move.path, text, first!.selectorRange.start),
        reason,
      };
    }
    const { page, reference, rule } = move.places[0]!;
    return {
      text: rule.selectors[0]!.replace(/\s+/g, ' '),
      declarations: move.places.length * rule.declarations.length,
      place: placeIn(page.path, page.text, (reference.offset ?? 0) + rule.selectorRange.start),
      reason,
    };
  });
}

/** In: the state whose sheets hold the values. */
export function refusedValues(refused: Refusals<ValueToken>, model: SiteModel): KeptElsewhere[] {
  return [...refused].map(([{ text, places }, reason]): KeptElsewhere => {
    const { path, range } = places[0]!;
    const detail = reason.kind === 'proof' ? reason.detail : reason.kind;
    return {
      text,
      declarations: places.length,
      place: placeIn(path, model.sources.sheets.get(path) ?? '', range.start),
      reason: { kind: 'no name', value: text, detail },
    };
  });
}
