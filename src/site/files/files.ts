// Where a site's files come from: a folder on the disk, or a commit of a git repository. Read only.

import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, realpathSync, statSync } from 'node:fs';
import path from 'node:path';
import { globSync } from 'tinyglobby';
import { UsageError } from '../../core/usage-error.js';

export interface SiteFiles {
  /** For messages: the folder, or the commit. */
  readonly label: string;
  /** Site-relative paths with `/`, sorted; hidden and dependency folders left out. */
  list(): readonly string[];
  /** `undefined` when there is no such file. */
  read(file: string): Buffer | undefined;
}

export const DEPENDENCY_FOLDERS = ['node_modules', 'bower_components', 'jspm_packages'];

/** Throws `UsageError` for a folder that is none, and for links that lead out of it. */
export function openFolder(folder: string): SiteFiles {
  const root = path.resolve(folder);
  if (!existsSync(root)) throw new UsageError('folder-missing', { folder });
  if (!statSync(root).isDirectory()) throw new UsageError('folder-is-file', { folder });
  const real = realpathSync(root);
  let files: string[] | undefined;
  return {
    label: folder,
    list: () => {
      files ??= globSync(['**/*'], {
        cwd: root,
        dot: false,
        followSymbolicLinks: true,
        expandDirectories: false,
        ignore: DEPENDENCY_FOLDERS.map((name) => `**/${name}/**`),
      })
        .map((file) => file.replaceAll('\\', '/'))
        .sort();
      return files;
    },
    read: (file) => {
      const full = path.join(root, file);
      if (!existsSync(full) || !statSync(full).isFile()) return undefined;
      const target = realpathSync(full);
      if (target !== real && !target.startsWith(real + path.sep)) {
        throw new UsageError('link-leads-out', { file });
      }
      return readFileSync(full);
    },
  };
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

/** The site as it was at a commit. `folder` is the site's folder in the work tree. Throws `UsageError`. */
export function openCommit(folder: string, reference: string): SiteFiles {
  const git = (...args: string[]): Buffer =>
    execFileSync('git', [...HARMLESS, ...args], {
      cwd: path.resolve(folder),
      env: { ...process.env, ...OFFLINE },
      stdio: ['ignore', 'pipe', 'pipe'],
      maxBuffer: 1 << 30,
    });
  let tree: string;
  try {
    const prefix = git('rev-parse', '--show-prefix').toString().trim();
    tree = git('rev-parse', '--verify', '--quiet', '--end-of-options', `${reference}^{commit}`)
      .toString()
      .trim();
    if (prefix !== '')
      tree = git('rev-parse', `${tree}:${prefix.replace(/\/$/, '')}`)
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
  return {
    label: reference,
    list: () => [...objects.keys()].sort(),
    read: (file) => {
      const object = objects.get(file);
      if (object === undefined) return undefined;
      try {
        return git('cat-file', 'blob', object);
      } catch {
        throw new UsageError('blob-missing', { file, reference });
      }
    },
  };
}
