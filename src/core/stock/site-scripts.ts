// The scripts of a site as its pages use them: which declarations of which elements a script might clear or read.

import { fileAt } from '../base/addresses.js';
import { hasOneOf } from '../base/characters.js';
import { getOrInsert } from '../base/get-or-insert.js';
import type { KeptReason } from '../base/reasons/index.js';
import { type Place, placeIn } from '../base/source.js';
import { isMeant, ScriptStates, type ScriptText } from '../cascade/index.js';
import { namesKept, type Page, type PageElement } from '../read/markup/index.js';
import {
  attributeWord,
  CLASS_WRITTEN,
  importedFiles,
  isBuiltOf,
  readingsOnPage,
  type ScriptReading,
  STYLE_ASKED,
  scriptReading,
} from '../read/scripts/index.js';
import { touches } from '../read/sheets/touches.js';

/** Elements that scripts make: names of elements, and the words that may be their classes. */
export interface MadeElements {
  readonly tags: ReadonlySet<string>;
  readonly words: ReadonlySet<string>;
}

interface UsedScript {
  readonly reading: ScriptReading;
  readonly isLibrary: boolean;
  /** Of a file; `undefined` for a script in the page. */
  readonly path: string | undefined;
  place(offset: number): Place;
}

export class SiteScripts {
  readonly #texts: ReadonlyMap<string, ScriptText>;
  readonly #states = new Map<string, ScriptStates>();
  readonly #byPage = new Map<string, UsedScript[]>();
  #shown: readonly UsedScript[] | undefined;
  readonly #unread = new Set<string>();
  readonly #copyOf: (address: string) => string | undefined;
  readonly #showing: () => readonly Page[];

  /**
   * In: the site's local scripts, by path; the file that is meant by an address, where that is known; the pages that show
   * components, whose scripts run on these.
   */
  constructor(
    texts: ReadonlyMap<string, ScriptText>,
    copyOf: (address: string) => string | undefined = () => undefined,
    showing: () => readonly Page[] = () => [],
  ) {
    this.#texts = texts;
    this.#copyOf = copyOf;
    this.#showing = showing;
  }

  /** Addresses of scripts that could not be read: on another host, or missing. Complete once all pages were asked for. */
  get unread(): ReadonlySet<string> {
    return this.#unread;
  }

  /** What the site's own scripts make on pages. A library makes what it is for where it is called. */
  madeOn(pages: readonly Page[]): MadeElements {
    const tags = new Set<string>();
    const words = new Set<string>();
    for (const page of pages) {
      // What people write or paste may be anything, and what stands in a `<template>` is copied by any script.
      if (page.isEdited) tags.add('*');
      if (page.scripts.length > 0)
        for (const name of page.inertNames)
          if (hasOneOf(name[0]!, '.#')) words.add(name.slice(1));
          else tags.add(name);
      for (const { reading, isLibrary } of this.#of(page)) {
        if (isLibrary || reading.made.size === 0) continue;
        for (const tag of reading.made) tags.add(tag);
        for (const word of reading.words) words.add(word);
      }
    }
    return { tags, words };
  }

