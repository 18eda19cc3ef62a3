// What a proof can take back of a search, by name: a movable declaration out of its tag, and a rule on a selector that declares one movable declaration.

import type { StyledTag } from '../stock/index.js';

export function movableItem({ page, start }: StyledTag, key: string): string {
  return `unit ${page.path} ${start} ${key}`;
}

export function ruleItem(selector: string, key: string): string {
  return `rule ${selector} { ${key} }`;
}
