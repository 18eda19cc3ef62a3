// What the next site begins with: one house sheet out of what a site has proven to need.

import { existsSync, mkdirSync } from 'node:fs';
import path from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import {
  chooseRules,
  type HouseSheet,
  houseSheet,
  isHouseSheet,
  NO_WISHES,
  parseWishes,
  renderWishes,
  revisionOf,
  type Snippet,
  STARTER_FILE,
  type StarterRule,
  snippetsOf,
  type Wishes,
  withWishes,
} from '../../core/ask/starter/index.js';
import { UsageError } from '../../core/base/usage-error.js';
import { isStyleSheet } from '../../core/read/kinds/index.js';
import { variablesIn } from '../../core/read/sheets/variables.js';
import { openForReading } from '../../site/building/read.js';
import { openFolder } from '../../site/files/files.js';
import { insideSite, readPlain } from '../../site/files/inside.js';
import type { Site } from '../../site/rendering/load.js';
import { valuesIn } from '../values/read.js';
import type { StarterDocument } from './document.js';

export interface StarterOptions {
  /** Where the sheet is written; in the site's `.acervus` without. */
  readonly out?: string | undefined;
  /** `.class`, `--value` or a type of element: wanted or not, from now on. */
  readonly keep?: readonly string[] | undefined;
  readonly leave?: readonly string[] | undefined;
  /** Helpers that so many pages wear are wanted. */
  readonly atLeast?: number | undefined;
  /** A folder for editor snippets. */
  readonly words?: string | undefined;
  /** Hears what is done now. */
  readonly onStep?: ((step: string) => void) | undefined;
}

const USUAL = path.join('.acervus', 'starter', 'house.css');

/** Writes the sheet, and remembers what is wanted in `acervus-starter.json`. In: the site's folder. Throws `UsageError`. */
export async function starter(folder: string, options: StarterOptions = {}): Promise<StarterDocument> {
  const { keep = [], leave = [], atLeast } = options;
  const files = openFolder(folder);
  const known = files.read(STARTER_FILE)?.toString('utf8');
  const before = known === undefined ? NO_WISHES : parseWishes(known);
  const wishes = withWishes(before, { keep, leave, atLeast });
  const file = targetOf(folder, options.out);
  const old = existsSync(file) ? readPlain(file, file).toString('utf8') : undefined;
  if (old !== undefined && !isHouseSheet(old)) throw new UsageError('starter-out', { file });
  const { site, sourceOf } = await openForReading(folder, options.onStep);
  const { rules, left } = chooseRules(site.model, site.themes, platformClasses(site), wishes);
  const { named } = valuesIn(site);
  const sheet = houseSheet(rules, named, wishes);
  refuseUnknown(
    [...keep, ...leave],
    site,
    named.map(({ name }) => name),
  );
  refuseUsed(rules, sheet, wishes);
  const snippets = options.words === undefined ? undefined : snippetsOf(site.model, sheet.parts, rules);
  const wordsFolder = options.words === undefined ? undefined : folderFor(options.words);
  mkdirSync(path.dirname(file), { recursive: true });
  writeFileAtomic.sync(file, sheet.text);
  if (keep.length + leave.length > 0 || atLeast !== undefined)
    writeFileAtomic.sync(insideSite(folder, STARTER_FILE), renderWishes(wishes));
  if (snippets !== undefined) writeSnippets(wordsFolder!, snippets);
  return {
    format: 1,
    command: 'starter',
    file,
    wishes,
    values: sheet.values.map(({ name }) => name),
    rules: rules.map(({ part, selectors, place }) => ({
      part,
      selectors: [...selectors],
      place: sourceOf(place),
    })),
    left: left.map((one) => ({ ...one, place: sourceOf(one.place) })),
    ...(old === undefined ? {} : { revision: plainRevision(revisionOf(old, sheet.text)) }),
    ...(snippets === undefined
      ? {}
      : {
          words: {
            folder: wordsFolder!,
            words: Object.fromEntries([...snippets].map(([name, { prefix }]) => [name, prefix])),
          },
        }),
  };
}

function plainRevision({ came, went, same }: ReturnType<typeof revisionOf>): StarterDocument['revision'] {
  return { came: [...came], went: [...went], same };
}

function targetOf(folder: string, out: string | undefined): string {
  if (out === undefined) {
    insideSite(folder, USUAL);
    return path.join(folder, USUAL);
  }
  if (!isStyleSheet(out)) throw new UsageError('starter-css', { file: out });
  if (!existsSync(path.dirname(path.resolve(out)))) throw new UsageError('values-folder', { file: out });
  return out;
}

function folderFor(words: string): string {
  if (!existsSync(path.dirname(path.resolve(words)))) throw new UsageError('values-folder', { file: words });
  return words;
}

function platformClasses({ model, sheets, isPlatform }: Site): (name: string) => boolean {
  const names = new Set<string>();
  for (const { path: file } of sheets) {
    if (!isPlatform(file)) continue;
    for (const { selector } of model.sheetAt(file)?.rules ?? [])
      for (const { classes } of selector.compounds) for (const name of classes) names.add(name);
  }
  return (name) => names.has(name);
}

/** A slip in a name would be remembered for good. */
function refuseUnknown(asked: readonly string[], { model, themes }: Site, values: readonly string[]): void {
  for (const name of asked) {
    const isThere = name.startsWith('--')
      ? values.includes(name)
      : themes.some((file) =>
          model
            .sheetAt(file)
            ?.rules.some(({ selector }) =>
              selector.compounds.some(({ classes, type }) =>
                name.startsWith('.') ? classes.includes(name.slice(1)) : type === name,
              ),
            ),
        );
    if (!isThere) throw new UsageError('starter-unknown', { name });
  }
}

/** What a rule of the sheet uses cannot be left out of it. */
function refuseUsed(rules: readonly StarterRule[], { values }: HouseSheet, { leave }: Wishes): void {
  for (const { name } of values) {
    if (!leave.includes(name)) continue;
    const user = rules.find(({ body }) => variablesIn(body).includes(name));
    throw new UsageError('starter-used', { name, selector: user?.selectors[0] ?? 'another value' });
  }
}

/** As JSON for editors, and each as a plain file by its word. */
function writeSnippets(folder: string, snippets: ReadonlyMap<string, Snippet>): void {
  mkdirSync(folder, { recursive: true });
  const all = Object.fromEntries([...snippets].map(([name, one]) => [name, one]));
  writeFileAtomic.sync(path.join(folder, 'snippets.json'), `${JSON.stringify(all, null, 2)}\n`);
  for (const { prefix, scope, body } of snippets.values()) {
    const plain = body.join('\n').replace(/\\([\\$])|\$0/g, (_, sign: string | undefined) => sign ?? '');
    writeFileAtomic.sync(path.join(folder, `${fileName(prefix)}.${scope}`), `${plain}\n`);
  }
}

function fileName(word: string): string {
  return word.replace(/[^\p{L}\d_-]/gu, '_');
}
