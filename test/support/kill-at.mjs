// Loaded before the program: kills it at its n-th operation on files inside a folder, as a power cut would.
// Environment: KILL_AT, a number from 1; KILL_IN, the folder.

import fs from 'node:fs';
import { syncBuiltinESMExports } from 'node:module';
import path from 'node:path';

const at = Number(process.env.KILL_AT);
const folder = path.resolve(process.env.KILL_IN ?? '/nowhere');
const opened = new Set();
let count = 0;

const isOurs = (target) =>
  typeof target === 'number' ? opened.has(target) : path.resolve(String(target)).startsWith(folder);

for (const name of [
  'writeSync',
  'writeFileSync',
  'openSync',
  'renameSync',
  'mkdirSync',
  'rmSync',
  'rmdirSync',
  'unlinkSync',
  'fsyncSync',
  'chownSync',
  'chmodSync',
  'closeSync',
]) {
  const own = fs[name];
  fs[name] = (target, ...rest) => {
    const writes = name !== 'openSync' || /[wa+]/.test(String(rest[0]));
    if (writes && isOurs(target) && ++count === at) process.kill(process.pid, 'SIGKILL');
    const result = own(target, ...rest);
    if (name === 'openSync' && writes && isOurs(target)) opened.add(result);
    return result;
  };
}
syncBuiltinESMExports();
