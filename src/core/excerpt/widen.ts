// A change that was found on excerpts, made on the whole pages.

import { type Edit, type Edits, withoutClasses } from '../edits/index.js';
import type { Page } from '../markup/index.js';
import type { Proof } from '../proof/index.js';
import { ontoPage } from './cut.js';
import type { Copy, Excerpts } from './taker.js';

/** The pages of a site, each read when it is asked for. */
export interface WholePages {
  /** In order. */
  readonly paths: readonly string[];
  parse(path: string, text: string): Page;
  read(path: string): string | undefined;
  /** Compares the site with what edits of whole pages and sheets make of it. `onPage` hears how many are done. */
  prove(edits: Edits, onPage?: (done: number, of: number) => void): Promise<Proof>;
}

export interface Widened {
  /** On whole pages and sheets. */
  readonly edits: Edits;
  /** Pages whose excerpts did not hold what an edit touches. */
  readonly missed: readonly string[];
}

/** In: the pages; their excerpts; edits of excerpts and sheets; the classes that leave every tag of a page. */
export function widen(
  pages: WholePages,
  { cuts, copies }: Pick<Excerpts, 'cuts' | 'copies'>,
  edits: Edits,
  gone: (path: string) => ReadonlySet<string>,
): Widened {
  const all = new Map([...edits].filter(([path]) => !cuts.has(path)));
  const missed: string[] = [];
  const known = new Map<string, readonly Edit[] | undefined>();
  const editsOn = (path: string): readonly Edit[] | undefined => {
    if (!known.has(path)) known.set(path, ontoPage(cuts.get(path) ?? [], edits.get(path) ?? []));
    return known.get(path);
  };
  for (const path of pages.paths) {
    const own = editsOn(path);
    if (own === undefined) {
      missed.push(path);
      continue;
    }
    const like = (copies.get(path) ?? []).flatMap((copy) => copied(copy, editsOn(copy.like.path) ?? []));
    const done = new Set(own.map(({ start }) => start));
    const bare = withoutGone(pages, path, gone(path), cuts.get(path)).filter(({ start }) => !done.has(start));
    const together = [...own, ...like, ...bare];
    if (together.length > 0) all.set(path, together);
  }
  return { edits: all, missed };
}

/** What becomes of the tags that a tag is written like, on this one. In: the edits of their page. */
function copied({ start, endTag, like }: Copy, edits: readonly Edit[]): Edit[] {
  return [
    { tag: like.tag, at: start },
    { tag: like.endTag, at: endTag },
  ].flatMap(({ tag, at }) =>
    edits
      .filter((edit) => tag.start <= edit.start && edit.end <= tag.end && edit.start < tag.end)
      .map((edit) => ({
        start: edit.start - tag.start + at,
        end: edit.end - tag.start + at,
        text: edit.text,
      })),
  );
}

/** Classes off the tags that a page's excerpt does not hold, or the whole page where nothing stands for it. */
function withoutGone(
  pages: WholePages,
  path: string,
  gone: ReadonlySet<string>,
  cuts: readonly Edit[] | undefined,
): Edit[] {
  if (gone.size === 0) return [];
  const text = pages.read(path) ?? '';
  if (![...gone].some((name) => text.includes(name))) return [];
  return withoutClasses(
    pages.parse(path, text),
    gone,
    ({ start }) => cuts?.some((cut) => cut.start <= start && start < cut.end) ?? true,
  );
}
