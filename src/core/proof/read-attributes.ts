// What a sheet reads out of the markup: `content: attr(class)` shows the attribute, whoever changed it for whatever reason.

import type { Program, SheetOrder, StyleReader } from '../cascade/index.js';
import { attributeOf } from '../read/markup/index.js';
import { withoutEscapes } from '../read/sheets/escapes.js';
import { type Difference, placeOf, type ShownOutcome, showElement, shownOutcomes } from './describe.js';

const READS = /\battr\(\s*([\w-]+)/gi;

/** The attributes that a text of CSS reads, lower case; any of its letters may be written as an escape. */
function readIn(css: string): string[] {
  return [...withoutEscapes(css).matchAll(READS)].map(([, name]) => name!.toLowerCase());
}

const namesOf = new WeakMap<Program, readonly string[]>();

/** The attributes that sheets of a page read, lower case. */
export function attributesRead({ uses }: SheetOrder): Set<string> {
  const found = new Set<string>();
  for (const { program } of uses) {
    let names = namesOf.get(program);
    if (names === undefined) {
      names = readIn(program.sheet.text);
      namesOf.set(program, names);
    }
    for (const name of names) found.add(name);
  }
  return found;
}

/** What an element shows of its attributes by a rule, and would show otherwise in the other state. */
export function readOtherwise(
  names: ReadonlySet<string>,
  [before, i]: readonly [StyleReader, number],
  [after, j]: readonly [StyleReader, number],
): Difference[] {
  const [a, b] = [before.page.elements[i]!, after.page.elements[j]!];
  const found: Difference[] = [];
  for (const name of names) {
    const [then, now] = [attributeOf(a.attributes, name), attributeOf(b.attributes, name)];
    if (then === now) continue;
    const read = readBy(before, i, name) ?? readBy(after, j, name);
    if (read === undefined) continue;
    const { target, property, shown } = read;
    const as = (text: string | undefined): ShownOutcome[] => [
      {
        ...shown,
        value: `${shown.value}, where ${name} is ${text === undefined ? 'not there' : `"${text}"`}`,
      },
    ];
    found.push({
      kind: 'style',
      page: after.page.path,
      place: placeOf(after.page, b),
      element: j,
      shown: showElement(b),
      ...{ target, property, before: as(then), after: as(now) },
    });
  }
  return found;
}

interface Read {
  readonly target: string;
  readonly property: string;
  readonly shown: ShownOutcome;
}

/** The first declaration on the element that reads an attribute. */
function readBy(reader: StyleReader, element: number, name: string): Read | undefined {
  for (const [target, outcomes] of reader.outcomes(element))
    for (const [property, list] of outcomes)
      for (const outcome of list)
        if (readIn(outcome.entry.declaration.value).includes(name))
          return { target, property, shown: shownOutcomes(reader, element, [outcome])[0]! };
  return undefined;
}
