// A change that was found on excerpts, made on the whole pages.

import type { SourceRange } from '../../base/source.js';
import { type Edit, type Edits, withoutClasses } from '../../edit/text/index.js';
import type { Proof } from '../../proof/index.js';
import type { Page } from '../../read/markup/index.js';
import { ontoPage } from './cut.js';
import { blocksAs } from './front.js';
import { inOtherTag } from './tag-form.js';
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

/** What a change does to pages beside edits of their tags. */
export interface Besides {
  /** Classes that leave every tag of a page. */
  readonly gone: (path: string) => ReadonlySet<string>;
  /**
   * How a page of which nothing was kept would link a sheet, where it is to. In: the pages as whose tags its own change; one that
   * is shown by the same sheets. The head of the page is asked for.
   */
  readonly linkOf: (
    from: ReadonlySet<string>,
    like: string,
  ) => ((head: Page) => Edit | undefined) | undefined;
}

/** In: the pages; their excerpts; edits of excerpts and sheets; what else is done. */
export function widen(
  pages: WholePages,
  { cuts, copies, leftOut }: Pick<Excerpts, 'cuts' | 'copies' | 'leftOut'>,
  edits: Edits,
  { gone, linkOf }: Besides,
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
    const changed = (copies.get(path) ?? []).flatMap((copy): MayBeChanged[] => {
      const made = copied(copy, editsOn(copy.like.path) ?? []);
      return made?.length === 0 ? [] : [{ from: copy.like.path, made }];
    });
    if (!changed.every(isMade)) {
      missed.push(path);
      continue;
    }
    const out = leftOut.get(path);
    const blocks = out === undefined ? [] : blocksAs(out, editsOn(out.like) ?? []);
    const like = [...changed.flatMap(({ made }) => made), ...blocks];
    const from = new Set(changed.map((one) => one.from));
    if (out !== undefined && blocks.length > 0) from.add(out.like);
    const linkOn = out && linkOf(from, out.like);
    // The head alone: what is read of it does not depend on what follows.
    const head = (): Page => pages.parse(path, (pages.read(path) ?? '').slice(0, out?.body));
    const link = linkOn?.(head());
    // A tag that changes as another one loses the classes that this one loses.
    const bare = apartFrom([...own, ...like], withoutGone(pages, path, gone(path), cuts.get(path)));
    const together = [...(link === undefined ? [] : [link]), ...own, ...like, ...bare];
    if (together.length > 0) all.set(path, together);
  }
  return { edits: all, missed };
}

/** Of these edits those that touch none of the others. */
function apartFrom(others: readonly Edit[], edits: readonly Edit[]): Edit[] {
  const inOrder = [...others].sort((a, b) => a.start - b.start);
  let at = 0;
  return [...edits]
    .sort((a, b) => a.start - b.start)
    .filter(({ start, end }) => {
      while (at < inOrder.length && inOrder[at]!.start < start && inOrder[at]!.end <= start) at++;
      const next = inOrder[at];
      return next === undefined || (next.start !== start && next.start >= end);
    });
}

interface MayBeChanged {
  /** The page that holds the tag which this one is like. */
  readonly from: string;
  readonly made: readonly Edit[] | undefined;
}

function isMade(one: MayBeChanged): one is MayBeChanged & { readonly made: readonly Edit[] } {
  return one.made !== undefined;
}

/**
 * What becomes of the tags whose form a tag has, on this one. In: the edits of their page. Out: `undefined` where one reaches
 * into what tells them apart.
 */
function copied({ start, endTag, free, like }: Copy, edits: readonly Edit[]): Edit[] | undefined {
  const found: Edit[] = [];
  for (const edit of editsIn(like.tag, edits)) {
    const from = inOtherTag(edit.start - like.tag.start, like.free, free);
    const to = inOtherTag(edit.end - like.tag.start, like.free, free);
    if (from === undefined || to === undefined || to - from !== edit.end - edit.start) return undefined;
    found.push({ start: from + start, end: to + start, text: edit.text });
  }
  const shift = endTag - like.endTag.start;
  for (const edit of editsIn(like.endTag, edits))
    found.push({ start: edit.start + shift, end: edit.end + shift, text: edit.text });
  return found;
}

function editsIn(tag: SourceRange, edits: readonly Edit[]): Edit[] {
  return edits.filter((edit) => tag.start <= edit.start && edit.end <= tag.end && edit.start < tag.end);
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
