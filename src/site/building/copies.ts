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

/** In: files by what they are built to; the path of one that is to be built. Out: where its source would stand. */
export function placeForNew(copies: ReadonlyMap<string, string>, file: string): string | undefined {
  const name = path.posix.basename(file);
  for (let folder = path.posix.dirname(file); ; folder = path.posix.dirname(folder)) {
    const rest = folder === '.' ? file : file.slice(folder.length + 1);
    const beside = [...copies].find(
      ([built]) => path.posix.dirname(built) === folder && path.posix.basename(built) !== name,
    );
    if (beside !== undefined) {
      const own = path.posix.dirname(beside[1]);
      return own === '.' ? rest : `${own}/${rest}`;
    }
    if (folder === '.') return undefined;
  }
}
