// What is known of a page without its elements: what it loads, how many there are, which names stand on it. A page of which
// that is remembered is parsed only when somebody looks into it.

import type { Page } from './page.js';

/** Read without parsing: every field of a page that is no list of its elements or texts. */
const PLAIN = [
  'kind',
  'bare',
  'quirks',
  'isMail',
  'base',
  'holdsEngineText',
  'isFilled',
  'showsParts',
  'showsUnnamed',
  'looseFrom',
  'wrapped',
  'inclusions',
  'hasTemplatedTags',
  'sheets',
  'scripts',
  'inertNames',
  'isEdited',
  'shadowRoots',
  'depth',
  'hasPolicy',
  'unread',
  'head',
] as const;

const LISTS = [
  'elements',
  'texts',
  'outdatedEnds',
  'contentEnds',
  'inert',
  'inertClasses',
  'inertBlocks',
  'defects',
] as const;

/** Plain data. */
export interface Outline extends Pick<Page, (typeof PLAIN)[number]> {
  /** Types, classes and ids of its elements. */
  readonly types: readonly string[];
  readonly classes: readonly string[];
  readonly ids: readonly string[];
  readonly count: number;
  /** The style attributes, each with its offset. */
  readonly styles: readonly (readonly [style: string, offset: number])[];
  /** Whether an element carries old attributes. */
  readonly hasHints: boolean;
}

/** Out: `undefined` for what an engine reads in, and for parts: what they hold is not all in the file. */
export function outlineOf(page: Page, hasHints: () => boolean): Outline | undefined {
  if (page.kind !== 'page' || page.holdsEngineText || page.hasTemplatedTags) return undefined;
  const [types, classes, ids] = [new Set<string>(), new Set<string>(), new Set<string>()];
  const styles: [string, number][] = [];
  for (const { name, id, classes: own, style, tag } of page.elements) {
    types.add(name);
    if (id !== undefined) ids.add(id);
    for (const one of own) classes.add(one);
    const range = tag?.attributes.get('style');
    if (style !== undefined && range !== undefined) styles.push([style, range.start]);
  }
  const plain = Object.fromEntries(PLAIN.map((name) => [name, page[name]])) as Pick<
    Page,
    (typeof PLAIN)[number]
  >;
  return {
    ...plain,
    types: [...types],
    classes: [...classes],
    ids: [...ids],
    count: page.elements.length,
    styles,
    hasHints: hasHints(),
  };
}

/** A page of which the outline is known: `parse` is called when somebody asks for more. */
export function outlinedPage(path: string, text: string, outline: Outline, parse: () => Page): Page {
  let whole: Page | undefined;
  const page: Record<string, unknown> = { path, text };
  for (const name of PLAIN) page[name] = outline[name];
  for (const name of LISTS)
    Object.defineProperty(page, name, {
      enumerable: true,
      get: () => {
        whole ??= parse();
        return whole[name];
      },
    });
  page.outline = {
    // As pages in quirks mode match them.
    names: new Set([
      ...outline.types.map((name) => name.toLowerCase()),
      ...outline.classes.map((name) => `.${name.toLowerCase()}`),
      ...outline.ids.map((name) => `#${name.toLowerCase()}`),
    ]),
    classes: outline.classes,
    count: outline.count,
    styles: outline.styles,
    hasHints: outline.hasHints,
  };
  return page as unknown as Page;
}

/** Names of elements, `.classes` and `#ids` on a page, in lower case; those that an engine may choose of too. */
export function namesOn({ outline, elements }: Page): ReadonlySet<string> {
  if (outline !== undefined) return outline.names;
  const names = new Set<string>();
  for (const { name, id, classes, engine } of elements) {
    names.add(name.toLowerCase());
    if (id !== undefined) names.add(`#${id.toLowerCase()}`);
    for (const one of [...classes, ...(engine?.mayHave ?? [])]) names.add(`.${one.toLowerCase()}`);
  }
  return names;
}
