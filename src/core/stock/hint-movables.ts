// Old attributes and outdated elements as movable declarations: what each says in CSS, and what forbids taking it away.

import { BoundedMap } from '../base/bounded.js';
import type { KeptReason } from '../base/reasons/index.js';
import { cellHints, type Hint, mayHaveHints, neutralFor, ownHints } from '../read/hints/index.js';
import { elementsOfTag, type Page, type PageElement } from '../read/markup/index.js';
import { type Declaration, longhands } from '../read/sheets/index.js';
import { declarationKey } from './movables.js';

import type { SiteScripts } from './site-scripts.js';
import type { MovableDeclaration, StyledTagOptions } from './styled-tag-model.js';

const PICTURES = new Set(['img', 'object', 'embed', 'video', 'iframe']);

interface HintGroup {
  readonly hints: readonly Hint[];
  readonly names: readonly string[];
  readonly movable: Omit<MovableDeclaration, 'objection'>;
}

const known = new BoundedMap<string, readonly HintGroup[]>(20_000);

/** In: an element of HTML. Out: one movable declaration for every old attribute, or group of them that depend on each other. */
export function hintMovables(
  page: Page,
  element: PageElement,
  scripts: SiteScripts,
  options: StyledTagOptions,
): readonly MovableDeclaration[] {
  if (!mayHaveHints(element)) return NO_UNITS;
  return groupsOf(page, element).map((group) => ({
    ...group.movable,
    objection: objectionTo(group, page, element, scripts, options),
  }));
}

const NO_UNITS: readonly MovableDeclaration[] = [];

/** The same few attributes stand on cell after cell, and each row of them is read once. */
function groupsOf(page: Page, element: PageElement): readonly HintGroup[] {
  // An address means something else in another folder.
  const holder = element.attributes.some(({ name }) => name === 'background') ? page.path : '';
  let key = `${element.name} ${page.quirks} ${holder}`;
  for (const { name, value } of element.attributes)
    if (name !== 'class' && name !== 'style' && name !== 'id') key += `\0${name}=${value}`;
  return known.get(key, () => readGroups(page, element));
}

function readGroups(page: Page, element: PageElement): HintGroup[] {
  const cells = element.name === 'table' ? cellHints(element) : [];
  return grouped(ownHints(page, element)).map((hints): HintGroup => {
    const names = hints.flatMap(({ attribute }) => attribute ?? []);
    const declarations = hints.flatMap((hint) => written(hint));
    const inCells = cells.filter(({ attribute }) => names.includes(attribute!)).flatMap(written);
    const keyOf = (one: Declaration): string => declarationKey(one, page.path);
    const own = declarations.map(keyOf).join('; ');
    return {
      hints,
      names,
      movable: {
        key: inCells.length === 0 ? own : `${own} cells ${inCells.map(keyOf).join('; ')}`,
        declarations,
        holder: page.path,
        ...(inCells.length === 0 ? {} : { cells: inCells }),
        from: names.length === 0 ? { kind: 'name' } : { kind: 'attributes', names },
      },
    };
  });
}

/** Hints that set a longhand in common, or depend on each other, in one group. */
function grouped(hints: readonly Hint[]): Hint[][] {
  const groups: { hints: Hint[]; slots: Set<string> }[] = [];
  for (const hint of hints) {
    const slots = new Set((hint.declarations ?? []).flatMap(({ property }) => longhands(property).set));
    if (hint.group !== undefined) slots.add(`together ${hint.group}`);
    const known = groups.find((group) => [...slots].some((slot) => group.slots.has(slot)));
    if (known === undefined) groups.push({ hints: [hint], slots });
    else {
      known.hints.push(hint);
      for (const slot of slots) known.slots.add(slot);
    }
  }
  return groups.map((group) => group.hints);
}

function written({ declarations }: Hint): Declaration[] {
  return (declarations ?? []).map((one) => ({ ...one, important: false, range: { start: 0, end: 0 } }));
}

function objectionTo(
  { hints, names }: HintGroup,
  page: Page,
  element: PageElement,
  scripts: SiteScripts,
  { pictureSizes }: StyledTagOptions,
): KeptReason | undefined {
  const inexact = hints.find(({ declarations }) => declarations === undefined);
  if (inexact !== undefined) return { kind: 'no exact CSS', attribute: inexact.attribute ?? element.name };
  if (pictureSizes === 'keep' && PICTURES.has(element.name) && names.some((name) => SIZES.has(name)))
    return { kind: 'reserves space' };
  for (const name of names) {
    const script = scripts.attributeObjection(page, element, name);
    if (script !== undefined) return script;
  }
  return names.length === 0 ? nameObjection(page, element, scripts) : undefined;
}

const SIZES = new Set(['width', 'height']);

function nameObjection(page: Page, element: PageElement, scripts: SiteScripts): KeptReason | undefined {
  if (page.quirks) return { kind: 'no exact CSS', attribute: `<${element.name}> in quirks mode` };
  if (!page.outdatedEnds.has(element.index) || elementsOfTag(page, element.tag).length !== 1)
    return { kind: 'no tag of its own' };
  if (scripts.mentions(page, element.name)) return { kind: 'named by a script', name: element.name };
  // What it would become may be picked out by a script, too.
  const neutral = neutralFor(element.name);
  if (neutral !== undefined && scripts.picks(page, neutral))
    return { kind: 'named by a script', name: neutral };
  return undefined;
}
