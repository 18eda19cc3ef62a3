// Classes in place of ids: onto the tags, and into the selectors.

import { groupBy } from '../../base/group-by.js';
import type { SiteModel } from '../../cascade/index.js';
import { classSelectors, type NamedIdClass } from '../../search/index.js';
import { editTag } from './attributes.js';
import type { Edit } from './edit.js';
import { push, selectorEdit } from './plan.js';
import type { Edits } from './state.js';

export function planIdClasses(model: SiteModel, classes: readonly NamedIdClass[]): Edits {
  const edits = new Map<string, Edit[]>();
  const worn = classes.flatMap(({ name, tags }) => tags.map((one) => ({ ...one, name })));
  for (const own of groupBy(worn, ({ element }) => element.tag).values()) {
    const { page, element } = own[0]!;
    const styledTag = {
      page,
      element,
      tag: element.tag,
      start: 0,
      style: undefined,
      movables: [],
      also: [],
      share: 1,
    };
    const names = [...new Set(own.map(({ name }) => name))];
    push(edits, page.path, editTag(styledTag, [], names) ?? []);
  }
  for (const { form, name, rules } of classes)
    for (const own of rules) {
      const text = model.sources.sheets.get(own.sheet!) ?? '';
      push(edits, own.sheet!, [selectorEdit(text, 0, own.rule, classSelectors(own, form, name))]);
    }
  return edits;
}
