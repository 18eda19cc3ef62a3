// What the browser itself says of an element's rules, through the protocol's matched-styles call, against an explanation.

import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import type { CDPSession, Page as Tab } from 'playwright-core';
import {
  type ExplainContext,
  explainElement,
  inCircumstances,
  settleIn,
} from '../../src/core/ask/explain/index.js';
import { ALWAYS, NEVER, type StyleReader, type Truth } from '../../src/core/cascade/index.js';
import { canonicalProperty, longhands } from '../../src/core/read/sheets/index.js';

type Matched = Awaited<ReturnType<typeof matchedStyles>>;

export interface Agreement {
  readonly rules: number;
  readonly winners: number;
  readonly disagreements: readonly string[];
}

const WIDTH = 1280;

/** A page loaded for asking; its elements in document order. */
export class AskedPage {
  readonly #sheets = new Map<string, { file: string; line: number; column: number }>();
  #nodes: readonly number[] = [];
  #session: CDPSession | undefined;

  constructor(
    readonly tab: Tab,
    readonly site: string,
  ) {}

  async open(file: string): Promise<number> {
    await this.close();
    await this.tab.setViewportSize({ width: WIDTH, height: 800 });
    const session = await this.tab.context().newCDPSession(this.tab);
    this.#session = session;
    this.#sheets.clear();
    session.on('CSS.styleSheetAdded', ({ header }) => {
      const url = header.sourceURL.startsWith('file:') ? fileURLToPath(header.sourceURL) : header.sourceURL;
      const inside = path.relative(this.site, url).replaceAll(path.sep, '/');
      const { startLine, startColumn } = header;
      this.#sheets.set(header.styleSheetId, { file: inside, line: startLine, column: startColumn });
    });
    await this.tab.goto(pathToFileURL(path.join(this.site, file)).href, { waitUntil: 'load' });
    await session.send('DOM.enable');
    await session.send('CSS.enable');
    const { root } = await session.send('DOM.getDocument', { depth: 0 });
    const { nodeIds } = await session.send('DOM.querySelectorAll', { nodeId: root.nodeId, selector: '*' });
    this.#nodes = nodeIds;
    return nodeIds.length;
  }

  async close(): Promise<void> {
    await this.#session?.detach();
    this.#session = undefined;
  }

