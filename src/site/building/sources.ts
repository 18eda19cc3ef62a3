// The files that a build reads, and copies of them to build in: nothing is built where a person works.

import { createHash } from 'node:crypto';
import {
  cpSync,
  existsSync,
  lstatSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
} from 'node:fs';
import path from 'node:path';
import { withoutEnd } from '../../core/base/phrases.js';
import { DEPENDENCY_FOLDERS } from '../files/files.js';

/** What is no source: records of our own and of version control. */
const APART = new Set(['.acervus', '.git', '.hg', '.svn']);

export interface Sources {
  readonly root: string;
  /** Paths of all files with `/`, hidden ones too, in order. */
  readonly files: readonly string[];
  /** Folders of dependencies: they are linked to, not copied. */
  readonly dependencies: readonly string[];
  /** SHA-256 of all of it. */
  readonly digest: string;
}

/** In: the site's folder; the folder in it that a build writes into, which is no source. */
export function findSources(root: string, into: string): Sources {
  const files: string[] = [];
  const dependencies: string[] = [];
  const hash = createHash('sha256');
  const left = withoutEnd(path.posix.normalize(into), '/');
  const look = (folder: string): void => {
    const names = readdirSync(path.join(root, folder)).sort();
    for (const name of names) {
      const file = folder === '' ? name : `${folder}/${name}`;
      if (APART.has(name) || file === left) continue;
      const full = path.join(root, file);
      const found = lstatSync(full);
      if (DEPENDENCY_FOLDERS.includes(name) && !found.isFile()) dependencies.push(file);
      else if (found.isDirectory()) look(file);
      else if (found.isFile()) {
        files.push(file);
        hash.update(`${file}\0`).update(readFileSync(full)).update('\0');
      }
    }
  };
  look('');
  return { root, files, dependencies, digest: hash.digest('hex') };
}

/** Copies the sources into a folder, which is emptied first. */
export function copySources({ root, files, dependencies }: Sources, target: string): void {
  rmSync(target, { recursive: true, force: true });
  mkdirSync(target, { recursive: true });
  for (const file of files)
    cpSync(path.join(root, file), path.join(target, file), { preserveTimestamps: true });
  for (const folder of dependencies) {
    const link = path.join(target, folder);
    mkdirSync(path.dirname(link), { recursive: true });
    if (!existsSync(link)) symlinkSync(path.join(root, folder), link, 'dir');
  }
}
