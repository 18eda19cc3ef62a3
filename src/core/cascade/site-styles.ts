// The sheets of one state of a site: each compiled once, whatever number of pages use it.

import { folderOf } from '../addresses.js';
import type { Page } from '../markup/index.js';
import { parseSheet } from '../sheets/index.js';
import type { OutcomeTable } from './outcome.js';
import { compileSheet, type Program } from './program.js';
import { buildStack, type ProgramSource, type Stack } from './stack.js';

/** Where the texts of sheets come from, and of scripts where they are at hand. */
export interface SheetTexts {
  /** `undefined` where there is no such file. */
  textAt(path: string): string | undefined;
  /** A local copy of a sheet that lies elsewhere, if the developer named one. */
  copyOf(address: string): string | undefined;
}

export class SiteStyles implements ProgramSource {
  readonly #programs = new Map<string, Program>();
  readonly #blocks: Map<string, Program>;
  readonly #stacks = new WeakMap<Page, Stack>();
  readonly #earlier: readonly SiteStyles[];

  /** In: the texts; what the comparison shares; earlier states, whose programs are taken over where texts are equal. */
  constructor(
    readonly texts: SheetTexts,
    readonly table: OutcomeTable,
    ...earlier: readonly SiteStyles[]
  ) {
    this.#earlier = earlier.filter((state) => state.table === table);
    const [first] = this.#earlier;
    this.#blocks = first === undefined ? new Map() : first.#blocks;
  }

  sheetAt(path: string): Program | undefined {
    const known = this.#programs.get(path);
    if (known !== undefined) return known;
    const text = this.texts.textAt(path);
    if (text === undefined) return undefined;
    const before = this.#earlier.map((state) => state.sheetAt(path)).find((one) => one?.sheet.text === text);
    const program = before ?? compileSheet(parseSheet(text), path, this.table.truths);
    this.#programs.set(path, program);
    return program;
  }

  block(text: string, page: Page): Program {
    // Equal blocks are one program, unless they hold addresses, which mean something else in another folder.
    const folder = folderOf(page.path);
    const key = /url\(|@import/i.test(text) ? `${folder}\0${text}` : text;
    let program = this.#blocks.get(key);
    if (program === undefined) {
      program = compileSheet(parseSheet(text), page.path, this.table.truths);
      this.#blocks.set(key, program);
    }
    return program;
  }

  copyOf(address: string): string | undefined {
    return this.texts.copyOf(address);
  }

  /** The sheets of a whole page. */
  stackOf(page: Page): Stack {
    let stack = this.#stacks.get(page);
    if (stack === undefined) {
      stack = buildStack(page, this, this.table.truths);
      this.#stacks.set(page, stack);
    }
    return stack;
  }
}
