// Which files changed since a commit, as git has it: those that are new and not yet known to it among them.

import { existsSync } from 'node:fs';
import path from 'node:path';
import { UsageError } from '../../core/base/usage-error.js';
import { runGit } from './files.js';

/** In: the site's folder in a work tree; a commit. Out: site-relative paths; what is gone is not among them. */
export function changedSince(folder: string, reference: string): string[] {
  let names: string[];
  try {
    const git = (...words: string[]): string[] =>
      runGit(folder, words)
        .toString('utf8')
        .split('\0')
        .filter((name) => name !== '');
    names = [
      ...git(
        'diff',
        '--name-only',
        '--no-renames',
        '--no-ext-diff',
        '--relative',
        '-z',
        '--end-of-options',
        reference,
        '--',
        '.',
      ),
      ...git('ls-files', '--others', '--exclude-standard', '-z', '--', '.'),
    ];
  } catch {
    throw new UsageError('hold-since', { reference });
  }
  return [...new Set(names)].filter((file) => existsSync(path.join(folder, file))).sort();
}
