// Numbers as they are typed behind an option. Which of them a command can use, the command says.

import { UsageError } from '../../core/base/usage-error.js';

/** Out: `undefined` where nothing was typed. Throws what `complain` makes of a text that is no whole number. */
export function readWhole(
  given: string | undefined,
  complain: (given: string) => UsageError,
): number | undefined {
  if (given === undefined) return undefined;
  const number = Number(given);
  if (given.trim() === '' || !Number.isInteger(number)) throw complain(given);
  return number;
}

/** The number of threads behind `--jobs`. */
export function readJobs(given: string | undefined): number | undefined {
  return readWhole(given, (text) => new UsageError('jobs', { given: text }));
}
