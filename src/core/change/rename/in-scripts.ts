// A class in scripts: where it is certainly one, and where it may be one, or may be put together.

import { type Place, placeIn } from '../../base/source.js';
import type { Edit } from '../../edit/text/index.js';
import { classMentions, piecesOf, propertiesNamed } from '../../read/scripts/index.js';
import type { RenameInput, UnsurePlace } from './input.js';

export interface InScripts {
  readonly edits: readonly (Edit & { readonly path: string })[];
  readonly unsure: readonly UnsurePlace[];
  /** Where a script names the new name already. */
  readonly taken: readonly Place[];
}

interface ScriptIn {
  readonly path: string;
  readonly text: string;
  /** Where it begins in the file, and the file's text. */
  readonly offset: number;
  readonly whole: string;
  readonly editable: boolean;
}

export function nameInScripts(input: RenameInput): InScripts {
  const { from, to, merge } = input;
  const edits: (Edit & { path: string })[] = [];
  const unsure: UnsurePlace[] = [];
  const taken: Place[] = [];
  for (const { path, text, offset, whole, editable } of scriptsOf(input)) {
    const placeOf = (start: number): Place => placeIn(path, whole, offset + start);
    const doubt = (start: number, canEdit: boolean): void => {
      unsure.push({ place: placeOf(start), what: lineAt(text, start), editable: canEdit });
    };
    const seen = new Set<number>();
    for (const { name, start, end, how } of classMentions(text)) {
      if (name === to && how !== 'string') taken.push(placeOf(start));
      // What tells two classes apart will not, once they are one.
      if (merge && (name === from || name === to) && how !== 'string') doubt(start, false);
      if (name !== from) continue;
      seen.add(start);
      const sure = how !== 'string' && editable;
      if (!sure) doubt(start, editable);
      if (editable && (sure || input.unsure))
        edits.push({ path, start: offset + start, end: offset + end, text: to });
    }
    if (!editable) continue;
    // What is put together from parts, or read as a property, is found by a person, not renamed by a part.
    for (const { start } of [...piecesOf(text, from), ...propertiesNamed(text, from)])
      if (!seen.has(start)) doubt(start, false);
  }
  return { edits, unsure, taken };
}

function scriptsOf({ model, scripts, isLibrary }: RenameInput): ScriptIn[] {
  const found: ScriptIn[] = [...scripts].map(([path, text]) => ({
    path,
    text,
    offset: 0,
    whole: text,
    editable: !isLibrary(path),
  }));
  for (const page of model.pages)
    for (const script of page.scripts)
      if (script.kind === 'inline')
        found.push({
          path: page.path,
          text: script.text,
          offset: script.offset,
          whole: page.text,
          // What a handler's attribute holds may be written with references: it is listed, and left to a person.
          editable: script.how === 'script',
        });
  return found;
}

export function lineAt(text: string, at: number): string {
  const start = text.lastIndexOf('\n', at) + 1;
  const end = text.indexOf('\n', at);
  return text
    .slice(start, end < 0 ? undefined : end)
    .trim()
    .slice(0, 70);
}
