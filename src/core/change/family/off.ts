// A medium in which a family does not hold, turned round: the media in which it does (Media Queries 4 §2.2).

import { readMedia } from '../../cascade/index.js';
import { splitList } from './selectors.js';

/** In: a media query list. Out: queries that must all hold where it does not; `undefined` where it is not understood. */
export function negated(medium: string): string[] | undefined {
  const queries = splitList(medium.replace(/^\s*@media\s*/i, '')).map((one) => one.trim());
  const turned = queries.map(negatedQuery);
  const every = turned.every((one) => one !== undefined && readMedia(one) !== undefined);
  return every && readMedia(queries.join(', ')) !== undefined ? (turned as string[]) : undefined;
}

function negatedQuery(query: string): string | undefined {
  // `not (width > 5px)` asks no type: its own brackets are what is left of it.
  const condition = /^not\s*(\([\s\S]*\))$/i.exec(query)?.[1];
  if (condition !== undefined) return condition;
  const typed = /^(?:(not|only)\s+)?([a-z-]+)(\s+and\b[\s\S]*)?$/i.exec(query);
  if (typed !== null && !['not', 'only', 'and', 'or'].includes(typed[2]!.toLowerCase())) {
    const [, modifier = '', type = '', rest = ''] = typed;
    return modifier.toLowerCase() === 'not' ? `${type}${rest}` : `not ${type}${rest}`;
  }
  if (!query.startsWith('(')) return undefined;
  // Only a chain of conditions may follow `all and` bare.
  const isChain = !/\)\s*or\b/i.test(query);
  return `not all and ${isChain ? query : `(${query})`}`;
}
