// Styles that are nearly one, and elements that nearly wear one.

import { type Place, placeIn } from '../../base/source.js';
import type { SiteModel } from '../../cascade/index.js';
import { parseDeclarations } from '../../read/sheets/index.js';
import { declarationForm } from '../hold/index.js';

export interface StyleForms {
  readonly name: string;
  /** What it declares at every moment, in normal form. */
  readonly forms: ReadonlySet<string>;
}

export interface Likeness {
  readonly name: string;
  /** What this one declares and the other does not, and the other way round. */
  readonly own: readonly string[];
  readonly others: readonly string[];
}

export interface NearWearer {
  readonly elements: number;
  /** The first of them. */
  readonly place: Place;
  /** What the style declares and these do not. */
  readonly lacks: readonly string[];
}

/** Two styles are alike that have this much in common, and no more than this apart. */
const IN_COMMON = 2;
const APART = 2;

export function likeOnes(all: ReadonlyMap<string, StyleForms>): Map<string, Likeness[]> {
  const found = new Map<string, Likeness[]>();
  const styles = [...all.values()];
  for (const one of styles) {
    const like = styles.flatMap((other): Likeness[] => {
      if (other === one) return [];
      const own = [...one.forms].filter((form) => !other.forms.has(form));
      const others = [...other.forms].filter((form) => !one.forms.has(form));
      const common = one.forms.size - own.length;
      return common >= IN_COMMON && own.length + others.length <= APART
        ? [{ name: other.name, own, others }]
        : [];
    });
    if (like.length > 0) found.set(one.name, like);
  }
  return found;
}

/** Elements that declare for themselves what a style declares, or all of it but one. */
export function nearWearers(model: SiteModel, all: ReadonlyMap<string, StyleForms>): Map<string, NearWearer> {
  const found = new Map<string, { elements: number; place: Place; lacks: readonly string[] }>();
  const classes = [...all.values()].filter(({ name, forms }) => name.startsWith('.') && forms.size > 0);
  const known = new Map<string, ReadonlySet<string>>();
  for (const page of model.pages)
    for (const { style, classes: worn, tag } of page.elements) {
      if (style === undefined || tag === undefined) continue;
      const forms = known.get(style) ?? new Set(parseDeclarations(style).declarations.map(declarationForm));
      known.set(style, forms);
      const near = nearest(forms, classes, worn);
      if (near === undefined) continue;
      const own = found.get(near.name);
      if (own === undefined)
        found.set(near.name, {
          elements: 1,
          place: placeIn(page.path, page.text, tag.range.start),
          lacks: near.lacks,
        });
      else own.elements++;
    }
  return found;
}

function nearest(
  forms: ReadonlySet<string>,
  classes: readonly StyleForms[],
  worn: readonly string[],
): { name: string; lacks: readonly string[] } | undefined {
  let best: { name: string; lacks: readonly string[]; common: number } | undefined;
  for (const { name, forms: own } of classes) {
    if (worn.includes(name.slice(1))) continue;
    const lacks = [...own].filter((form) => !forms.has(form));
    const common = own.size - lacks.length;
    if (lacks.length > 1 || common < Math.min(IN_COMMON, own.size) || common <= (best?.common ?? 0)) continue;
    best = { name, lacks, common };
  }
  return best;
}
