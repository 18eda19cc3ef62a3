// A change of values out of a token file: new custom properties, and others for those that are there; with the proof that
// nothing but these properties says something else.

import { reachOf } from '../ask/reach/index.js';
import type { SiteModel } from '../cascade/index.js';
import { type Edit, type Edits, push, stateAfter, writeRules } from '../edits/index.js';
import type { SharedSheet } from '../parts.js';
import { type Difference, prove } from '../proof/index.js';
import type { NamedValue } from './collect.js';
import { valueForm } from './kinds.js';
import type { ReadToken } from './tokens.js';

export interface ValueChange {
  readonly property: string;
  readonly before: string | undefined;
  readonly after: string;
  /** Elements on which something is set or used by this name, and their pages. */
  readonly elements: number;
  readonly pages: number;
}

export interface ValuesPlan {
  readonly edits: Edits;
  readonly changes: readonly ValueChange[];
  /** Tokens that say what is there. */
  readonly same: number;
  /** Values of the site that the file says nothing of. */
  readonly unsaid: readonly string[];
  /** What else would differ: none, in a change that may be made. */
  readonly strays: readonly Difference[];
  /** Why a token cannot be written. */
  readonly refused: readonly { readonly property: string; readonly why: string }[];
}

export interface PlanInput {
  readonly model: SiteModel;
  readonly shared: SharedSheet;
  readonly named: readonly NamedValue[];
  readonly tokens: readonly ReadToken[];
  /** Whether a file may be written. */
  readonly isOwn: (path: string) => boolean;
}

export function planValues({ model, shared, named, tokens, isOwn }: PlanInput): ValuesPlan {
  const known = new Map(named.map((one) => [one.name, one]));
  const edits = new Map<string, Edit[]>();
  const changes: ValueChange[] = [];
  const refused: { property: string; why: string }[] = [];
  const fresh: ReadToken[] = [];
  let same = 0;
  for (const token of tokens) {
    const { property, value } = token;
    const old = known.get(property);
    if (old === undefined) {
      fresh.push(token);
      changes.push({ property, before: undefined, after: value, elements: 0, pages: 0 });
    } else if (isSame(old, value)) same++;
    else if (!isOwn(old.place.path)) refused.push({ property, why: `${old.place.path} may not be written` });
    else {
      const text = model.sources.sheets.get(old.place.path) ?? '';
      push(edits, old.place.path, [valueEdit(text, old, value)]);
      const reach = reachOf(model, { kind: 'custom property', name: property }, () => false);
      changes.push({
        property,
        before: old.value,
        after: value,
        elements: reach.elements,
        pages: reach.pages.length,
      });
    }
  }
  if (fresh.length > 0) {
    const text = model.sources.sheets.get(shared.path) ?? '';
    const declarations = fresh.map(({ property, value }) => ({
      declaration: { property, value, important: false, range: { start: 0, end: 0 } },
      holder: shared.path,
    }));
    push(
      edits,
      shared.path,
      writeRules(text, shared, [{ selectors: [':root'], part: 'tokens', declarations }]),
    );
  }
  const meant = new Set(changes.map(({ property }) => property));
  const { differences } = prove(model, stateAfter(model, edits), { perPage: Number.POSITIVE_INFINITY });
  const said = new Set(tokens.map(({ property }) => property));
  return {
    edits,
    changes,
    same,
    unsaid: named.map(({ name }) => name).filter((name) => !said.has(name)),
    strays: differences.filter((one) => one.kind !== 'style' || !meant.has(one.property)),
    refused,
  };
}

function isSame({ kind, value }: NamedValue, other: string): boolean {
  if (value === other) return true;
  return kind !== undefined && valueForm(kind, value) === valueForm(kind, other);
}

/** The value alone: how the declaration is written stays. */
function valueEdit(text: string, { declaration: { range } }: NamedValue, value: string): Edit {
  const written = text.slice(range.start, range.end);
  const [, lead = '', , tail = ''] =
    /^([^:]*:\s*)([\s\S]*?)(\s*(?:!\s*important\s*)?;?\s*)$/i.exec(written) ?? [];
  return { start: range.start + lead.length, end: range.end - tail.length, text: value };
}
