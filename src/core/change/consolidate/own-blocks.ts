// Styles that few components use stand with these, where their house writes them so: in the style block of the only one, or in
// the module that all of them ask for classes.

import { getOrInsert } from '../../base/get-or-insert.js';
import type { SiteModel } from '../../cascade/index.js';
import { ownBlockOf } from '../../edit/text/index.js';
import type { Refusals } from '../../proof/index.js';
import { fromModuleClass, readComponent } from '../../read/components/index.js';
import { type ComponentKind, componentKind, isStyleSheet } from '../../read/kinds/index.js';
import type { Page } from '../../read/markup/index.js';
import { type Decided, type NamedStyle, pagesOf } from '../../search/index.js';

/** What the proof takes back of a component: its rules go to the shared sheet, as all others do. */
export function ownBlockItem(path: string): string {
  return `own block ${path}`;
}

/** Whether a component has the rules of one of these styles to itself. */
export function isInOwnBlock({ styles }: Decided, path: string): boolean {
  return styles.some(
    ({ page, members }) =>
      page !== undefined &&
      members.some(({ styledTag }) => styledTag.page.path === path && styledTag.page.kind === 'component'),
  );
}

/** A module, and by path of a component the name that its code has for it. */
interface Module {
  readonly sheet: string;
  readonly names: ReadonlyMap<string, string>;
}

export class OwnBlocks {
  readonly #model: SiteModel;
  #housesWithBlocks: ReadonlySet<ComponentKind | undefined> | undefined;

  constructor(model: SiteModel) {
    this.#model = model;
  }

  /** In: styles with their names, and what the proof has refused. Out: each with what holds its rule, if that is no sheet for all. */
  placed({ styles, kept }: Decided, refused: Refusals<string>): Decided {
    return { styles: styles.map((style) => this.#placed(style, refused)), kept };
  }

  #placed(style: NamedStyle, refused: Refusals<string>): NamedStyle {
    const paths = [...pagesOf(style.members.map(({ styledTag }) => styledTag))];
    const pages = new Map(style.members.map(({ styledTag: { page } }) => [page.path, page]));
    const known = style.home.kind === 'existing class' ? fromModuleClass(style.home.name) : undefined;
    if (known !== undefined)
      return {
        ...style,
        className: known.name,
        askedOf: this.#modulesOf([...pages.values()]).get(known.sheet),
      };
    if (style.home.kind !== 'new class' || [...pages.values()].some(({ kind }) => kind !== 'component'))
      return style;
    const plain = { ...style, page: undefined, askedOf: undefined };
    if (paths.some((path) => !pages.has(path) || refused.has(ownBlockItem(path)))) return plain;
    const module = this.#moduleOf([...pages.values()]);
    if (module !== undefined)
      return {
        ...style,
        page: module.sheet,
        askedOf: module.names,
        className: style.className && this.#spelled(style.className, module.sheet),
      };
    const [only, ...others] = pages.values();
    const isOwn = only !== undefined && others.length === 0 && this.#takesRules(only);
    return isOwn ? { ...plain, page: only.path } : plain;
  }

  /** The module that all of these components ask for classes, and that can be written into. */
  #moduleOf(pages: readonly Page[]): Module | undefined {
    for (const [sheet, names] of this.#modulesOf(pages)) {
      const text = this.#model.sources.sheets.get(sheet) ?? '';
      if (names.size === pages.length && isStyleSheet(sheet) && text.trim() !== '') return { sheet, names };
    }
    return undefined;
  }

  /** By module, and by path of a component, the name that the component's code has for it. */
  #modulesOf(pages: readonly Page[]): Map<string, Map<string, string>> {
    const found = new Map<string, Map<string, string>>();
    for (const { path, text } of pages)
      for (const [name, sheet] of readComponent(path, text)?.modules ?? [])
        getOrInsert(found, sheet, () => new Map<string, string>()).set(path, name);
    return found;
  }

  /** As code asks for most names, without quotes; with dashes where the module has names with dashes. */
  #spelled(name: string, sheet: string): string {
    if (/\.[\w-]*[a-z]-[a-z]/.test(this.#model.sources.sheets.get(sheet) ?? '')) return name;
    return name.replace(/-+([a-z\d])/gi, (_, letter: string) => letter.toUpperCase());
  }

  #takesRules({ path, text }: Page): boolean {
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
