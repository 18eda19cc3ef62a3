// What a killed process leaves behind: the files that an atomic write begins with, named as the file and a number.

import { existsSync, readdirSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { DRAFT_FILE } from '../../core/edit/draft/index.js';
import { insideSite } from '../files/inside.js';
import type { ChangeRecord } from './record.js';

const BEGUN = /\.\d{5,10}$/;
/** Milliseconds by which the time of a file may lag behind the clock: file systems round it, some to two seconds. */
const LAG = 2000;

/** Takes away what was begun in our own folder, and the beginnings of a draft. */
export function sweepOwn(root: string): void {
  for (const folder of ['.acervus', ...['ledger', 'cache'].map((name) => path.join('.acervus', name))]) {
    const full = insideSite(root, folder);
    if (existsSync(full)) sweep(full, (name) => name.replace(BEGUN, '').endsWith('.json'));
  }
  sweep(root, (name) => name.replace(BEGUN, '') === DRAFT_FILE);
}

/** Takes away the beginnings of files that a change was cut short in; a file of that name that was there before stays. */
export function sweepChange(root: string, { files, time }: ChangeRecord): void {
  const since = Date.parse(time) - LAG;
  for (const { path: file } of files) {
    const folder = path.dirname(insideSite(root, file));
    if (!existsSync(folder)) continue;
    const isBegun = (name: string): boolean =>
      name.replace(BEGUN, '') === path.posix.basename(file) &&
      statSync(path.join(folder, name)).mtimeMs >= since;
    sweep(folder, isBegun);
  }
}

function sweep(folder: string, isOurs: (name: string) => boolean): void {
  for (const name of readdirSync(folder))
    if (BEGUN.test(name) && isOurs(name)) rmSync(path.join(folder, name), { force: true });
}
