// Reads the pages of a site, and nothing that takes long to load: a thread that only reads pages starts with this.

import { type BlockCompiler, componentProblem, readComponent } from '../../core/read/components/index.js';
import { isComponentFile, isTemplate } from '../../core/read/kinds/index.js';
import { hasTemplateText } from '../../core/read/markup/index.js';
import type { Mentions } from '../../core/read/standing/index.js';
import type { Config } from '../config.js';
import { type Visited, withBoxes } from '../visiting/with-boxes.js';
import { blockCompiler } from './compiled.js';
import type { Decoded } from './encoding.js';
import { CONFIG_FILE, type SiteFiles } from './files.js';
import { leaveOut } from './notices.js';
import { holdsMarkup } from './templates.js';
import { readText } from './text.js';

/** Where pages come from. */
export interface PageSource {
  /** Paths of all files that may be pages, in order. */
  readonly pagePaths: readonly string[];
  /** The text of a page; `undefined` for one that is empty or gone. */
  page(path: string): string | undefined;
  isComponent(path: string): boolean;
  /** The sheets that style a page, where they are not told by what it links. */
  sheetsFor(path: string): readonly string[] | undefined;
  /** What comes of a style block of a component that takes in other files. */
  readonly compileBlock: BlockCompiler;
  /** A local copy of a sheet that lies elsewhere, if the developer named one. */
  copyOf(address: string): string | undefined;
  /** Which files the names in templates mean. */
  readonly mentions: Mentions;
}

/** What one thread tells another of a `PageSource`. */
export interface PageSourceData {
  readonly paths: readonly string[];
  readonly components: ReadonlySet<string>;
  readonly copies: ReadonlyMap<string, string>;
  readonly given: ReadonlyMap<string, readonly string[]>;
  readonly mentions: Mentions;
  /** Of a running system: what was brought of it. */
  readonly visited: Visited | undefined;
}

export function pageSource(
  files: SiteFiles,
  { paths, components, copies, given, mentions, visited }: PageSourceData,
): PageSource {
  return {
    pagePaths: paths,
    page: (path) => boxed(readPageText(files, path)?.text, path, visited, files),
    isComponent: (path) => components.has(path),
    sheetsFor: (path) => given.get(path),
    compileBlock: blockCompiler(files),
    copyOf: (address) => copies.get(address),
    mentions,
  };
}

/** The text of a page of a running system, its boxes as sheets of their own. */
export function boxed(
  text: string | undefined,
  file: string,
  visited: Visited | undefined,
  files: SiteFiles,
): string | undefined {
  if (text === undefined || visited === undefined) return text;
  return withBoxes(text, file, visited, (box) => files.read(box) !== undefined);
}

/** A decoded page; `undefined` for one that is empty, gone, or left out for what it is. */
export function readPageText(files: SiteFiles, file: string): Decoded | undefined {
  const decoded = readText(files, file);
  if (decoded === undefined || decoded.text.trim() === '') return undefined;
  if (decoded.isMixed) {
    leaveOut(file, 'mixes two encodings');
    return undefined;
  }
  if (isComponentFile(file) && readComponent(file, decoded.text) === undefined) {
    leaveOut(file, componentProblem(file));
    return undefined;
  }
  if (isComponentFile(file) || isTemplate(file)) {
    // Much of a theme is code alone, which is nothing to mention.
    if (!holdsMarkup(file, decoded.text)) return undefined;
  } else if (!/<[a-z!?/%]/i.test(decoded.text) && !hasTemplateText(decoded.text)) {
    leaveOut(file, 'holds no tag');
    return undefined;
  }
  return decoded;
}

/** The site's configuration. What checks it is loaded only where there is one. Throws `UsageError`. */
export async function readConfig(files: SiteFiles): Promise<Config> {
  const text = files.read(CONFIG_FILE)?.toString('utf8');
  return text === undefined ? {} : (await import('../config.js')).parseConfig(text);
}
