// Where a declaration that wins anyway may take importance without a change: nothing that importance would stop or beat
// (an animation, a style that a script sets) affects it there. CSS Cascade 5 §6.2.

import { eachMoment, type SiteModel, undefeatedFor, type Weighed } from '../../cascade/index.js';
import { type Difference, type Judge, PROVE } from '../../proof/index.js';
import type { Page } from '../../read/markup/index.js';

/** Like the proof, but for importance that is not seen. In: states whose pages have the same elements. */
export const UNSEEN: Judge = (before, after) => {
  const proof = PROVE(before, after);
  return { ...proof, differences: proof.differences.filter((one) => !isUnseen(before, after, one)) };
};

function isUnseen(before: SiteModel, after: SiteModel, difference: Difference): boolean {
  if (difference.kind !== 'style') return false;
  const { page: path, element, target, property } = difference;
  // No property by itself differs, but which of two that stand for each other comes last (`all` beside others).
  if (difference.before.length + difference.after.length === 0) return false;
  const [page, later] = [before.page(path), after.page(path)];
  if (page === undefined || later === undefined || !isStill(after, later, property)) return false;
  const [was, is] = [before.readersOf(page), after.readersOf(later)];
  return (
    was.length === is.length &&
    was.every((reader, at) => {
      const lists = [reader, is[at]!].map((one) =>
        undefeatedFor(one.weighed(element).get(target), property, one.table.truths),
      ) as [Weighed[], Weighed[]];
      return isAlways(before, lists);
    })
  );
}

/** Whether both lists come to one value at every moment. */
function isAlways(
  { table: { truths } }: SiteModel,
  [first, second]: readonly [Weighed[], Weighed[]],
): boolean {
  const conditions = [...first, ...second].map(({ condition }) => condition);
  const looks = eachMoment(truths, conditions, (holds) => {
    const [a, b] = [first, second].map((list) => list.find(({ condition }) => holds(condition)));
    return a?.value === b?.value && a?.entry.longhand === b?.entry.longhand;
  });
  return looks?.every(Boolean) ?? false;
}

const STYLING = /\.style\b|\bcssText\b|\.(css|animate|fadeIn|fadeOut|slideUp|slideDown)\s*\(/;

function isStill(model: SiteModel, page: Page, property: string): boolean {
  const moving = model
    .sheetOrdersOf(page)
    .some(({ uses }) =>
      uses.some(({ program }) =>
        program.sheet.definitions.some(
          (text) => text.toLowerCase().includes('keyframes') && text.includes(property),
        ),
      ),
    );
  return !moving && model.scriptsIn(page).every(({ text }) => !STYLING.test(text));
}
