// One change at a time: two processes that write into one site wait for each other, or are told.

import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmdirSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { createRequire } from 'node:module';
import { hostname } from 'node:os';
import path from 'node:path';
import { UsageError } from '../../core/base/usage-error.js';
import { insideSite } from '../files/inside.js';

/** Milliseconds: a change takes less, so that whoever has the lock for longer is gone. */
const STALE = 120_000;
/** Milliseconds that another process is waited for. */
const PATIENCE = 5_000;
const PAUSE = 100;

/** Runs work that writes. Throws `UsageError` where another process does, and goes on doing so. */
export function alone<T>(root: string, work: () => T): T {
  const folder = insideSite(root, '.acervus');
  mkdirSync(folder, { recursive: true });
  const release = takeLock(folder);
  const holder = path.join(folder, 'lock-holder');
  try {
    writeFileSync(holder, `${process.pid} ${hostname()}`);
    return work();
  } finally {
    rmSync(holder, { force: true });
    release();
    if (existsSync(folder) && readdirSync(folder).length === 0) rmdirSync(folder);
  }
}

/** Loaded when something is written: it listens to signals from then on, and who searches is to be ended by them. */
const load = createRequire(import.meta.url);

function takeLock(folder: string): () => void {
  const { lockSync } = load('proper-lockfile') as typeof import('proper-lockfile');
  const lockfilePath = path.join(folder, 'lock');
  for (let waited = 0; ; waited += PAUSE) {
    try {
      return lockSync(folder, { lockfilePath, realpath: false, stale: STALE });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'ELOCKED') throw error;
      if (isHolderGone(folder)) rmdirSync(lockfilePath);
      else if (waited >= PATIENCE) throw new UsageError('site-busy', {});
      else Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, PAUSE);
    }
  }
}

/** Whether the process that has the lock was killed. Of another machine that is not known. */
function isHolderGone(folder: string): boolean {
  const file = path.join(folder, 'lock-holder');
  const [, pid, host] = /^(\d+) (.+)$/.exec(existsSync(file) ? readFileSync(file, 'utf8') : '') ?? [];
  // Who takes the lock says so at once, and takes that away last.
  if (pid === undefined) return isOlder(path.join(folder, 'lock'), 1000);
  if (host !== hostname()) return false;
  return isGone(Number(pid));
}

/** Whether a process of this machine is there no more. */
export function isGone(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return false;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'ESRCH';
  }
}

function isOlder(file: string, milliseconds: number): boolean {
  const { mtimeMs = 0 } = statSync(file, { throwIfNoEntry: false }) ?? {};
  return Date.now() - mtimeMs > milliseconds;
}
