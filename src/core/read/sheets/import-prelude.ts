// What stands between `@import` and its semicolon.

import type { ImportRule, RuleCondition } from './sheet.js';

/**
 * The prelude of `@import`: an address, then `layer`, `supports()` and media, each optional (CSS Cascade 5 §2.1).
 * Out: `undefined` for what is no import. An anonymous layer is the empty name.
 */
export function parseImport(prelude: string): Omit<ImportRule, 'range' | 'layersBefore'> | undefined {
  const match = /^(?:url\(\s*)?(?:"([^"]*)"|'([^']*)'|([^"'()\s]+))\s*\)?\s*([\s\S]*)$/i.exec(prelude);
  if (match === null) return undefined;
  let rest = match[4] ?? '';
  let layer: string | undefined;
  const layered = /^layer(?:\(([^)]*)\))?(?=\s|$)\s*/i.exec(rest);
  if (layered !== null) {
    layer = (layered[1] ?? '').trim();
    rest = rest.slice(layered[0].length);
  }
  const conditions: RuleCondition[] = [];
  const supports = /^supports\(((?:[^()]|\([^()]*\))*)\)\s*/i.exec(rest);
  if (supports !== null) {
    conditions.push({ kind: 'supports', text: `(${supports[1]})` });
    rest = rest.slice(supports[0].length);
  }
  if (rest.trim() !== '') conditions.push({ kind: 'media', text: rest.trim() });
  return { address: match[1] ?? match[2] ?? match[3] ?? '', conditions, layer };
}
