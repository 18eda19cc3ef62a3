// A build of sources whose tags are numbered. Where a mark does harm, the files are halved until the harm is left out.

import { readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { markTags } from '../../core/edit/sources/index.js';
import { isBuilderMarkup } from '../../core/read/kinds/index.js';
import { decodeFile, encodeFile } from '../files/encoding.js';
import type { BuildEnd } from './run.js';
import type { Sources } from './sources.js';

/** Bytes: a file that is larger is data. */
const LARGEST = 1_000_000;
/** So often a build is tried. */
const MOST = 10;

export interface Numbered {
  /** By path of a source, the number of its first tag. */
  readonly firsts: ReadonlyMap<string, number>;
  /** Sources that could not be numbered. */
  readonly unmarked: readonly string[];
}

interface Candidate {
  readonly path: string;
  readonly marked: Buffer;
  readonly first: number;
}

/**
 * In: the sources; a folder with a fresh copy of them, made by `fresh`; how to build there, and what to do with a build that
 * succeeded. Out: the numbers in the last build that was taken.
 */
export async function buildNumbered(
  sources: Sources,
  work: string,
  { fresh, build, take }: { fresh: () => void; build: () => Promise<BuildEnd>; take: () => void },
): Promise<Numbered> {
  const all = candidatesIn(sources);
  let good: readonly Candidate[] = [];
  const groups: (readonly Candidate[])[] = all.length === 0 ? [] : [all];
  for (let tried = 0; groups.length > 0 && tried < MOST; tried++) {
    const group = groups.shift()!;
    fresh();
    for (const { path: file, marked } of [...good, ...group]) writeFileSync(path.join(work, file), marked);
    const end = await build();
    if (!end.failed) {
      take();
      good = [...good, ...group];
    } else if (group.length > 1) {
      const middle = group.length >> 1;
      groups.push(group.slice(0, middle), group.slice(middle));
    }
  }
  const known = new Set(good.map((one) => one.path));
  return {
    firsts: new Map(good.map((one) => [one.path, one.first])),
    unmarked: all.map((one) => one.path).filter((file) => !known.has(file)),
  };
}

function candidatesIn({ root, files }: Sources): Candidate[] {
  const found: Candidate[] = [];
  let first = 1;
  for (const file of files) {
    const full = path.join(root, file);
    if (!isBuilderMarkup(file) || statSync(full).size > LARGEST) continue;
    const decoded = decodeFile(readFileSync(full));
    if (decoded === undefined || decoded.isMixed) continue;
    const { text, tags } = markTags(file, decoded.text, first);
    if (tags.length === 0) continue;
    found.push({ path: file, marked: encodeFile(text, decoded.encoding), first });
    first += tags.length;
  }
  return found;
}
