// Which boxes are the developer's: as configured, as asked for, or as a person says of those that are likely.

import {
  type Box,
  type BoxCandidate,
  boxName,
  guessBoxes,
  meansBlock,
  styleBlocks,
} from '../../core/ask/visit/index.js';
import { trimmedBefore } from '../../core/base/characters.js';
import { UsageError } from '../../core/base/usage-error.js';
import { type Config, parseConfig } from '../config.js';
import { CONFIG_FILE, openFolder, type SiteFiles } from '../files/files.js';
import { readText } from '../files/text.js';
import { keepFile } from './keeper.js';
import type { Manifest } from './manifest.js';

export function configOf(files: SiteFiles): Config {
  return parseConfig(files.read(CONFIG_FILE)?.toString('utf8'));
}

/**
 * Writes the configuration of a visited folder where it does not say yet how the pages came, or which boxes are there.
 * Out: boxes that are likely and that nobody has named.
 */
export async function settleOwn(
  root: string,
  manifest: Manifest,
  given: readonly Box[] | undefined,
  ask: ((candidates: readonly BoxCandidate[]) => Promise<readonly Box[]>) | undefined,
): Promise<readonly BoxCandidate[]> {
  const files = openFolder(root);
  const config = configOf(files);
  let own = given ?? config.own;
  let likely: readonly BoxCandidate[] = [];
  if (own === undefined) {
    likely = candidatesOf(files, manifest);
    if (likely.length > 0 && ask !== undefined) {
      own = await ask(likely);
      likely = [];
    }
  }
  for (const box of given ?? [])
    if (!isThere(files, manifest, box)) throw new UsageError('visit-no-box', { box: boxName(box) });
  const text = files.read(CONFIG_FILE)?.toString('utf8');
  const raw: object = text === undefined ? {} : (JSON.parse(text) as object);
  const merged = { ...raw, rendering: { visit: manifest.start }, ...(own === undefined ? {} : { own }) };
  if (JSON.stringify(merged) !== JSON.stringify(raw))
    keepFile(root, CONFIG_FILE, `${JSON.stringify(merged, null, 2)}\n`);
  return likely;
}

function* textsOf(files: SiteFiles, manifest: Manifest): Generator<string> {
  for (const { file } of manifest.pages) {
    const text = readText(files, file)?.text;
    if (text !== undefined) yield text;
  }
}

function sheetTexts(files: SiteFiles, { files: entries, origin }: Manifest): Map<string, string> {
  const found = new Map<string, string>();
  for (const { kind, file, address } of entries) {
    if (kind !== 'sheet' || !address.startsWith(`${origin}/`)) continue;
    const text = readText(files, file)?.text;
    if (text !== undefined) found.set(file, text);
  }
  return found;
}

function candidatesOf(files: SiteFiles, manifest: Manifest): BoxCandidate[] {
  return guessBoxes({ pages: textsOf(files, manifest), sheets: sheetTexts(files, manifest) });
}

function isThere(files: SiteFiles, manifest: Manifest, box: Box): boolean {
  if ('sheet' in box) {
    const end = trimmedBefore(box.sheet, '/');
    return manifest.files.some(
      ({ file, address }) => `/${file}`.endsWith(`/${end}`) || address.endsWith(`/${end}`),
    );
  }
  const selector = 'style' in box ? box.style : box.page;
  for (const text of textsOf(files, manifest))
    if (styleBlocks(text).some((block) => meansBlock(selector, block))) return true;
  return false;
}
