// Where a declaration that wins anyway may take importance without a change: nothing that importance would stop or beat
// (an animation, a style that a script sets) has a say in it there. CSS Cascade 5 §6.2.

import type { SiteModel } from '../../cascade/index.js';
import type { Page } from '../../markup/index.js';
import { type Difference, type Judge, PROVE, type ShownOutcome } from '../../proof/index.js';

/** Like the proof, but for importance that is not seen. */
export const UNSEEN: Judge = (before, after) => {
  const proof = PROVE(before, after);
  return { ...proof, differences: proof.differences.filter((one) => !isUnseen(after, one)) };
};

function isUnseen(after: SiteModel, difference: Difference): boolean {
  if (difference.kind !== 'style' || plain(difference.before) !== plain(difference.after)) return false;
  const page = after.page(difference.page);
  return page !== undefined && after.stacksOf(page).length > 0 && isStill(after, page, difference.property);
}

/** The lists without their importance. Where it only hid what is weaker, the first of both are the same. */
function plain(list: readonly ShownOutcome[]): string {
  return list.map(({ value, condition }) => `${value.replace(/ !important$/, '')}?${condition}`).join('|');
}

const STYLING = /\.style\b|\bcssText\b|\.(css|animate|fadeIn|fadeOut|slideUp|slideDown)\s*\(/;

function isStill(model: SiteModel, page: Page, property: string): boolean {
  const moving = model
    .stacksOf(page)
    .some(({ uses }) =>
      uses.some(({ program }) =>
        program.sheet.definitions.some((text) => /keyframes/i.test(text) && text.includes(property)),
      ),
    );
  return !moving && model.scriptsIn(page).every(({ text }) => !STYLING.test(text));
}
