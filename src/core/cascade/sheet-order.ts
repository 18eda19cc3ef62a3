// The sheets of one page in cascade order: links, style blocks and imports, with the conditions they apply under.

import { fileAt, isAbove, resolveAddress } from '../base/addresses.js';
import { withSingleSpaces } from '../base/phrases.js';
import { undecidedText } from '../base/reasons/index.js';
import { shortHash } from '../base/short-hash.js';
import { type Place, placeIn, type SourceRange } from '../base/source.js';
import type { Page, PageElement, SheetReference } from '../read/markup/index.js';
import {
  type AddedSheet,
  fileOfAddedSheet,
  GONE,
  RULES_GONE,
  type ScriptOnPage,
} from '../read/scripts/index.js';
import { conditionTruth, type Program } from './program.js';
import { ScriptStates } from './script-states.js';
import { ALWAYS, type Truth, type TruthTable } from './truth.js';

export interface SheetUse {
  readonly program: Program;
  readonly condition: Truth;
  /** The layer that `@import … layer()` puts the whole sheet in. */
  readonly layer: string | undefined;
  /** Names the program, the condition and the layer: equal keys style alike. */
  readonly key: string;
  /** Where the sheet's text stands: a file from its first letter, or a block inside a page. */
  readonly source: SheetSource;
}

export interface SheetSource {
  readonly path: string;
  readonly offset: number;
  /** The whole text of the file. */
  readonly text: string;
  /** A style block of a page. */
  readonly isBlock: boolean;
  /** Which of the page's sheet references brought it in. */
  readonly reference: number;
}

export interface UnreadSheet {
  readonly address: string;
  /** Where in the site it should be, for one that is missing. */
  readonly path: string | undefined;
  readonly why: 'elsewhere' | 'missing';
  readonly range: SourceRange;
}

/** What a page's cascade runs over. */
export interface SheetOrder {
  readonly uses: readonly SheetUse[];
  readonly unread: readonly UnreadSheet[];
  /** Names the uses and their conditions: equal keys are equal sheet orders. */
  readonly key: string;
  /** Names the uses alone. */
  readonly ownKey: string;
  /** Names the order of the layers, empty without layers. */
  readonly layersKey: string;
  /** What in the order of the sheets cannot be decided. */
  readonly undecided: string | undefined;
  /** Rank of each layer name, weakest first, when there are layers. */
  readonly layers: ReadonlyMap<string, number>;
  /** What the page's scripts may make of its elements. */
  readonly scripts: ScriptStates;
  /** These scripts, as far as they are at hand. */
  readonly pageScripts: readonly ScriptOnPage[];
}

/** The place of an offset in a sheet's text. */
export function placeInSource({ path, text, offset }: SheetSource, at: number): Place {
  return placeIn(path, text, offset + at);
}

/** Where programs come from: compiled once per site, whatever number of pages use them. */
export interface ProgramSource {
  sheetAt(path: string): Program | undefined;
  block(text: string, page: Page): Program;
  /** A local copy of a sheet that lies elsewhere, if the developer named one. */
  copyOf(address: string): string | undefined;
  /** The sheet that is to be a part of another one, at its end. */
  behind(path: string): string | undefined;
  scriptsOf(page: Page): readonly ScriptOnPage[];
  /** The sheets that the page's scripts add, as far as they are written out in them. */
  sheetsOfScripts(page: Page): readonly ScriptSheet[];
}

export interface ScriptSheet {
  readonly sheet: AddedSheet;
  /** Where the script stands, and where in that file the sheet does. */
  readonly path: string;
  readonly text: string;
  readonly offset: number;
}

export function buildSheetOrder(page: Page, source: ProgramSource, table: TruthTable): SheetOrder {
  const builder = new SheetOrderBuilder(page, source, table);
  for (const [at, reference] of page.sheets.entries()) builder.add(reference, at);
  for (const one of source.sheetsOfScripts(page)) builder.addOfScript(one);
  return builder.sheetOrder();
}

/** The sheet order of a component with sheets of its own, on a page with another: its own come behind those of the page. */
export function sheetOrderWithin(
  part: Page,
  around: SheetOrder,
  source: ProgramSource,
  table: TruthTable,
): SheetOrder {
  const builder = new SheetOrderBuilder(part, source, table, around);
  for (const [at, reference] of part.sheets.entries()) builder.add(reference, at);
  return builder.sheetOrder();
}

interface Link {
  readonly path: string | undefined;
  readonly address: string;
  readonly range: SourceRange;
  readonly reference: number;
}

class SheetOrderBuilder {
  readonly #uses: SheetUse[] = [];
  readonly #unread: UnreadSheet[] = [];
  readonly #layerNames: string[] = [];
  readonly #page: Page;
  readonly #source: ProgramSource;
  readonly #table: TruthTable;
  #unreadKeys = '';
  #preferredTitle: string | undefined;
  #undecided: string | undefined;
  readonly #scripts: ScriptStates;
  readonly #pageScripts: readonly ScriptOnPage[];

