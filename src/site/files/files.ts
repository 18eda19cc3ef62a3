// Where a site's files come from: a folder on the disk, or a commit of a git repository. Read only.

import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, realpathSync, statSync } from 'node:fs';
import path from 'node:path';
import { globSync } from 'tinyglobby';
import { isAbove } from '../../core/base/addresses.js';
import { withoutEnd } from '../../core/base/phrases.js';
import { UsageError } from '../../core/base/usage-error.js';
import { leaveOut, leftOutSoFar } from './notices.js';

export const CONFIG_FILE = 'acervus.json';

export interface SiteFiles {
  /** For messages: the folder, or the commit. */
  readonly label: string;
  /** Site-relative paths with `/`, sorted; hidden and dependency folders left out. */
  list(): readonly string[];
  /**
   * `undefined` when there is no such file, or a link to one outside of the site: what is out there is none of it.
   * A path that begins with `../` is read all the same: a sheet that pages link is one of theirs wherever it lies.
   */
  read(file: string): Buffer | undefined;
  /** Whether a file has other names in the site, by links: what is written under one changes all. */
  isLinked?(file: string): boolean;
  /** Whether a file is a link to one outside of the site. */
  leadsOut?(file: string): boolean;
}

export const DEPENDENCY_FOLDERS = ['node_modules', 'bower_components', 'jspm_packages'];

/** Throws `UsageError` for a folder that is none. */
export function openFolder(folder: string): SiteFiles {
  const root = path.resolve(folder);
  if (!existsSync(root)) throw new UsageError('folder-missing', { folder });
  if (!statSync(root).isDirectory()) throw new UsageError('folder-is-file', { folder });
  const real = realpathSync(root);
  let found: LinkedFiles | undefined;
  const placeOf = (file: string): 'inside' | 'outside' | 'nowhere' => {
    const full = path.join(root, file);
    if (!existsSync(full) || !statSync(full).isFile()) return 'nowhere';
    const target = realpathSync(full);
    return target === real || target.startsWith(real + path.sep) ? 'inside' : 'outside';
  };
  return {
    label: folder,
    list: () => {
      found ??= listOnce(real);
      return found.files;
    },
    isLinked: (file) => {
      found ??= listOnce(real);
      return found.linked.has(file);
    },
    leadsOut: (file) => !isAbove(file) && placeOf(file) === 'outside',
    read: (file) => {
      const place = placeOf(file);
      if (place === 'outside' && file === CONFIG_FILE) throw new UsageError('link-leads-out', { file });
      // What leads out and back in is a file of the site by another name: the two would be taken for two files.
      const isRead = place === (isAbove(file) ? 'outside' : 'inside');
      return isRead ? readFileSync(path.join(root, file)) : undefined;
    },
  };
}

interface LinkedFiles {
  /** Each file once, under its own path. */
  readonly files: readonly string[];
  /** Paths that are links, and files that links lead to. */
  readonly linked: ReadonlySet<string>;
}

/** In: the real path of a folder. */
function listOnce(real: string): LinkedFiles {
  const names = globSync(['**/*'], {
    cwd: real,
    dot: false,
    followSymbolicLinks: true,
    expandDirectories: false,
    ignore: DEPENDENCY_FOLDERS.map((name) => `**/${name}/**`),
  })
    .map((file) => file.replaceAll('\\', '/'))
    .sort();
  const all = new Set(names);
  const linked = new Set<string>();
  const files = names.filter((name) => {
    const target = realPathOf(path.join(real, name));
    const own = target === undefined ? name : path.relative(real, target).split(path.sep).join('/');
    if (own === name || !all.has(own)) return true;
    linked.add(name).add(own);
    // Where it stands beside the folder or file that it leads to, every address in it means the same.
    if (!isBeside(name, own) && !isLoop(name, own)) leaveOut(own, 'is there under two names (a link)');
    return false;
  });
  const left = leftOutSoFar();
  return { files: files.filter((file) => left.get(file) !== 'is there under two names (a link)'), linked };
}