  /** Whether the site's own scripts put elements in, or move them, on a page. */
  movesOn(page: Page): boolean {
    return this.#of(page).some(
      ({ reading, isLibrary }) => !isLibrary && reading.doings.some(({ kind }) => kind === 'elements'),
    );
  }

  /** Every word in a string of the page's scripts: what they may mean by it is not known. */
  mentions(page: Page, word: string): boolean {
    return this.#of(page).some(({ reading }) => reading.words.has(word));
  }

  /** Whether a word stands in a string of the site's own scripts: a library's `span` is not one of the page's. */
  picks(page: Page, word: string): boolean {
    return this.#of(page).some(({ reading, isLibrary }) => !isLibrary && reading.words.has(word));
  }

  /**
   * Why a script forbids moving a declaration of `property` off this element, if one does.
   * A script of the site may reach any element: what it clears or reads by name counts for the whole page. A library
   * acts where the markup calls it: it counts for elements whose id or class it names.
   */
  objection(page: Page, element: PageElement, property: string): KeptReason | undefined {
    for (const script of this.#of(page)) {
      const named = isNamed(element, script);
      if (!script.reading.readable) {
        if (named || (!script.isLibrary && property === 'display'))
          return { kind: 'script not read', place: script.place(0) };
        continue;
      }
      for (const touch of script.reading.touches) {
        if (touch.property === STYLE_ASKED) {
          if (script.isLibrary) continue;
          return { kind: 'script touches its style', place: script.place(touch.offset) };
        }
        const meant = touches(touch.property, property);
        if (
          touch.property === '*' || touch.property === CLASS_WRITTEN
            ? named || (!script.isLibrary && isMeant(element, touch.target, this.#statesOf(page)))
            : meant && (named || !script.isLibrary || property === 'display')
        ) {
          return touchedBy(touch.property, script.place(touch.offset));
        }
      }
    }
    return undefined;
  }

  /** Why a script forbids taking an old attribute off this element, if one does. */
  attributeObjection(page: Page, element: PageElement, attribute: string): KeptReason | undefined {
    const word = attributeWord(attribute);
    const script = this.#of(page).find(
      ({ reading, isLibrary }) =>
        reading.words.has(word) &&
        (!isLibrary ||
          (element.id !== undefined && reading.words.has(element.id)) ||
          element.classes.some((name) => reading.words.has(name))),
    );
    return (
      script && { kind: 'script touches', place: script.place(0), property: `the attribute ${attribute}` }
    );
  }

  #of(page: Page): UsedScript[] {
    const known = this.#byPage.get(page.path);
    if (known !== undefined) return known;
    let areAll = true;
    const used: UsedScript[] = page.kind === 'component' ? [...this.#ofShowing()] : [];
    for (const reference of page.scripts) {
      if (reference.kind === 'inline') {
        const reading = scriptReading(reference.text);
        const { path, text } = reference.broughtBy ?? page;
        used.push({
          reading,
          isLibrary: false,
          path: undefined,
          place: (offset) => placeIn(path, text, reference.offset + offset),
        });
        continue;
      }
      const file = fileAt(reference.address, page.path, this.#copyOf);
      const script = file === undefined ? undefined : this.#texts.get(file);
      if (file === undefined || script === undefined) {
        this.#unread.add(reference.address);
        areAll = false;
        continue;
      }
      used.push(usedScript(file, script));
    }
    const imports = used.flatMap(({ reading, path }) =>
      importedFiles(reading.imports, path ?? page.path, (file) => {
        const script = this.#texts.get(file);
        return script && scriptReading(script.text).imports;
      }),
    );
    for (const file of new Set(imports))
      if (!used.some(({ path }) => path === file)) used.push(usedScript(file, this.#texts.get(file)!));
    const read = readingsOnPage(used, areAll, () => namesKept(page));
    this.#byPage.set(page.path, read);
    return read;
  }

  /** Which classes and ids scripts may give to elements of a page. */
  #statesOf(page: Page): ScriptStates {
    return getOrInsert(this.#states, page.path, () => ScriptStates.of(this.#of(page)));
  }

  /** Each script of the pages that show components, once. */
  #ofShowing(): readonly UsedScript[] {
    if (this.#shown === undefined) {
      const known = new Set<ScriptReading>();
      this.#shown = this.#showing()
        .flatMap((page) => this.#of(page))
        .filter(({ reading }) => !known.has(reading) && known.add(reading));
    }
    return this.#shown;
  }
}

function usedScript(path: string, { text, isLibrary }: ScriptText): UsedScript {
  return {
    reading: scriptReading(text),
    isLibrary,
    path,
    place: (offset) => placeIn(path, text, offset),
  };
}

/** Whether a script may mean an element by a name. A library names tags for its own sake. */
function isNamed({ id, classes, name }: PageElement, { reading, isLibrary }: UsedScript): boolean {
  const { words, stems } = reading;
  if (id !== undefined && words.has(id)) return true;
  if (classes.some((one) => words.has(one))) return true;
  if (isLibrary) return false;
  const built = [...classes, ...(id === undefined ? [] : [id])];
  return words.has(name) || built.some((one) => isBuiltOf(one, stems));
}

/** In: a property, `*` for any, `CLASS_WRITTEN` for the class attribute; where a script touches it. */
function touchedBy(property: string, place: Place): KeptReason {
  if (property === CLASS_WRITTEN) return { kind: 'script writes its class', place };
  return property === '*'
    ? { kind: 'script touches its style', place }
    : { kind: 'script touches', place, property };
}
