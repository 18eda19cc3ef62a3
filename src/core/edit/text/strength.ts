// A selector made stronger without reaching further: its classes repeated, or the root of the page in front.

import { type ComplexSelector, compileSelector, ONE_CLASS, ONE_ID } from '../../cascade/index.js';

export interface Strengthened {
  readonly selector: string;
  readonly specificity: number;
}

/**
 * The least specific way of writing a selector that is at least as specific as asked, and picks out the same elements.
 * In: one complex selector; the specificity it must reach; ids that all of its elements stand in.
 * Out: `undefined` where no selector is strong enough without an id made for it.
 */
export function strengthen(
  text: string,
  needed: number,
  ids: readonly string[] = [],
): Strengthened | undefined {
  const own = compileSelector(text);
  if (own === undefined) return undefined;
  if (own.specificity >= needed) return { selector: text, specificity: own.specificity };
  const candidates: Strengthened[] = [];
  for (const id of [undefined, ...ids]) {
    const scoped = id === undefined ? text : `#${id} ${text}`;
    const start = own.specificity + (id === undefined ? 0 : ONE_ID);
    const missing = Math.max(0, Math.ceil((needed - start) / ONE_CLASS));
    if (missing > 12) continue;
    for (let classes = Math.max(0, missing - 1); classes <= missing; classes++) {
      const doubled = withClasses(scoped, own, classes);
      for (const types of [0, 1, 2]) {
        const selector = withRoot(doubled, own, types);
        const specificity = start + classes * ONE_CLASS + types;
        if (selector !== undefined && specificity >= needed) candidates.push({ selector, specificity });
      }
    }
  }
  return candidates.sort((a, b) => a.specificity - b.specificity || a.selector.length - b.selector.length)[0];
}

/** `.a` becomes `.a.a`; what has no class stands below `:root`, which is as specific as one. */
function withClasses(text: string, { compounds }: ComplexSelector, times: number): string {
  if (times === 0) return text;
  const name = compounds.findLast(({ classes }) => classes.length > 0)?.classes[0];
  if (name === undefined) return `${':root'.repeat(times)} ${text}`;
  const written = new RegExp(`\\.${name.replace(/[^\w-]/g, '\\$&')}(?![\\w-])`, 'g');
  const at = [...text.matchAll(written)].at(-1);
  if (at === undefined) return `${':root'.repeat(times)} ${text}`;
  const end = at.index + at[0].length;
  return `${text.slice(0, end)}${at[0].repeat(times)}${text.slice(end)}`;
}

/** In front of what stands inside the body anyway. */
function withRoot(text: string, { compounds }: ComplexSelector, types: number): string | undefined {
  if (types === 0) return text;
  const [first] = compounds;
  if (first!.type === 'html' || first!.type === 'body' || first!.rest.some(({ kind }) => kind === 'root'))
    return undefined;
  if (text.startsWith(':root')) return undefined;
  return types === 1 ? `body ${text}` : `html body ${text}`;
}
