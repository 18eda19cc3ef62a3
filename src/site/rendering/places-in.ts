// The places that a document holds, said of other files.

import { type Place, showPlace } from '../../core/base/source.js';

/** In: a document; where a place is told instead, `undefined` for where it is. Out: the same document with all its places told so. */
export function withPlaces<T>(document: T, of: (place: Place) => Place | undefined): T {
  return moved(document, of) as T;
}

const PLACE = /^(.+?):(\d+):(\d+)(?=$| )/;

function moved(value: unknown, of: (place: Place) => Place | undefined): unknown {
  if (typeof value === 'string') {
    const match = PLACE.exec(value);
    if (match === null) return value;
    const [whole, file = '', line, column] = match;
    const place = of({ path: file, line: Number(line), column: Number(column) });
    return place === undefined ? value : showPlace(place) + value.slice(whole.length);
  }
  if (Array.isArray(value)) return value.map((one) => moved(one, of));
  if (typeof value !== 'object' || value === null) return value;
  if (isPlace(value)) return of(value) ?? value;
  return Object.fromEntries(Object.entries(value).map(([key, own]) => [key, moved(own, of)]));
}

function isPlace(value: object): value is Place {
  return Object.keys(value).length === 3 && 'path' in value && 'line' in value && 'column' in value;
}
