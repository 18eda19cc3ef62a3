// The error that only a person can mend: shown as one line, exit code 2.

/** `message` says what is wrong, where, and what to do, in one line without a full stop. */
export class UsageError extends Error {
  override readonly name = 'UsageError';
}
