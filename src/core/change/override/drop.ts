// Taking an override away again, and what was written beside it for its sake.

import { compileSelectorList, NEVER, type SiteModel } from '../../cascade/index.js';
import {
  applyEdits,
  composeEdits,
  type Edit,
  editRule,
  emptyPart,
  stateAfter,
  withoutRule,
} from '../../edits/index.js';
import type { SharedSheet } from '../../parts.js';
import { type IntentProof, proveIntent } from '../../proof/index.js';
import type { StyleRule } from '../../sheets/index.js';
import { selectorForm } from '../restyle/index.js';
import { rulesOfPart } from './placing.js';

export interface Dropped {
  readonly edits: ReadonlyMap<string, readonly Edit[]>;
  readonly rules: readonly StyleRule[];
  readonly proof: IntentProof;
}

/**
 * In: the sheet that holds the overrides; a selector; properties, or none for the whole rule. Out: `undefined` where no
 * override stands under the selector. What was said again for its states and media goes with it.
 */
export function dropOverride(
  model: SiteModel,
  { path: shared, partNames }: SharedSheet,
  selector: string,
  properties: readonly string[],
): Dropped | undefined {
  const rules = rulesOfPart(model, shared, partNames);
  const wanted = bare(selector);
  const gone = rules.filter(({ selectors }) => wanted !== undefined && bare(selectors[0] ?? '') === wanted);
  if (gone.length === 0) return undefined;
  const text = model.sources.sheets.get(shared) ?? '';
  const edits = gone.flatMap((rule): Edit[] => {
    const left = rule.declarations.filter(({ property }) => !properties.includes(property));
    if (properties.length === 0 || left.length === 0) return [withoutRule(text, around(text, rule))];
    return editRule(
      text,
      rule,
      properties.map((property) => ({ property, value: undefined, important: false })),
    );
  });
  const without = applyEdits(text, edits);
  const heading = emptyPart(without, 'overrides', partNames);
  const all = new Map([[shared, heading === undefined ? edits : composeEdits(text, edits, [heading])]]);
  const after = stateAfter(model, all);
  // Whatever these rules said may change, on the elements that they match and nowhere else.
  const matching = gone.flatMap(({ selectors }) => {
    const list = compileSelectorList(selectors[0] ?? '');
    return list.kind === 'list' ? list.selectors : [];
  });
  const proof = proveIntent(model, after, {
    isMeant: (path, index, target) => {
      const page = after.page(path);
      return (
        page !== undefined &&
        after
          .readersOf(page)
          .some((reader) =>
            matching.some((one) => one.pseudoElement === target && reader.matches(one, index) !== NEVER),
          )
      );
    },
    isAsked: () => true,
  });
  return { edits: all, rules: gone, proof };
}

/** A rule that stands alone in a media query goes with it. */
function around(text: string, rule: StyleRule): StyleRule {
  if (rule.conditions.length === 0) return rule;
  const open = /@[a-z-]+[^{}]*\{\s*$/i.exec(text.slice(0, rule.range.start));
  const close = /^\s*\}/.exec(text.slice(rule.range.end));
  if (open === null || close === null) return rule;
  return { ...rule, range: { start: open.index, end: rule.range.end + close[0].length } };
}

/** The selector without the states and doublings that an override is given: `.a.a:hover` and `.a` are one. */
function bare(selector: string): string | undefined {
  return selectorForm(selector)
    ?.map((text) =>
      text
        .replace(/:is\([^()]*(\([^()]*\))*[^()]*\)(?=$|::)/, '')
        .replace(/:(hover|focus|active|visited|focus-within|focus-visible|link|target)\b/g, '')
        .replace(/^((:root)+|html body|body|#[\w-]+) (?=\S)/, '')
        .replace(/:where\((.*)\)/, '$1')
        .replace(/(\.[\w-]+)\1+/g, '$1'),
    )
    .join(', ');
}
