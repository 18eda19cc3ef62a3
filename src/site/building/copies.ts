// Files that a build hands on as they are: what is changed in the source changes in what is built.

import { readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { openFolder } from '../files/files.js';
import { sha256 } from '../ledger/record.js';
import type { Sources } from './sources.js';

/** Bytes: what is larger is no sheet that anybody edits. */
const LARGEST = 2_000_000;

/** In: the folder that a build wrote; its sources. Out: by path of a built file, the source that it equals. */
export function copiesIn(folder: string, { root, files }: Sources): Map<string, string> {
  const byName = new Map<string, string[]>();
  for (const file of files) {
    const name = path.posix.basename(file);
    const known = byName.get(name);
    if (known === undefined) byName.set(name, [file]);
    else known.push(file);
  }
  const found = new Map<string, string>();
  for (const file of openFolder(folder).list()) {
    const named = byName.get(path.posix.basename(file));
    if (named === undefined || statSync(path.join(folder, file)).size > LARGEST) continue;
    const print = sha256(readFileSync(path.join(folder, file)));
    const alike = named.filter((one) => sha256(readFileSync(path.join(root, one))) === print);
    // Of several that are alike, the one whose folders are most alike.
    const [best] = alike.sort((a, b) => sharedEnd(b, file) - sharedEnd(a, file));
    if (best !== undefined) found.set(file, best);
  }
  return found;
}

/** How many names two paths have in common at their ends. */
function sharedEnd(a: string, b: string): number {
  const [one, other] = [a.split('/').reverse(), b.split('/').reverse()];
  const apart = one.findIndex((name, at) => name !== other[at]);
  return apart < 0 ? one.length : apart;
}

/**
 * In: files by what they are built to; the path of one that is to be built.
 * Out: where its source would stand: where that of its nearest neighbours does, most of them where they differ.
 */
export function placeForNew(copies: ReadonlyMap<string, string>, file: string): string | undefined {
  for (let folder = path.posix.dirname(file); ; folder = path.posix.dirname(folder)) {
    const inside = folder === '.' ? '' : `${folder}/`;
    const counts = new Map<string, number>();
    for (const [built, source] of copies) {
      if (!built.startsWith(inside) || !source.endsWith(built.slice(inside.length))) continue;
      const own = source.slice(0, source.length - (built.length - inside.length));
      counts.set(own, (counts.get(own) ?? 0) + 1);
    }
    const [best] = [...counts].sort(([a, times], [b, others]) => others - times || (a < b ? -1 : 1));
    if (best !== undefined) return best[0] + file.slice(inside.length);
    if (folder === '.') return undefined;
  }
}
