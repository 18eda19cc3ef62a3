// `acervus explain`: everything that styles one element, and why.

import type { z } from 'zod';
import { ALWAYS, compileSelectorList, NEVER, type StyleReader } from '../../../core/cascade/index.js';
import { type Circumstances, explainElement } from '../../../core/ask/explain/index.js';
import { longhands } from '../../../core/sheets/index.js';
import { type OpenedPage, openPage } from '../../../site/rendering/one-page.js';
import { UsageError } from '../../../core/usage-error.js';
import type { explainDocument } from '../../everyday-documents.js';
import { explainLines } from './lines.js';
import { print, printJson } from '../../shared/paper.js';

export interface ExplainOptions {
  readonly property?: readonly string[];
  readonly state?: readonly string[];
  readonly width?: string;
  readonly all?: boolean;
  readonly json?: boolean;
}

export type ExplainJson = z.infer<typeof explainDocument>;

/** In: the page's path in the site; a selector, or a line and perhaps a column. */
export async function explain(
  file: string,
  wanted: string,
  folder: string,
  options: ExplainOptions,
): Promise<number> {
  const circumstances = readCircumstances(options);
  const opened = await openPage(folder, file);
  const { reader } = opened;
  const { index, of } = findElement(reader, wanted);
  const telling = { reader, element: index, isPlatform: opened.isPlatform, circumstances };
  const explanation = explainElement(telling, propertyFilter(options.property));
  const document: ExplainJson = {
    format: 1,
    command: 'explain',
    page: reader.page.path,
    asked: wanted,
    matching: of,
    ...JSON.parse(JSON.stringify(explanation)),
    site: siteKind(opened, explanation.selectors.kindOnSite.selector),
    unread: [...opened.unread],
  };
  if (options.json === true) printJson(document);
  else
    print(
      explainLines(folder, document, { settings: opened.settings, all: options.all === true, ...options }),
    );
  return 0;
}

function siteKind(opened: OpenedPage, selector: string): ExplainJson['site'] {
  const names = [...selector.matchAll(/[.#]([\w-]+)/g)].map(([, name]) => name!);
  const tag = names.length === 0 ? [selector] : names;
  return { selector, ...opened.pagesWith(tag) };
}

function readCircumstances({ state, width }: ExplainOptions): Circumstances {
  if (width !== undefined && !/^\d+(px)?$/.test(width))
    throw new UsageError(`--width ${width}: is no width in pixels; write a whole number, such as 600`);
  return {
    width: width === undefined ? undefined : Number.parseInt(width, 10),
    states:
      state === undefined ? undefined : new Set(state.map((one) => one.replace(/^:+/, '').toLowerCase())),
  };
}

function propertyFilter(names: readonly string[] | undefined): ((longhand: string) => boolean) | undefined {
  if (names === undefined || names.length === 0) return undefined;
  const wanted = new Set(
    names.flatMap((name) => {
      const property = name.startsWith('--') ? name : name.toLowerCase();
      const { set, reset } = longhands(property);
      return [property, ...set, ...reset];
    }),
  );
  return (longhand) => wanted.has(longhand);
}

/** Throws `UsageError` for what points at nothing. */
function findElement(reader: StyleReader, wanted: string): { index: number; of: number } {
  const { page } = reader;
  const position = /^(\d+)(?::(\d+))?$/.exec(wanted);
  if (position !== null) {
    const offset = offsetOf(page.text, Number(position[1]), position[2]);
    let found = -1;
    for (const { index, tag } of page.elements)
      if (tag !== undefined && tag.range.start <= offset) found = index;
    if (found >= 0) return { index: found, of: 1 };
    throw new UsageError(
      `${page.path}:${wanted}: no element begins there or before; name a line of the page, or a selector`,
    );
  }
  const list = compileSelectorList(wanted);
  if (list.kind === 'invalid')
    throw new UsageError(
      `${wanted}: is no selector (${list.reason}); write one such as ".kind p", or a line such as 42:7`,
    );
  const matched = page.elements.filter(({ index }) =>
    list.selectors.some((one) => reader.matches(one, index) !== NEVER),
  );
  const sure = matched.find(({ index }) =>
    list.selectors.some((one) => reader.matches(one, index) === ALWAYS),
  );
  const first = sure ?? matched[0];
  if (first !== undefined) return { index: first.index, of: matched.length };
  throw new UsageError(
    `${wanted}: picks out nothing on ${page.path}; "acervus reach '${wanted}'" tells where it does`,
  );
}

/** A line alone stands for the first tag on it: its last character. */
function offsetOf(text: string, line: number, column: string | undefined): number {
  const lines = text.split(/(?<=\r\n|\n|\r(?!\n))/);
  const start = lines.slice(0, line - 1).reduce((sum, one) => sum + one.length, 0);
  const own = lines[line - 1] ?? '';
  if (column !== undefined) return start + Number(column) - 1;
  const tag = own.search(/<[a-z]/i);
  return start + Math.max(0, tag);
}
