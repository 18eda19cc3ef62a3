// Styles that one component alone uses stand in the style block of that component, where its house writes such blocks.

import type { SiteModel } from '../cascade/index.js';
import { type ComponentKind, componentKind, isComponentFile } from '../components/index.js';
import { ownBlockOf } from '../edits/index.js';
import type { Refusals } from '../proof/index.js';
import { type Decided, type NamedStyle, pagesOf } from '../search/index.js';

/** What the proof takes back of a component: its rules go to the shared sheet, as all others do. */
export function ownBlockItem(path: string): string {
  return `own block ${path}`;
}

/** Whether the block of a component holds one of these styles. */
export function isInOwnBlock({ styles }: Decided, path: string): boolean {
  return isComponentFile(path) && styles.some(({ page }) => page === path);
}

export class OwnBlocks {
  readonly #model: SiteModel;
  #housesWithBlocks: ReadonlySet<ComponentKind | undefined> | undefined;

  constructor(model: SiteModel) {
    this.#model = model;
  }

  /** In: styles with their names, and what the proof has refused. Out: each with the component that holds its rule, if one does. */
  placed({ styles, kept }: Decided, refused: Refusals<string>): Decided {
    return { styles: styles.map((style) => this.#placed(style, refused)), kept };
  }

  #placed(style: NamedStyle, refused: Refusals<string>): NamedStyle {
    const [first, ...others] = pagesOf(style.members.map(({ carrier }) => carrier));
    const page = style.members[0]?.carrier.page;
    if (first === undefined || page?.kind !== 'component') return style;
    const isOwn =
      others.length === 0 &&
      style.home.kind === 'new class' &&
      !refused.has(ownBlockItem(first)) &&
      this.#takesRules(first, page.text);
    return { ...style, page: isOwn ? first : undefined };
  }

  #takesRules(path: string, text: string): boolean {
    const own = ownBlockOf(path, text);
    return own === 'open' || (own === 'none' && this.#houses.has(componentKind(path)));
  }

  /** Frameworks whose components have blocks of their own on this site. */
  get #houses(): ReadonlySet<ComponentKind | undefined> {
    this.#housesWithBlocks ??= new Set(
      this.#model.pages
        .filter(({ kind, path, text }) => kind === 'component' && ownBlockOf(path, text) === 'open')
        .map(({ path }) => componentKind(path)),
    );
    return this.#housesWithBlocks;
  }
}
