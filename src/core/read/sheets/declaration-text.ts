// How a declaration is written into another file than the one it stood in.

import { addressFrom, resolveAddress } from '../../base/addresses.js';
import type { Declaration } from './sheet.js';

/** `property: value !important`, its addresses rewritten so that they lead from the sheet where they led from the page. */
export function declarationText(
  { property, value, important }: Declaration,
  holder: string,
  path: string,
): string {
  const written = value
    .replace(/\s*[\r\n]\s*/g, ' ')
    .replace(/url\(\s*(?:"([^"]*)"|'([^']*)'|([^"'()\s]+))\s*\)/gi, (whole, double, single, bare) => {
      const address: string = double ?? single ?? bare;
      const resolved = resolveAddress(address, holder);
      if (resolved.kind !== 'site' && resolved.kind !== 'above') return whole;
      const quote = double !== undefined ? '"' : single !== undefined ? "'" : '';
      return `url(${quote}${addressFrom(path, resolved.path)}${resolved.suffix}${quote})`;
    });
  return `${property}: ${written}${important ? ' !important' : ''}`;
}
