// What the scripts of a page may make of the classes, ids and attributes of its elements: states, as a person's are.
//
// A script of the site may mean any element that it does not name otherwise. A library acts where the markup calls it: it
// may mean elements whose id or class it names, and what it names outright.

import { BoundedMap } from '../base/bounded.js';
import type { PageElement } from '../read/markup/index.js';
import {
  isMadeOfWords,
  type Meant,
  MOVED,
  type NameWrite,
  RULES_GONE,
  type ScriptOnPage,
  type ScriptReading,
  type Target,
} from '../read/scripts/index.js';

/** What may become of elements of one kind. Names are compared without case, since quirks mode does. */
export interface Changes {
  /** Equal numbers, equal changes. */
  readonly key: number;
  givesClass(name: string): boolean;
  takesClass(name: string): boolean;
  /** Whether some class that it may be given satisfies. */
  givesClassLike(test: (name: string) => boolean): boolean;
  givesId(name: string): boolean;
  takesId(name: string): boolean;
  attribute(name: string): boolean;
}

/** One thing that a script does to whom it means. */
interface Entry {
  readonly write: NameWrite;
  readonly script: ScriptOnPage;
  /** Names what is done, whoever does it to whom. */
  readonly effect: number;
}

/** Attributes that are a property of every element; others are one of some only. */
const GLOBAL =
  /^(hidden|lang|dir|title|draggable|tabindex|contenteditable|inert|popover|role|slot|translate|spellcheck|aria-.*)$/;
/** Not shown: what means these says so. */
const UNSEEN = new Set(['head', 'title', 'meta', 'link', 'style', 'script', 'base', 'noscript', 'template']);
const PLAIN =
  /^(html|body|div|span|p|h[1-6]|main|section|article|aside|header|footer|nav|ul|dl|dt|dd|b|i|u|em|strong|small|code|pre|figure|figcaption|address|blockquote|hr|br|table|thead|tbody|tfoot|tr)$/;

class EntryChanges implements Changes {
  readonly #given: Names;
  readonly #taken: Names;
  readonly #ids: Names;
  readonly #idsTaken: Names;
  readonly #attributes = new Set<string>();
  readonly #anyOf: ReadonlySet<string>[] = [];

  constructor(
    readonly key: number,
    entries: readonly Entry[],
    isPlain: boolean,
  ) {
    const of = (kind: NameWrite['kind'], how: 'gives' | 'takes'): Names =>
      new Names(
        entries.filter(({ write }) => write.kind === kind && write[how]),
        how === 'takes',
      );
    this.#given = of('class', 'gives');
    this.#taken = of('class', 'takes');
    this.#ids = of('id', 'gives');
    this.#idsTaken = of('id', 'takes');
    for (const { write, script } of entries) {
      if (write.kind !== 'attribute') continue;
      if (write.computed && !script.isLibrary) this.#anyOf.push(script.reading.words);
      for (const one of write.names) {
        const mayBe = !write.asProperty || !isPlain || GLOBAL.test(one);
        if (mayBe) this.#attributes.add(one);
      }
    }
  }

  givesClass(name: string): boolean {
    return this.#given.has(name);
  }

  takesClass(name: string): boolean {
    return this.#taken.has(name);
  }

  givesClassLike(test: (name: string) => boolean): boolean {
    return this.#given.some(test);
  }

  givesId(name: string): boolean {
    return this.#ids.has(name);
  }

  takesId(name: string): boolean {
    return this.#idsTaken.has(name);
  }

