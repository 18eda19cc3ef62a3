// What an element inherits, and from where.

import { ALWAYS, type StyleReader } from '../../cascade/index.js';
import { showElement } from '../../proof/index.js';
import { attributeOf } from '../../read/markup/index.js';
import { isInherited } from '../../read/sheets/index.js';
import { variablesIn } from '../../read/sheets/variables.js';
import { setByBrowser } from './browser-sheet.js';
import {
  type DescribedDeclaration,
  describeDeclaration,
  type ExplainContext,
} from './describe-declaration.js';
import { inCircumstances } from './groups.js';

export interface InheritedValue {
  readonly longhand: string;
  /** `body.home`. */
  readonly from: string;
  /** 1 for the parent. */
  readonly generations: number;
  /** What decides it there, strongest first. */
  readonly declarations: readonly DescribedDeclaration[];
}

/** Every inherited longhand that an ancestor sets and nothing nearer does; custom properties are left out. */
export function inheritedValues(context: ExplainContext): InheritedValue[] {
  const { reader, element } = context;
  const { elements } = reader.page;
  const settled = new Set(setByBrowser(elements[element]!.name, isLink(reader, element)));
  for (const [longhand, list] of reader.weighed(element).get('') ?? [])
    if (list.some(({ condition, value }) => condition === ALWAYS && !['inherit', 'unset'].includes(value)))
      settled.add(longhand);
  const found: InheritedValue[] = [];
  let generations = 1;
  for (let at = elements[element]!.parent; at >= 0; at = elements[at]!.parent, generations++) {
    const above: ExplainContext = { ...context, element: at };
    for (const [longhand, all] of reader.weighed(at).get('') ?? []) {
      if (!isInherited(longhand) || longhand.startsWith('--') || settled.has(longhand)) continue;
      const list = inCircumstances(all, above).filter(({ beatenBy }) => beatenBy === undefined);
      if (list.length === 0 || ['inherit', 'unset'].includes(list.at(-1)!.value)) continue;
      const declarations = list.map((one) => describeDeclaration(one, above));
      found.push({ longhand, from: showElement(elements[at]!), generations, declarations });
      if (list.some(({ condition }) => condition === ALWAYS)) settled.add(longhand);
    }
    for (const longhand of setByBrowser(elements[at]!.name, isLink(reader, at))) settled.add(longhand);
  }
  return found.sort((a, b) => a.generations - b.generations || (a.longhand < b.longhand ? -1 : 1));
}

function isLink({ page }: StyleReader, element: number): boolean {
  const { name, attributes } = page.elements[element]!;
  return name === 'a' && attributeOf(attributes, 'href') !== undefined;
}

export interface CustomSource {
  /** `--tide`. */
  readonly name: string;
  /** The element that sets it; `undefined` where nothing does. */
  readonly from: string | undefined;
  readonly declarations: readonly DescribedDeclaration[];
}

/** Where the custom properties come from that an element's declarations use, and those that these use. */
export function customSources(context: ExplainContext, values: readonly string[]): CustomSource[] {
  const { reader, element } = context;
  const { elements } = reader.page;
  const found = new Map<string, CustomSource>();
  const wanted = namesIn(values);
  for (let name = wanted.pop(); name !== undefined; name = wanted.pop()) {
    if (found.has(name)) continue;
    found.set(name, { name, from: undefined, declarations: [] });
    for (let at = element; at >= 0; at = elements[at]!.parent) {
      const above: ExplainContext = { ...context, element: at };
      const all = reader.weighed(at).get('')?.get(name) ?? [];
      const declarations = inCircumstances(all, above)
        .filter(({ beatenBy }) => beatenBy === undefined)
        .map((one) => describeDeclaration(one, above));
      if (declarations.length === 0) continue;
      found.set(name, { name, from: showElement(elements[at]!), declarations });
      wanted.push(...namesIn(declarations.map(({ value }) => value)));
      break;
    }
  }
  return [...found.values()].sort((a, b) => (a.name < b.name ? -1 : 1));
}

function namesIn(values: readonly string[]): string[] {
  return values.flatMap(variablesIn);
}