function realPathOf(full: string): string | undefined {
  try {
    return realpathSync(full);
  } catch {
    // A link to nothing.
    return undefined;
  }
}

/** Whether a link on the way leads back to a folder above it: nobody goes that way. */
function isLoop(name: string, own: string): boolean {
  const [long, short] = [name.split('/'), own.split('/')];
  const more = long.length - short.length;
  if (more <= 0) return false;
  return short.some((_, at) => [...long.slice(0, at), ...long.slice(at + more)].join('/') === own);
}

/** Whether two paths differ in one name only, in the same folder. */
function isBeside(a: string, b: string): boolean {
  const [one, other] = [a.split('/'), b.split('/')];
  return one.length === other.length && one.filter((part, at) => part !== other[at]).length === 1;
}

/** A repository's own settings may name programs to run and hosts to ask: none of them is for reading what is there. */
const HARMLESS = [
  ...['protocol.allow=never', 'core.fsmonitor=false', 'core.hooksPath=/dev/null'],
  ...['core.alternateRefsCommand=', 'core.sshCommand=false', 'core.gitProxy='],
].flatMap((setting) => ['-c', setting]);
const OFFLINE = {
  ...{ GIT_ALLOW_PROTOCOL: 'none', GIT_NO_LAZY_FETCH: '1', GIT_TERMINAL_PROMPT: '0' },
  ...{ GIT_OPTIONAL_LOCKS: '0', GIT_ASKPASS: 'false', GIT_SSH_COMMAND: 'false' },
};

/** Runs git for reading, without anything that a repository's settings could make of it. Throws what git throws. */
export function runGit(folder: string, words: readonly string[]): Buffer {
  return execFileSync('git', [...HARMLESS, ...words], {
    cwd: path.resolve(folder),
    env: { ...process.env, ...OFFLINE },
    stdio: ['ignore', 'pipe', 'pipe'],
    maxBuffer: 1 << 30,
  });
}

/** The site as it was at a commit. `folder` is the site's folder in the work tree. Throws `UsageError`. */
export function openCommit(folder: string, reference: string): SiteFiles {
  const git = (...args: string[]): Buffer => runGit(folder, args);
  let tree: string;
  let commit: string;
  let prefix: string;
  try {
    prefix = git('rev-parse', '--show-prefix').toString().trim();
    tree = git('rev-parse', '--verify', '--quiet', '--end-of-options', `${reference}^{commit}`)
      .toString()
      .trim();
    commit = tree;
    if (prefix !== '')
      tree = git('rev-parse', `${tree}:${withoutEnd(prefix, '/')}`)
        .toString()
        .trim();
  } catch {
    throw new UsageError('not-a-state', { reference });
  }
  const skipped = new RegExp(`(^|/)(\\.|(${DEPENDENCY_FOLDERS.join('|')})/)`);
  const objects = new Map<string, string>();
  for (const row of git('ls-tree', '-r', '-z', '--full-tree', tree).toString('utf8').split('\0')) {
    const match = /^100\d+ blob ([0-9a-f]+)\t(.*)$/s.exec(row);
    if (match !== null && !skipped.test(match[2]!)) objects.set(match[2]!, match[1]!);
  }
  /** In: a path from the repository's top. What lies above that is in no commit. */
  const objectAbove = (file: string): string | undefined => {
    if (isAbove(file) || file.startsWith(prefix)) return undefined;
    const row = git('ls-tree', '--full-tree', commit, '--', file).toString('utf8');
    return /^100\d+ blob ([0-9a-f]+)\t/.exec(row)?.[1];
  };
  return {
    label: reference,
    list: () => [...objects.keys()].sort(),
    read: (file) => {
      const object = isAbove(file) ? objectAbove(path.posix.join(prefix, file)) : objects.get(file);
      if (object === undefined) return undefined;
      try {
        return git('cat-file', 'blob', object);
      } catch {
        throw new UsageError('blob-missing', { file, reference });
      }
    },
  };
}
