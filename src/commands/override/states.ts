// An override as it stands, as its document tells it.

import { placeIn } from '../../core/base/source.js';
import type { OverrideState } from '../../core/change/override/index.js';
import type { OverrideDocument } from './document.js';

export function stateOf(
  { rule, elements, pages, declarations, verdict }: OverrideState,
  file: string,
  text: string,
): NonNullable<OverrideDocument['overrides']>[number] {
  return {
    selector: rule.selector,
    ...(rule.conditions[0] === undefined
      ? {}
      : { medium: `@${rule.conditions[0].kind} ${rule.conditions[0].text}` }),
    place: placeIn(file, text, rule.selectorRange.start),
    elements,
    pages,
    verdict,
    declarations: declarations.map(
      ({ property, value, important, wins, waits, beaten, needed, beats, by }) => ({
        ...{ property, value, important, wins, waits, beaten, needed },
        beats,
        by,
      }),
    ),
  };
}
