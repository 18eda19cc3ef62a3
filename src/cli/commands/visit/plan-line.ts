// What a visit is about to ask for, in one line.

import type { VisitPlan } from '../../../site/visiting/options.js';

/** What is about to be asked for, before anything is. */
export function planLine({ pages, isKnown, bounds, pause, goesOn }: VisitPlan): string {
  const much = isKnown ? `${number(pages)} pages` : `at most ${number(pages)} pages`;
  const parts = [
    `${goesOn ? 'goes on with a visit that was cut short: ' : ''}${much}`,
    `no more than ${number(bounds.requests)} requests, ${number(Math.round(bounds.bytes / 1_000_000))} MB, ${number(bounds.seconds)} s`,
    ...(pause > 0 ? [`${number(pause)} ms between requests`] : []),
  ];
  return parts.join('; ');
}

function number(value: number): string {
  return String(value).replace(/\B(?=(\d{3})+$)/g, ' ');
}