  attribute(name: string): boolean {
    if (this.#attributes.has(name)) return true;
    if (name.startsWith('data-') && this.#attributes.has('data-*')) return true;
    return this.#anyOf.some((words) => words.has(name));
  }
}

/** Names that are given or taken: written out, or among the words and stems of a script. */
class Names {
  readonly #exact = new Set<string>();
  /** Scripts of whose words names are put together. */
  readonly #computing = new Set<ScriptReading>();
  readonly #any: boolean;

  constructor(entries: readonly Entry[], taking: boolean) {
    for (const { write, script } of entries) {
      // What is written anew is taken to be what is declared of it to stay; see `takes`.
      if (!taking || !write.anew) for (const name of write.names) this.#exact.add(name.toLowerCase());
      if (write.computed && !script.isLibrary) this.#computing.add(script.reading);
    }
    // Of an element that is not named, that all its classes go is asked elsewhere: it would be every element.
    this.#any = taking && entries.some(({ write }) => write.anew && write.target !== 'anyone');
  }

  has(name: string): boolean {
    return (
      this.#any ||
      this.#exact.has(name.toLowerCase()) ||
      [...this.#computing].some((reading) => isMadeOfWords(name, reading))
    );
  }

  some(test: (name: string) => boolean): boolean {
    if (this.#any || [...this.#exact].some(test)) return true;
    return [...this.#computing].some(
      ({ words, stems, understanding }) =>
        stems.size > 0 || [...words].some(test) || [...understanding.keys].some(test),
    );
  }
}

function isNamedBy({ id, classes }: PageElement, { reading: { words } }: ScriptOnPage): boolean {
  return (id !== undefined && words.has(id)) || classes.some((one) => words.has(one));
}

const known = new BoundedMap<string, Changes>(20_000);
let lastKey = 0;
const NOTHING = changesBy([], false);

/** In: what is done; whether to an element that has only the properties that all have. */
function changesBy(entries: readonly Entry[], isPlain: boolean): Changes {
  const effects = [...new Set(entries.map(({ effect }) => effect))].sort((a, b) => a - b);
  return known.get(`${effects.join()} ${isPlain}`, () => new EntryChanges(++lastKey, entries, isPlain));
}

interface ScriptEntries {
  /** Equal forms do the same to the same elements. */
  readonly form: string;
  readonly entries: readonly Entry[];
}

const ofReadings = new WeakMap<ScriptReading, Map<boolean, ScriptEntries>>();
const effects = new Map<string, number>();

function entriesOf(script: ScriptOnPage): ScriptEntries {
  const { reading, isLibrary } = script;
  const byOwner = ofReadings.get(reading) ?? new Map<boolean, ScriptEntries>();
  ofReadings.set(reading, byOwner);
  const found = byOwner.get(isLibrary) ?? readEntries(script);
  byOwner.set(isLibrary, found);
  return found;
}

function readEntries(script: ScriptOnPage): ScriptEntries {
  const { reading, isLibrary } = script;
  const different = new Map<string, Entry>();
  const words = [...reading.words, '|', ...reading.stems].join(' ');
  for (const write of reading.writes) {
    // What a library is told from outside is not in its words.
    if (isLibrary && ((write.computed && write.names.length === 0) || write.names.includes(RULES_GONE)))
      continue;
    const { offset: _offset, target, ...does } = write;
    const isByWords = write.computed && !isLibrary;
    const effect = `${JSON.stringify(does)} ${target === 'anyone'} ${isByWords ? words : ''}`;
    const number = effects.get(effect) ?? effects.size + 1;
    effects.set(effect, number);
    different.set(`${number} ${JSON.stringify(target)}`, { write, script, effect: number });
  }
  const isByName = isLibrary && [...different.values()].some(({ write }) => write.target === 'anyone');
  const form = `${[...different.keys()].sort().join('\n')}${isByName ? words : ''}`;
  return { form: different.size === 0 ? '' : form, entries: [...different.values()] };
}

function same(a: string, b: string | undefined): boolean {
  return a === b || a.toLowerCase() === b?.toLowerCase();
}

export class ScriptStates {
  readonly #entries: readonly Entry[];
  readonly #moves: boolean;
  readonly #touched = new Map<string, boolean>();
  readonly #byShape = new Map<string, Changes>();
  readonly #known = new WeakMap<PageElement, Changes>();
  #askedNames: ReadonlySet<string> | undefined;
  readonly #moved = new WeakMap<PageElement, boolean>();
  /** What may become of some element or other. */
  readonly anywhere: Changes;

  private constructor(
    /** Equal numbers change alike; 0 changes nothing. */
    readonly number: number,
    entries: readonly Entry[],
    /** Elements may come, go, or stand in another order. */
    readonly rearranges: boolean,
    /** Elements may come behind the others. */
    readonly appends: boolean,
    /** Elements may be filled or emptied. */
    readonly fills: boolean,
  ) {
    this.#entries = entries;
    this.#moves = entries.some(({ write }) => write.names.includes(MOVED));
    this.anywhere = changesBy(entries, false);
  }

  static readonly NONE = new ScriptStates(0, [], false, false, false);
  static #last = 0;
  static readonly #all = new BoundedMap<string, ScriptStates>(5000);

  /** In: the scripts of a page. */
  static of(scripts: readonly ScriptOnPage[]): ScriptStates {
    const forms = new Map<string, readonly Entry[]>();
    for (const script of scripts) {
      const { form, entries } = entriesOf(script);
      if (entries.length > 0) forms.set(form, entries);
    }
    // What a library puts in, it puts where it is called.
    const doings = scripts.flatMap(({ reading, isLibrary }) => (isLibrary ? [] : reading.doings));
    const rearranges = doings.some(({ kind }) => kind === 'elements');
    const appends = doings.some(({ kind }) => kind === 'elements behind');
    const fills = rearranges || appends || doings.some(({ kind }) => kind === 'text');
    if (forms.size === 0 && !fills) return ScriptStates.NONE;
    const key = `${[...forms.keys()].sort().join('\n\n')}\n\n${rearranges} ${appends} ${fills}`;
    return ScriptStates.#all.get(
      key,
      () => new ScriptStates(++ScriptStates.#last, [...forms.values()].flat(), rearranges, appends, fills),
    );
  }

  /** Whether no element's names change. */
  get isEmpty(): boolean {
    return this.#entries.length === 0;
  }

  /** Whether any element at all may be given the class. */
  givesClass(name: string): boolean {
    return !this.isEmpty && this.anywhere.givesClass(name);
  }

  givesId(name: string): boolean {
    return !this.isEmpty && this.anywhere.givesId(name);
  }

  /** Whether any element at all may be given the class, or lose it: most names of a sheet no script knows. */
  touchesClass(name: string): boolean {
    let touched = this.#touched.get(name);
    if (touched === undefined) {
      touched = this.anywhere.givesClass(name) || this.anywhere.takesClass(name);
      this.#touched.set(name, touched);
    }
    return touched;
  }

  /** Whether an element, or one around it, is put somewhere else by a script that says which. */
  isMoved(elements: readonly PageElement[], element: PageElement): boolean {
    if (!this.#moves) return false;
    let moved = this.#moved.get(element);
    if (moved === undefined) {
      const above = elements[element.parent];
      moved =
        this.changesOf(element).attribute(MOVED) || (above !== undefined && this.isMoved(elements, above));
      this.#moved.set(element, moved);
    }
    return moved;
  }

  changesOf(element: PageElement): Changes {
    if (this.isEmpty) return this.anywhere;
    let changes = this.#known.get(element);
    if (changes === undefined) {
      const shape = this.#shapeOf(element);
      changes = this.#byShape.get(shape) ?? this.#findChanges(element);
      this.#byShape.set(shape, changes);
      this.#known.set(element, changes);
    }
    return changes;
  }

  /** All that the scripts could tell an element by. */
  #shapeOf({ name, id, classes }: PageElement): string {
    const asked = this.#asked;
    let shape = id !== undefined && asked.has(id.toLowerCase()) ? `${name}#${id}` : name;
    for (const one of classes) if (asked.has(one.toLowerCase())) shape += `.${one}`;
    return shape;
  }

  /** Names that scripts mean elements by, in lower case. */
  get #asked(): ReadonlySet<string> {
    if (this.#askedNames === undefined) {
      const names = new Set<string>();
      const read = new Set<ScriptOnPage>();
      for (const { write, script } of this.#entries) {
        if (write.target === 'anyone') {
          // One script may write a thousand times.
          if (!read.has(script)) for (const word of script.reading.words) names.add(word.toLowerCase());
          read.add(script);
        } else
          for (const { id, classes } of write.target)
            for (const one of [id, ...classes]) if (one !== undefined) names.add(one.toLowerCase());
      }
      this.#askedNames = names;
    }
    return this.#askedNames;
  }

  #findChanges(element: PageElement): Changes {
    const named = new Map<ScriptOnPage, boolean>();
    const isNamed = (script: ScriptOnPage): boolean => {
      const known = named.get(script) ?? isNamedBy(element, script);
      named.set(script, known);
      return known;
    };
    const isPlain = PLAIN.test(element.name);
    let left = this.#entries;
    let changes = NOTHING;
    const meant: Entry[] = [];
    // A class that one script gives may be what another one looks for.
    for (;;) {
      const more = left.filter(({ write: { target }, script }) =>
        target === 'anyone'
          ? !UNSEEN.has(element.name) && (!script.isLibrary || isNamed(script))
          : mayBeOneOf(target, element, changes),
      );
      if (more.length === 0) return changes;
      meant.push(...more);
      left = left.filter((entry) => !more.includes(entry));
      changes = changesBy(meant, isPlain);
    }
  }
}

/** Whether a script means an element: as it stands, or with names that scripts may give it. */
export function isMeant(element: PageElement, target: Target, states: ScriptStates): boolean {
  if (target === 'anyone') return !UNSEEN.has(element.name);
  return mayBeOneOf(target, element, states.changesOf(element));
}

function mayBeOneOf(target: readonly Meant[], element: PageElement, changes: Changes): boolean {
  return target.some(
    ({ type, id, classes }) =>
      (type === undefined || type === element.name.toLowerCase()) &&
      (id === undefined || same(id, element.id) || changes.givesId(id)) &&
      classes.every((one) => element.classes.some((own) => same(own, one)) || changes.givesClass(one)),
  );
}
