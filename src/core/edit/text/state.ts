// Edits on the texts of a state, the state they lead to, and steps put together.

import { SiteModel } from '../../cascade/index.js';
import { composeEdits, type Edit } from './edit.js';
import { applyToSources } from './plan.js';

/** By path; a path that the sources do not hold is a new sheet. */
export type Edits = ReadonlyMap<string, readonly Edit[]>;

/** The state that edits lead to; what they leave alone is taken over from the state before. */
export function stateAfter(model: SiteModel, edits: Edits, ...known: readonly SiteModel[]): SiteModel {
  return new SiteModel(applyToSources(model.sources, edits), model.table, model, ...known);
}

/** Edits on the texts of `model` that have the same result as the steps one after the other. */
export function inOneStep(model: SiteModel, steps: readonly Edits[]): Map<string, Edit[]> {
  const all = new Map<string, Edit[]>();
  for (const path of new Set(steps.flatMap((edits) => [...edits.keys()]))) {
    const text = model.sources.pages.get(path) ?? model.sources.sheets.get(path) ?? '';
    let edits: readonly Edit[] = [];
    for (const step of steps) {
      const own = step.get(path);
      if (own !== undefined) edits = edits.length === 0 ? own : composeEdits(text, edits, own);
    }
    all.set(path, [...edits]);
  }
  return all;
}