  /** Compares the rules that match and the winner of every longhand. */
  async agree(reader: StyleReader, index: number, isPlatform: (path: string) => boolean): Promise<Agreement> {
    const session = this.#session!;
    const matched = await matchedStyles(session, this.#nodes[index]!);
    const circumstances = { width: WIDTH, states: new Set<string>() };
    const context: ExplainContext = { reader, element: index, isPlatform, circumstances };
    const holds = await this.#openLiterals(context);
    const [ours, theirs] = [this.#ourRules(context, holds), this.#theirRules(matched)];
    const name = `${reader.page.path} ${index} <${reader.page.elements[index]!.name}>`;
    const disagreements: string[] = [];
    for (const one of ours) if (!theirs.includes(one)) disagreements.push(`${name}: only Acervus: ${one}`);
    for (const one of theirs) if (!ours.includes(one)) disagreements.push(`${name}: only Chromium: ${one}`);
    const winners = this.#theirWinners(matched, reader, index);
    const own = ourWinners(context, holds);
    let compared = 0;
    for (const [longhand, place] of winners) {
      const mine = own.get(longhand);
      // A longhand that only one side has a name for is told by its shorthand's other parts.
      if (mine === undefined && !own.has(canonicalProperty(longhand))) {
        if (longhands(longhand).set.length === 1 && !longhand.startsWith('-'))
          disagreements.push(`${name}: ${longhand}: only Chromium: ${place}`);
        continue;
      }
      compared++;
      if (mine !== place) disagreements.push(`${name}: ${longhand}: Acervus ${mine}, Chromium ${place}`);
    }
    return { rules: theirs.length, winners: compared, disagreements };
  }

  /** Conditions that the width and the states leave open, asked of the browser. */
  async #openLiterals({
    reader,
    element,
    circumstances,
  }: ExplainContext): Promise<ReadonlyMap<string, boolean>> {
    const open = new Set<string>();
    const { truths } = reader.table;
    const note = (truth: Truth): void =>
      void truths.settle(settleIn(truth, circumstances, truths), (literal) => void open.add(literal));
    for (const { truth } of reader.matched(element)) note(truth);
    for (const list of reader.weighed(element).get('')?.values() ?? [])
      for (const one of list) note(one.condition);
    const answers = await this.tab.evaluate(
      ({ texts, at }) => {
        const subject = document.querySelectorAll('*')[at]!;
        const probe = document.createElement('p');
        return texts.map((text): boolean => {
          const media = /^@media (.*)$/.exec(text);
          if (media !== null) return matchMedia(media[1]!).matches;
          const supports = /^@supports (.*)$/.exec(text);
          if (supports !== null) return CSS.supports(supports[1]!);
          const kept = /^the browser keeps ([^:]+): (.*)$/.exec(text);
          if (kept !== null) {
            probe.style.cssText = '';
            probe.style.setProperty(kept[1]!, kept[2]!);
            return probe.style.length > 0;
          }
          const known = /^the browser knows every selector of (.*)$/.exec(text);
          const state = /^(:[a-z-]+(?:\([^)]*\))?)(?: on (its parent|ancestor (\d+)))?$/.exec(text);
          try {
            if (known !== null) {
              for (const list of known[1]!.split(' / ')) document.querySelector(list.replace(/&/g, ':is(p)'));
              return true;
            }
            if (state === null) return false;
            let node: Element | null = subject;
            const up = state[2] === undefined ? 0 : Number(state[3] ?? 1);
            for (let i = 0; i < up; i++) node = node?.parentElement ?? null;
            return node?.matches(state[1]!) ?? false;
          } catch {
            return false;
          }
        });
      },
      { texts: [...open], at: element },
    );
    return new Map([...open].map((text, i) => [text, answers[i] ?? false]));
  }

  #ourRules(context: ExplainContext, holds: ReadonlyMap<string, boolean>): string[] {
    const { reader, element } = context;
    // The explanation lists the rules that could match in the same order, those that surely do not left out.
    const matched = reader
      .matched(element)
      .filter(({ truth }) => settleIn(truth, context.circumstances, reader.table.truths) !== NEVER);
    const found = new Set<string>();
    explainElement(context).rules.forEach(({ place, target }, at) => {
      if (target !== '' || settle(matched[at]!.truth, context, holds) !== ALWAYS) return;
      found.add(`${place.path}:${place.line}:${place.column}`);
    });
    return [...found].sort();
  }

  #theirRules({ matchedCSSRules = [] }: Matched): string[] {
    const found = new Set<string>();
    for (const { rule } of matchedCSSRules) {
      if (rule.origin !== 'regular') continue;
      const [first] = rule.selectorList.selectors;
      const place = this.#place(rule.styleSheetId, first?.range);
      if (place !== undefined) found.add(place);
    }
    return [...found].sort();
  }

  #place(
    sheet: string | undefined,
    range: { startLine: number; startColumn: number } | undefined,
  ): string | undefined {
    const known = this.#sheets.get(sheet ?? '');
    if (known === undefined || range === undefined) return undefined;
    // Places in a style block are counted from the block's first letter.
    const column = range.startColumn + (range.startLine === 0 ? known.column : 0);
    return `${known.file}:${known.line + range.startLine + 1}:${column + 1}`;
  }

  /** The winner of each longhand by the order in which the browser lists its rules, weakest first. */
  #theirWinners(
    { matchedCSSRules = [], inlineStyle }: Matched,
    reader: StyleReader,
    index: number,
  ): Map<string, string> {
    const winners = new Map<string, { place: string; important: boolean }>();
    const tag = reader.page.elements[index]!.tag;
    const inline = tag?.attributes.get('style');
    const take = (
      style: NonNullable<Matched['inlineStyle']>,
      placeOf: (range: { startLine: number; startColumn: number }) => string | undefined,
    ): void => {
      for (const property of style.cssProperties) {
        if (property.range === undefined || property.parsedOk === false || property.disabled === true)
          continue;
        const place = placeOf(property.range);
        if (place === undefined) continue;
        const names =
          property.longhandProperties !== undefined && property.longhandProperties.length > 0
            ? property.longhandProperties.map(({ name }) => name)
            : [canonicalProperty(property.name)];
        for (const name of names) {
          const known = winners.get(name);
          if (known?.important === true && property.important !== true) continue;
          winners.set(name, { place, important: property.important === true });
        }
      }
    };
    for (const { rule } of matchedCSSRules)
      if (rule.origin === 'regular') take(rule.style, (range) => this.#place(rule.styleSheetId, range));
    if (inlineStyle !== undefined && inline !== undefined) take(inlineStyle, () => 'style attribute');
    return new Map([...winners].map(([name, { place }]) => [name, place]));
  }
}

async function matchedStyles(session: CDPSession, nodeId: number) {
  return session.send('CSS.getMatchedStylesForNode', { nodeId });
}

function settle(
  truth: Truth,
  { reader, circumstances }: ExplainContext,
  holds: ReadonlyMap<string, boolean>,
): Truth {
  const { truths } = reader.table;
  return truths.settle(settleIn(truth, circumstances, truths), (literal) => holds.get(literal));
}

function ourWinners(context: ExplainContext, holds: ReadonlyMap<string, boolean>): Map<string, string> {
  const found = new Map<string, string>();
  for (const [longhand, list] of context.reader.weighed(context.element).get('') ?? []) {
    const winner = inCircumstances(list, context).find(
      (one) => settle(one.condition, context, holds) !== NEVER,
    );
    if (winner === undefined) continue;
    const { writtenIn, entry } = winner;
    if (writtenIn.kind === 'style attribute') found.set(longhand, 'style attribute');
    if (writtenIn.kind !== 'rule') continue;
    const { source, program } = writtenIn.use;
    const text = source.path === context.reader.page.path ? context.reader.page.text : program.sheet.text;
    const before = text.slice(0, source.offset + entry.declaration.range.start);
    const line = before.split('\n').length;
    found.set(longhand, `${source.path}:${line}:${before.length - before.lastIndexOf('\n')}`);
  }
  return found;
}
