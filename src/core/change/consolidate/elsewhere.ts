// Rules and values that the proof took back, as they are told beside the declarations that stay in the markup.

import { placeIn } from '../../base/source.js';
import type { SiteModel } from '../../cascade/index.js';
import { type KeptElsewhere, movedCount, movePlace } from '../../edit/draft/index.js';
import type { Refusals } from '../../proof/index.js';
import type { ValueToken } from '../../search/index.js';
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
/** In: what the first step found pasted, in the state before it; what the last one still finds. */
export function pastedRules(
  first: SheetsResult['pasted'],
  last: SheetsResult['pasted'],
  model: SiteModel,
): KeptElsewhere[] {
  const left = new Map(last.map((one) => [pastedKey(one), one]));
  return first.flatMap((one): KeptElsewhere[] => {
    const still = left.get(pastedKey(one));
    if (still === undefined) return [];
    const { times, declarations } = still;
    const place = movePlace(one.own, model);
    return [
      {
        text: textOf(one),
        declarations,
        place,
        reason: { kind: times === 1 ? 'rule of one page' : 'pasted' },
      },
    ];
  });
}

function pastedKey(one: SheetsResult['pasted'][number]): string {
  return `${one.own.places[0]?.page.path}|${one.own.context}|${textOf(one)}`;
}

function textOf({ own }: SheetsResult['pasted'][number]): string {
  return own.selectors.map(({ text }) => text).join(', ');
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
