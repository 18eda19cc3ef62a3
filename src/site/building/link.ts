// A sheet that is new to built pages is linked where their sources link others.

import { resolveAddress } from '../../core/base/addresses.js';
import type { CarriedOver, MarkedTag } from '../../core/edit/sources/index.js';
import { type Edit, type Edits, lineFor, push } from '../../core/edit/text/index.js';
import type { Page } from '../../core/read/markup/index.js';
import type { Site } from '../rendering/load.js';
import type { BuiltSite } from './build.js';

/** In: the edits of sources, and the pages that lack the sheet. Out: the edits with the links among them. */
export function linkIn(built: BuiltSite, site: Site, { edits, unlinked }: CarriedOver): Edits {
  if (unlinked.length === 0) return edits;
  const all = new Map<string, Edit[]>([...edits].map(([file, own]) => [file, [...own]]));
  const done = new Set<number>();
  for (const file of unlinked) {
    const page = site.model.page(file);
    const found = page && linkFor(built, page, site.shared, site.config.link);
    if (found === undefined || done.has(found.number)) continue;
    done.add(found.number);
    push(all, found.path, [found.edit]);
  }
  return all;
}

interface LinkEdit {
  readonly number: number;
  readonly path: string;
  readonly edit: Edit;
}

function linkFor(
  { sourcePlaces }: BuiltSite,
  page: Page,
  shared: string,
  line: string | undefined,
): LinkEdit | undefined {
  const links = page.sheets.filter((one) => one.kind === 'link');
  for (const link of links.reverse()) {
    const element = page.elements[link.element];
    const sourcePlace = element?.tag && sourcePlaces.of(page, element.tag);
    if (sourcePlace === undefined) continue;
    const text = sourcePlaces.data.sources.get(sourcePlace.tag.path) ?? '';
    const resolved = resolveAddress(link.address, page.path);
    const made =
      line === undefined
        ? likeThat(text, sourcePlace.tag, resolved.kind === 'site' ? resolved.path : undefined, shared)
        : lineFor(line, shared);
    if (made === undefined) continue;
    const indent = /(?:\r\n|\n|\r)[ \t]*$/.exec(text.slice(0, sourcePlace.tag.range.start))?.[0] ?? '\n';
    const at = sourcePlace.tag.range.end;
    return {
      number: sourcePlace.number,
      path: sourcePlace.tag.path,
      edit: { start: at, end: at, text: indent + made },
    };
  }
  const head = page.elements.find(({ name }) => name === 'head');
  const sourcePlace = head?.tag && sourcePlaces.of(page, head.tag);
  if (sourcePlace === undefined) return undefined;
  const text = sourcePlaces.data.sources.get(sourcePlace.tag.path) ?? '';
  const end = /[ \t]*<\/head/i.exec(text.slice(sourcePlace.tag.range.end));
  if (end === null) return undefined;
  const at = sourcePlace.tag.range.end + end.index;
  const indent = /[ \t]*$/.exec(text.slice(0, text.indexOf('<', at)))?.[0] ?? '';
  const made = lineFor(line ?? '<link rel="stylesheet" href="/{path}">', shared);
  return {
    number: sourcePlace.number,
    path: sourcePlace.tag.path,
    edit: { start: at, end: at, text: `${indent}  ${made}\n` },
  };
}

/** A tag that links a sheet, made one that links another: what of the path it writes out is written anew. */
function likeThat(text: string, tag: MarkedTag, from: string | undefined, to: string): string | undefined {
  const written = text.slice(tag.range.start, tag.range.end);
  const parts = from?.split('/') ?? [];
  for (let at = 0; at < parts.length; at++) {
    const root = parts
      .slice(0, at)
      .map((part) => `${part}/`)
      .join('');
    const shown = parts.slice(at).join('/');
    if (written.includes(shown) && to.startsWith(root))
      return written.replace(shown, () => to.slice(root.length));
  }
  return undefined;
}
