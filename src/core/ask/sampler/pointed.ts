// States that a rule asks for, and which element has to be in one so that an example shows it.

import { type Compound, type ProgramRule, subtreeEnd } from '../../cascade/index.js';
import type { PageElement } from '../../read/markup/index.js';
import type { Chosen } from './choose.js';

/** States that a person brings about, and that can be shown beside what is at rest. */
export const SHOWN_STATES = ['hover', 'focus', 'focus-visible', 'active'] as const;
export type ShownState = (typeof SHOWN_STATES)[number];

/** An element in a state: the one that is shown, or one in it. */
export interface Pointed {
  /** Its index. */
  readonly element: number;
  readonly state: ShownState;
}

/** A state that a rule asks for: of what has a name, or of something in it. */
export interface AskedState {
  readonly state: string;
  readonly of: Compound | undefined;
}

/** What has a name is in a state, stands in what is pointed at or pressed, or holds what is. */
export function* statesOf({
  selector: { compounds, combinators },
}: ProgramRule): Generator<[string, AskedState]> {
  for (const [at, compound] of compounds.entries()) {
    for (const one of compound.rest) {
      const state = one.kind === 'state' ? /^:([\w-]+)$/.exec(one.text)?.[1]?.toLowerCase() : undefined;
      if (state === undefined) continue;
      const isHeld = combinators.every((own) => own === ' ' || own === '>');
      for (const [other, { classes, type }] of compounds.entries()) {
        const names =
          classes.length === 0 && compounds.length === 1 ? [type ?? ''] : classes.map((name) => `.${name}`);
        for (const name of names) {
          if (other === at) yield [name, { state, of: undefined }];
          else if (other < at && isHeld) yield [name, { state, of: compound }];
          else if (isHeld && ['hover', 'active'].includes(state)) yield [name, { state, of: undefined }];
        }
      }
    }
  }
}

/** Each state once, of the example itself before what it holds. */
export function pointedIn({ page, element }: Chosen, asked: Iterable<AskedState>): Pointed[] {
  const all = [...asked];
  const end = subtreeEnd(page.elements, page.elements[element]!);
  return SHOWN_STATES.flatMap((state) => {
    const own = all.filter((one) => one.state === state);
    if (own.some(({ of }) => of === undefined)) return [{ element, state }];
    const within = page.elements
      .slice(element + 1, end)
      .find((one) => own.some(({ of }) => of !== undefined && isLike(one, of)));
    return within === undefined ? [] : [{ element: within.index, state }];
  });
}

function isLike(element: PageElement, { type, id, classes }: Compound): boolean {
  return (
    (type === undefined || type === element.name) &&
    (id === undefined || id === element.id) &&
    classes.every((name) => element.classes.includes(name))
  );
}
