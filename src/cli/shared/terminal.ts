// Where a command speaks and whether somebody listens. A test gives its own and reads what was said.

export interface Terminal {
  /** Results, to stdout. */
  readonly write: (text: string) => void;
  /** Progress, timings and errors, to stderr. */
  readonly warn: (text: string) => void;
  /** Whether a person watches stderr: progress is for people. */
  readonly isWatched: boolean;
  /** Whether a person can answer a question. */
  readonly canAsk: boolean;
  /** Settings of the environment, such as `ACERVUS_TRACE`. */
  readonly environment: Readonly<Record<string, string | undefined>>;
}

/** What a command's options and its arguments become: the exit code. */
export type Act = <Given extends unknown[]>(
  work: (terminal: Terminal, ...given: Given) => Promise<number>,
) => (...given: Given) => Promise<void>;

export const processTerminal: Terminal = {
  write: (text) => void process.stdout.write(text),
  warn: (text) => void process.stderr.write(text),
  isWatched: process.stderr.isTTY === true,
  canAsk: process.stdin.isTTY === true && process.stdout.isTTY === true,
  environment: process.env,
};
