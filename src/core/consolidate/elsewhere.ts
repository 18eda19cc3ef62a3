// Rules and values that the proof took back, as they are told beside the declarations that stay in the markup.

import type { SiteModel } from '../cascade/index.js';
import { type KeptElsewhere, movedCount, movePlace } from '../draft/index.js';
import type { Refusals } from '../proof/index.js';
import type { ValueToken } from '../search/index.js';
import { placeIn } from '../source.js';
import type { SheetsResult } from './sheets.js';

/** In: the state in which the rules stand. */
export function refusedMoves(refused: SheetsResult['refused'], model: SiteModel): KeptElsewhere[] {
  return refused.map(({ move, reason }) => ({
    text: move.selectors.join(', '),
    declarations: movedCount(move),
    place: movePlace(move.replaced[0]!.said[0]!.own, model),
    reason,
  }));
}

/** Rules that stand in several style blocks, since one for all of them would change something. */
export function pastedRules(pasted: SheetsResult['pasted'], model: SiteModel): KeptElsewhere[] {
  return pasted.map(({ own, times, declarations }) => ({
    text: own.selectors.map(({ text }) => text).join(', '),
    declarations,
    place: movePlace(own, model),
    reason: { kind: 'pasted', times },
  }));
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
