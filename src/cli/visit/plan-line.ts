// What a visit is about to ask for, in one line.

import { grouped } from '../../core/base/grouped.js';
import type { VisitPlan } from '../../site/visiting/options.js';

/** What is about to be asked for, before anything is. */
export function planLine({ pages, isKnown, bounds, pause, goesOn }: VisitPlan): string {
  const much = isKnown ? `${grouped(pages)} pages` : `at most ${grouped(pages)} pages`;
  const parts = [
    `${goesOn ? 'goes on with a visit that was cut short: ' : ''}${much}`,
    `no more than ${grouped(bounds.requests)} requests, ${grouped(Math.round(bounds.bytes / 1_000_000))} MB, ${grouped(bounds.seconds)} s`,
    ...(pause > 0 ? [`${grouped(pause)} ms between requests`] : []),
  ];
  return parts.join('; ');
}
