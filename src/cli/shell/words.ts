// What may stand where somebody is typing: commands, options, pages and classes of the site, folders.

import { existsSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import type { Command } from 'commander';
import { collectNames } from '../../core/ask/visit/changes.js';
import { openFolder, type SiteFiles } from '../../site/files/files.js';
import { readConfig } from '../../site/files/pages.js';
import { readText } from '../../site/files/text.js';
import { SiteReader } from '../../site/rendering/reader.js';

const MOST = 500;
/** So many pages are looked into for names: nobody waits for a completion. */
const MOST_PAGES = 40;

/** What an argument of a command is completed with. */
const ARGUMENTS: Readonly<Record<string, readonly ('page' | 'name' | 'class')[]>> = {
  explain: ['page', 'name'],
  reach: ['name'],
  restyle: ['name'],
  override: ['name'],
  rename: ['class', 'class'],
};

/** In: the whole program; the words behind `acervus`, the one that is being typed last. */
export async function candidates(program: Command, words: readonly string[]): Promise<string[]> {
  const typed = words.at(-1) ?? '';
  const [name = ''] = words;
  if (words.length <= 1)
    return fitting([...program.commands.map((one) => one.name()), '--help', '--version'], typed);
  const command = program.commands.find((one) => one.name() === name);
  if (command === undefined) return [];
  if (typed.startsWith('-'))
    return fitting([...command.options.flatMap(({ long }) => long ?? []), '--help'], typed);
  const before = words.slice(1, -1).filter((word) => !word.startsWith('-'));
  const kind = ARGUMENTS[name]?.[before.length];
  const found = kind === undefined ? [] : await ofSite(kind);
  return fitting([...found, ...folders(typed)], typed);
}

function fitting(all: readonly string[], typed: string): string[] {
  return [...new Set(all)].filter((one) => one.startsWith(typed)).slice(0, MOST);
}

/** The site is the current folder: it is typed last, if at all. What is no site has nothing to offer. */
async function ofSite(kind: 'page' | 'name' | 'class'): Promise<string[]> {
  try {
    const files = openFolder('.');
    const reader = new SiteReader(files, await readConfig(files));
    if (kind === 'page') return [...reader.pagePaths];
    const names = [...namesOf(files, reader.pagePaths)].sort();
    return kind === 'class' ? names.filter((one) => one.startsWith('.')) : names;
  } catch {
    return [];
  }
}

function namesOf(files: SiteFiles, pages: readonly string[]): Set<string> {
  const names = new Set<string>();
  for (const page of pages.slice(0, MOST_PAGES)) collectNames(readText(files, page)?.text ?? '', names);
  return names;
}

function folders(typed: string): string[] {
  const parent = typed.endsWith('/') || typed === '' ? typed : typed.slice(0, typed.lastIndexOf('/') + 1);
  const at = parent === '' ? '.' : parent;
  if (!existsSync(at) || !statSync(at).isDirectory()) return [];
  return readdirSync(at, { withFileTypes: true })
    .filter((one) => one.isDirectory() && !one.name.startsWith('.'))
    .map((one) => `${parent}${one.name}${path.posix.sep}`);
}
