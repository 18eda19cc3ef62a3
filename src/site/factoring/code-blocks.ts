// Style blocks in strings of code, each moved into a sheet of its own where the configuration says which, and how code loads one.
// The sheet says what the block said, and is loaded where the block stood: nothing else of the site changes.

import path from 'node:path';
import { hasOneOf, not, SPACE, startsWithOneOf } from '../../core/base/characters.js';
import { linesOf } from '../../core/base/phrases.js';
import { refusalText } from '../../core/base/reasons/index.js';
import { shortHash } from '../../core/base/short-hash.js';
import { showPlace } from '../../core/base/source.js';
import type { AdoptionReport, Draft } from '../../core/edit/draft/index.js';
import { type Edit, lineFor, newlineOf } from '../../core/edit/text/index.js';
import { holdsEngineText } from '../../core/read/templates/index.js';
import type { Config } from '../config.js';
import { blockInWords, type CodeBlock, stylingInCode } from '../files/code-strings.js';
import { decodeFile } from '../files/encoding.js';
import type { SiteFiles } from '../files/files.js';
import type { FileChange } from '../ledger/change.js';
import type { Site } from '../rendering/load.js';
import { namedSheets } from '../rendering/named-sheets.js';

export type DraftCodeBlock = Draft['code blocks'][number];

export interface MovedBlocks {
  /** For the draft. */
  readonly blocks: readonly DraftCodeBlock[];
  readonly changes: readonly FileChange[];
  /** What the configuration names, and what cannot move all the same. */
  readonly kept: AdoptionReport['kept'];
}

/** In: sheets that something else is written into; what a person has decided before. */
export function moveCodeBlocks(
  { files, config, isPlatform }: Pick<Site, 'files' | 'config' | 'isPlatform'>,
  written: ReadonlySet<string>,
  earlier: readonly DraftCodeBlock[],
): MovedBlocks {
  const named = namedSheets(config);
  const sheetsOf = (file: string): string[] =>
    named.flatMap(({ isMeant, sheets }) => (isMeant(file) ? sheets : []));
  if (named.length === 0) return { blocks: [], changes: [], kept: [] };
  const known = new Map(earlier.map(({ id, take }) => [id, take]));
  const sheets = new NewSheets(files, written);
  const blocks: DraftCodeBlock[] = [];
  const kept: AdoptionReport['kept'] = [];
  const edits = new Map<string, Edit[]>();
  for (const block of stylingInCode(files, isPlatform).blocks) {
    const [sheet, ...others] = sheetsOf(block.place.path);
    if (sheet === undefined || others.length > 0) continue;
    const id = shortHash(`${block.place.path} ${block.css}`);
    const take = known.get(id) ?? true;
    const moved = moveOf(block, sheet, sheets, config, take);
    if ('reason' in moved) {
      kept.push({
        reason: `a style block in code: ${moved.reason}`,
        declarations: block.declarations,
        places: [showPlace(block.place)],
      });
      continue;
    }
    const { declarations, place } = block;
    blocks.push({ id, take, into: sheet, declarations, from: showPlace(place), 'instead of it': moved.line });
    if (take) edits.set(place.path, [...(edits.get(place.path) ?? []), moved.edit]);
  }
  return { blocks, kept, changes: [...changesOf(files, edits), ...sheets.changes()] };
}

function changesOf(files: SiteFiles, edits: ReadonlyMap<string, readonly Edit[]>): FileChange[] {
  return [...edits].flatMap(([file, own]) => {
    const decoded = decodeFile(files.read(file) ?? Buffer.alloc(0));
    return decoded === undefined
      ? []
      : { path: file, text: decoded.text, encoding: decoded.encoding, edits: own };
  });
}

/** Sheets that blocks become. */
class NewSheets {
  readonly #made = new Map<string, string>();

  constructor(
    readonly files: SiteFiles,
    readonly written: ReadonlySet<string>,
  ) {}

  /** Out: why a sheet cannot take a text. */
  objection(sheet: string, text: string): string | undefined {
    const there = this.files.read(sheet)?.toString('utf8') ?? this.#made.get(sheet);
    // Others may load it, and what stands in it has its own place in the cascade.
    return !this.written.has(sheet) && (there === undefined || there === text)
      ? undefined
      : refusalText('sheet says something else', { sheet });
  }

  take(sheet: string, text: string): void {
    if (this.files.read(sheet) === undefined) this.#made.set(sheet, text);
  }

  changes(): FileChange[] {
    return [...this.#made].map(([file, text]) => ({
      path: file,
      text: '',
      encoding: { name: 'utf-8', mark: false },
      edits: [{ start: 0, end: 0, text }],
    }));
  }
}

type Move = { readonly line: string; readonly edit: Edit } | { readonly reason: string };

function moveOf(block: CodeBlock, sheet: string, sheets: NewSheets, config: Config, take: boolean): Move {
  const read = blockInWords(block);
  if ('reason' in read) return read;
  const css = sheetText(read.css, newlineOf(block.text));
  const reason = sheets.objection(sheet, css);
  if (reason !== undefined) return { reason };
  const line = lineOf(sheet, config);
  if (line === undefined) return { reason: refusalText('nothing loads the sheet', { sheet }) };
  const fitting = withFittingQuotes(line, block);
  if (fitting === undefined) return { reason: refusalText('quotes end the string', {}) };
  if (take) sheets.take(sheet, css);
  return { line: fitting, edit: { start: block.range.start, end: block.range.end, text: fitting } };
}

/** The rules as far to the left as they go together. */
function sheetText(css: string, eol: string): string {
  const lines = linesOf(css);
  const indents = lines.filter((line) => line.trim() !== '').map((line) => /^\s*/.exec(line)![0].length);
  // The first stands behind the tag.
  const indent = Math.min(
    ...(indents.length > 1 && startsWithOneOf(css, not(SPACE)) ? indents.slice(1) : indents),
  );
  const own = lines.map((line) => line.slice(Math.min(indent, /^\s*/.exec(line)![0].length)).trimEnd());
  return `${own.join(eol).trim()}${eol}`;
}

/** What loads a sheet in the words of a person, or by its address; empty where nothing is to be linked. */
function lineOf(sheet: string, { link, served }: Config): string | undefined {
  if (link === 'none') return '';
  // A line of templates is nothing in code.
  if (link !== undefined && !holdsEngineText(link)) return lineFor(link, sheet);
  for (const [folder, address] of Object.entries(served ?? {})) {
    const inside = path.posix.relative(folder, sheet);
    if (!inside.startsWith('..'))
      return `<link rel="stylesheet" href="${address.replace(/\/?$/, '/')}${inside}">`;
  }
  return undefined;
}

/** Strings of these that go over lines hold quotes as they are. */
const OPEN_QUOTES = /\.(py|js|mjs|cjs|ts|go|java)$/i;

/** A line with quotes that the string around a block does not end with: those that stand in the block; else none. */
function withFittingQuotes(line: string, { css, tag, place }: CodeBlock): string | undefined {
  const inside = tag + css;
  const mayHold = (quote: string): boolean =>
    inside.includes(quote) || (OPEN_QUOTES.test(place.path) && hasOneOf(css, '\r\n'));
  const isFitting = (text: string): boolean =>
    !hasOneOf(
      text.replace(/["']/g, (one) => (mayHold(one) ? '' : one)),
      '"\'`',
    );
  const plain = line.replace(/=(["'])([\w/.:-]+)\1/g, '=$2');
  const swapped = line.includes("'") ? line : line.replaceAll('"', "'");
  return [line, swapped, plain].find(isFitting);
}
