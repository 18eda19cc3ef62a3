// Values that are all but the same. To make them the same changes how the site looks: only a person can decide that, and
// the change stands apart from all others, which change nothing.

import type { SiteModel } from '../../cascade/index.js';
import { type Edit, type Edits, push, stateAfter } from '../../edit/text/index.js';
import { prove } from '../../proof/index.js';
import { type ValueChange, writtenValues } from '../../search/index.js';

export interface ValuesChanged {
  readonly edits: Edits;
  readonly after: SiteModel;
  /** Elements that look different for it, as asked. */
  readonly elements: number;
  readonly pages: number;
}

/** Makes the changes that a person asked for. */
export function changeValues(
  model: SiteModel,
  themes: readonly string[],
  changes: readonly ValueChange[],
): ValuesChanged {
  const edits = new Map<string, Edit[]>();
  const wanted = new Map(changes.map(({ from, to }) => [from, to]));
  for (const { kind, form, text, path, start } of writtenValues(model, themes)) {
    const to = wanted.get(kind === 'length' ? form.replace(' ', ': ') : form);
    if (to === undefined) continue;
    const value = kind === 'length' ? to.replace(/^.*: /, '') : to;
    push(edits, path, [{ start, end: start + text.length, text: value }]);
  }
  if (edits.size === 0) return { edits, after: model, elements: 0, pages: 0 };
  const after = stateAfter(model, edits);
  const { differences } = prove(model, after, { perPage: Number.POSITIVE_INFINITY });
  const styled = differences.flatMap((one) => (one.kind === 'style' ? [`${one.page} ${one.element}`] : []));
  return {
    edits,
    after,
    elements: new Set(styled).size,
    pages: new Set(differences.map(({ page }) => page)).size,
  };
}
