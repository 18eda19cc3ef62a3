// Does a browser keep a declaration, or drop it? Certain only where the grammar takes it, Chromium was asked, and every
// other browser of the target is known to keep it too.

import * as csstree from 'css-tree/dist/csstree.esm';
import { BoundedMap } from '../../base/bounded.js';
import { isConfirmed } from './confirmed.js';
import { isKnownProperty } from './properties.js';
import { isKeptByTarget, isNamedSoEverywhere } from './support.js';
import { usesVariables } from './variables.js';

/** `certain`: every browser keeps it. `unsure`: some may drop it, so what it would beat may show. */
export type Validity = 'certain' | 'unsure';

export interface ValidityFinding {
  readonly validity: Validity;
  /** What looks wrong, for a person. Absent for vendor names and for what is only new. */
  readonly complaint: 'unknown property' | 'unfitting value' | undefined;
}

const CERTAIN: ValidityFinding = { validity: 'certain', complaint: undefined };
const UNSURE: ValidityFinding = { validity: 'unsure', complaint: undefined };

/** Functions and keywords that css-tree's grammar takes in and not every browser does. */
const ODD =
  /(^|[\s,(])-|progid|expression\(|\b(hand|intrinsic|min-intrinsic|fill|fill-available|stretch|inline-stack|grid-line)\b|@|\\/i;
const known = new BoundedMap<string, ValidityFinding>(50_000);

/** How certain it is that browsers keep `property: value` (neither with `!important`). */
export function declarationValidity(property: string, value: string): ValidityFinding {
  return known.get(`${property}:${value}`, () => judge(property, value));
}

/** From the inside out, since a fallback may hold another. */
function withoutVariables(value: string): string {
  let rest = value;
  for (let before = ''; before !== rest; ) {
    before = rest;
    rest = rest.replace(/\bvar\([^()]*\)/gi, 'x');
  }
  return rest;
}

/** Values with a browser's prefix that every browser takes: what `align` has always meant. */
const PREFIXED_EVERYWHERE = new Set([
  'text-align:-webkit-center',
  'text-align:-webkit-left',
  'text-align:-webkit-right',
  'vertical-align:-webkit-baseline-middle',
]);

function judge(property: string, value: string): ValidityFinding {
  if (PREFIXED_EVERYWHERE.has(`${property}:${value}`.toLowerCase())) return CERTAIN;
  if (property.startsWith('--')) return CERTAIN;
  if (property.startsWith('-')) return UNSURE;
  if (!isKnownProperty(property)) return { validity: 'unsure', complaint: 'unknown property' };
  // A declaration with var() is always kept; it can only become invalid later, the same way everywhere.
  if (usesVariables(value) && !ODD.test(withoutVariables(value)))
    return isNamedSoEverywhere(property) ? CERTAIN : UNSURE;
  const match = csstree.lexer.matchProperty(property, value);
  if (match.error !== null) {
    const odd = /(^|[\s,(])-[a-z]|\\|progid|[a-z-]+\(/i.test(value) || !csstree.lexer.getProperty(property);
    return { validity: 'unsure', complaint: odd ? undefined : 'unfitting value' };
  }
  return isConfirmed(property, value) && isKeptByTarget(property, value) ? CERTAIN : UNSURE;
}