  /** In: `around`, the sheets that stand in front of those of the page. */
  constructor(page: Page, source: ProgramSource, table: TruthTable, around?: SheetOrder) {
    this.#page = page;
    this.#source = source;
    const own = page.scripts.length === 0 ? NO_SCRIPTS : source.scriptsOf(page);
    this.#pageScripts = around === undefined ? own : [...around.pageScripts, ...own];
    this.#scripts = ScriptStates.of(this.#pageScripts);
    this.#table = table;
    if (around === undefined) return;
    this.#uses.push(...around.uses);
    this.#unread.push(...around.unread);
    this.#undecided = around.undecided;
    if (around.layersKey !== '') this.#layerNames.push(...around.layersKey.split(','));
  }

  add(reference: SheetReference, at: number): void {
    const conditions: Truth[] = [];
    if (reference.media !== '')
      conditions.push(conditionTruth({ kind: 'media', text: reference.media }, this.#table));
    if (reference.scriptingOff) conditions.push(this.#table.literal('scripting is off'));
    if (reference.title !== '') {
      // HTML standard, "preferred CSS style sheet set": the first titled sheet names the set in use.
      const alternate = reference.kind === 'link' && reference.alternate;
      if (!alternate) this.#preferredTitle ??= reference.title;
      if (reference.title !== this.#preferredTitle)
        conditions.push(this.#table.literal(`the style set "${reference.title}" is chosen`));
    }
    // Where no script changes anything, nothing has to be known of the element.
    const holder = this.#scripts.number === 0 ? undefined : this.#page.elements[reference.element];
    const switched = holder !== undefined && this.#isSwitched(holder);
    if (switched) {
      const name = reference.kind === 'link' ? reference.address : 'of the block';
      conditions.push(this.#table.literal(`scripts leave the sheet ${name} on`));
    }
    if (reference.by === 'engine at times') {
      const { path } = reference.broughtBy ?? this.#page;
      const what =
        reference.kind === 'link'
          ? `links the sheet ${reference.address}`
          : `brings the style block ${shortHash(reference.text)} of ${path}`;
      conditions.push(this.#table.literal(`template text ${what}`));
    }
    if (reference.kind === 'link' && reference.disabled)
      conditions.push(this.#table.literal('a script enables the sheet'));
    const condition = this.#table.and(...conditions);
    if (reference.kind === 'block') {
      const { path, text } = reference.broughtBy ?? this.#page;
      const source = {
        path,
        text,
        isBlock: true,
        offset: reference.offset ?? reference.madeAt ?? 0,
        reference: at,
      };
      this.#use(this.#source.block(reference.text, this.#page), condition, undefined, [], source);
      return;
    }
    const path = fileAt(reference.address, this.#page.path, (address) => this.#source.copyOf(address));
    const link = { path, address: reference.address, range: reference.range, reference: at };
    this.#follow(link, condition, undefined, []);
    const behind = path === undefined ? undefined : this.#source.behind(path);
    if (behind !== undefined && this.#source.sheetAt(behind) !== undefined)
      this.#follow({ ...link, path: behind }, condition, undefined, []);
    const byBase = this.#byBase(reference.address);
    if (byBase !== undefined && byBase !== path && this.#source.sheetAt(byBase) !== undefined)
      this.#follow({ ...link, path: byBase }, condition, undefined, []);
  }

  /** The file that an address means by the page's `<base>`: which of the two a page loads, a server may decide. */
  #byBase(address: string): string | undefined {
    const { base, path } = this.#page;
    const from = base === undefined ? undefined : resolveAddress(base, path);
    if (base === undefined || from?.kind !== 'site') return undefined;
    return fileAt(address, base.endsWith('/') ? `${from.path}/` : from.path, (one) =>
      this.#source.copyOf(one),
    );
  }

  #isSwitched(element: PageElement): boolean {
    const changes = this.#scripts.changesOf(element);
    return [GONE, RULES_GONE, 'disabled', 'href', 'media', 'rel', 'title', 'type'].some((name) =>
      changes.attribute(name),
    );
  }

  /** Behind all others, where a script puts it; when it does is not known. */
  addOfScript({ sheet, path, text, offset }: ScriptSheet): void {
    const reference = this.#page.sheets.length;
    if (sheet.kind === 'text') {
      const condition = this.#table.literal(`a script adds the sheet ${withSingleSpaces(sheet.text)}`);
      const source = { path, text, isBlock: true, offset, reference };
      this.#use(this.#source.block(sheet.text, this.#page), condition, undefined, [], source);
      return;
    }
    const target = fileOfAddedSheet(sheet, path, this.#page.path, (address) => this.#source.copyOf(address));
    const range = { start: offset, end: offset };
    const condition = this.#table.literal(`a script adds the sheet ${target ?? sheet.address}`);
    this.#follow({ path: target, address: sheet.address, range, reference }, condition, undefined, []);
  }

  #follow(link: Link, condition: Truth, layer: string | undefined, chain: readonly string[]): void {
    const { path, address, range, reference } = link;
    if (path !== undefined && chain.includes(path)) return;
    const program = path === undefined ? undefined : this.#source.sheetAt(path);
    if (program !== undefined && path !== undefined) {
      const { text } = program.sheet;
      const source = { path, text, isBlock: false, offset: 0, reference };
      this.#use(program, condition, layer, [...chain, path], source);
    } else {
      const isElsewhere = path === undefined || isAbove(path);
      this.#unread.push({ address, path, why: isElsewhere ? 'elsewhere' : 'missing', range });
      this.#unreadKeys += `?${this.#uses.length} ${address};`;
    }
  }

  #use(
    program: Program,
    condition: Truth,
    layer: string | undefined,
    chain: readonly string[],
    source: SheetSource,
  ): void {
    const within = (name: string): string => (layer === undefined ? name : `${layer}.${name}`);
    const { imports, layers } = program.sheet;
    let named = 0;
    const nameUpTo = (count: number): void => {
      for (; named < count; named++) this.#nameLayer(within(layers[named]!), condition);
    };
    for (const one of imports) {
      // What an import brings stands where the import stands: behind `@layer` statements in front of it only.
      nameUpTo(one.layersBefore);
      const conditions = one.conditions.map((part) => conditionTruth(part, this.#table));
      const path = fileAt(one.address, program.holder, (address) => this.#source.copyOf(address));
      const link = { path, address: one.address, range: one.range, reference: source.reference };
      const under = this.#table.and(condition, ...conditions);
      if (one.layer !== undefined) this.#nameLayer(within(one.layer), under);
      this.#follow(link, under, one.layer === undefined ? layer : within(one.layer), chain);
    }
    nameUpTo(layers.length);
    const key = `${programNumber(program)}:${condition}:${layer ?? ''}`;
    this.#uses.push({ program, condition, layer, key, source });
  }

  /** A layer takes part in the order while its sheet applies: one that is first named under a condition is not decided. */
  #nameLayer(name: string, condition: Truth): void {
    if (condition !== ALWAYS && !this.#layerNames.includes(name))
      this.#undecided ??= undecidedText('layer in a conditional sheet', {});
    this.#layerNames.push(name);
  }

  sheetOrder(): SheetOrder {
    const scripts = this.#scripts;
    const uses = this.#uses.filter((use, at) => !isSaidAgain(use, this.#uses, at));
    const keys = uses.map(({ key }) => `${key};`).join('');
    return {
      uses,
      unread: this.#unread,
      key: `${keys}${this.#unreadKeys}${scripts.number === 0 ? '' : `scripts ${scripts.number}`}`,
      scripts,
      pageScripts: this.#pageScripts,
      ownKey: keys,
      layersKey: this.#layerNames.join(),
      undecided: this.#undecided,
      layers: rankLayers(this.#layerNames),
    };
  }
}

/** Whether the same sheet comes once more behind, in any case: whatever it wins, it wins there. */
function isSaidAgain({ program, layer }: SheetUse, uses: readonly SheetUse[], at: number): boolean {
  if (layer !== undefined || program.sheet.layers.length > 0) return false;
  const again = uses.lastIndexOf(
    uses.findLast((one) => one.program === program && one.condition === ALWAYS)!,
  );
  return again > at && uses[again]!.layer === undefined;
}

const NO_SCRIPTS: readonly ScriptOnPage[] = [];
const numbers = new WeakMap<Program, number>();
let lastNumber = 0;

function programNumber(program: Program): number {
  let number = numbers.get(program);
  if (number === undefined) {
    number = ++lastNumber;
    numbers.set(program, number);
  }
  return number;
}

/**
 * Layer order (CSS Cascade 5 §6.4.3): by first appearance, a layer's own rules after those of the layers inside it.
 * In: full dotted names in order of appearance. Out: name to rank, weakest first for normal declarations.
 */
export function rankLayers(names: readonly string[]): Map<string, number> {
  interface Node {
    readonly children: Map<string, Node>;
  }
  const root: Node = { children: new Map() };
  for (const name of names) {
    let node = root;
    for (const part of name.split('.')) {
      let child = node.children.get(part);
      if (child === undefined) {
        child = { children: new Map() };
        node.children.set(part, child);
      }
      node = child;
    }
  }
  const ranks = new Map<string, number>();
  const visit = (node: Node, prefix: string): void => {
    for (const [part, child] of node.children) {
      const full = prefix === '' ? part : `${prefix}.${part}`;
      visit(child, full);
      ranks.set(full, ranks.size);
    }
  };
  visit(root, '');
  return ranks;
}
