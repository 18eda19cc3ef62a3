// Custom properties that hold an address. It resolves where the property is used, not where it is set: a declaration that uses one
// means another file in another folder.

import { holdsAddress } from '../base/addresses.js';
import { getOrInsert } from '../base/get-or-insert.js';
import type { Program, SiteModel } from '../cascade/index.js';
import { parseDeclarations } from '../read/sheets/index.js';

const known = new WeakMap<SiteModel, ReadonlySet<string>>();

/** Their names, wherever the site sets them. */
export function addressVariables(model: SiteModel): ReadonlySet<string> {
  return getOrInsert(known, model, () => {
    const found = new Set<string>();
    const programs = new Set<Program>();
    const note = ({ property, value }: { readonly property: string; readonly value: string }): void => {
      if (property.startsWith('--') && holdsAddress(value)) found.add(property);
    };
    for (const page of model.pages) {
      for (const { uses } of model.sheetOrdersOf(page)) for (const { program } of uses) programs.add(program);
      if (!holdsAddress(page.text) || !page.text.includes('--')) continue;
      for (const { style } of page.elements)
        if (style !== undefined && holdsAddress(style)) parseDeclarations(style).declarations.forEach(note);
    }
    for (const { sheet } of programs)
      if (holdsAddress(sheet.text) && sheet.text.includes('--'))
        for (const { declarations } of sheet.rules) declarations.forEach(note);
    return found;
  });
}
