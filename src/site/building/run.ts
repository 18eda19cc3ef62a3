// Runs the build that a site's configuration names.

import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { includesAny, linesOf } from '../../core/base/phrases.js';
import { UsageError } from '../../core/base/usage-error.js';

/** So much of what a build says is kept, in characters: its end. */
const KEPT = 4000;
/** Milliseconds. */
const PATIENCE = 15 * 60_000;

export interface BuildCommand {
  readonly build: string;
  readonly into: string;
}

/** What a build came to: nothing where it succeeded, else the end of what it said. */
export type BuildEnd = { readonly failed: false } | { readonly failed: true; readonly said: string };

/** Runs a build in a folder. Out: how it ended; never throws for what the build does. */
export function runBuild({ build, into }: BuildCommand, folder: string, root: string): Promise<BuildEnd> {
  return new Promise((resolve) => {
    const bins = [folder, root].map((one) => path.join(one, 'node_modules', '.bin'));
    const child = spawn(build, {
      cwd: folder,
      shell: true,
      stdio: ['ignore', 'pipe', 'pipe'],
      timeout: PATIENCE,
      env: {
        ...process.env,
        PATH: [...bins, process.env.PATH ?? ''].join(path.delimiter),
        CI: 'true',
        NO_COLOR: '1',
      },
    });
    let said = '';
    const hear = (data: Buffer): void => {
      said = (said + data.toString('utf8')).slice(-KEPT);
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.on('error', (error) => resolve({ failed: true, said: error.message }));
    child.on('close', (code, signal) => {
      if (code !== 0) resolve({ failed: true, said: lastWords(said) || `it ended with ${code ?? signal}` });
      else if (!existsSync(path.join(folder, into)))
        resolve({ failed: true, said: `it made no folder ${into}` });
      else resolve({ failed: false });
    });
  });
}

/** How runtimes and build programs begin a line that says what is wrong. */
const VERDICT =
  /^[^\w]*(?:\[[^\]]*\]\s*)?(?:uncaught\s+)?(?:\w*(?:error|exception)|fatal|fail(?:ed|ure)?)\b/i;
const COMPLAINT = [
  'error',
  'fail',
  'cannot',
  "can't",
  'not found',
  'unexpected',
  'undefined',
  'invalid',
  'missing',
];

/** The line of the output that says most of what went wrong: the first that complains, else the last. */
function lastWords(said: string): string {
  const lines = linesOf(stripVTControlCharacters(said))
    .map((line) => line.trim())
    .filter((line) => line !== '' && !/^at\s/.test(line));
  const line =
    lines.find((one) => VERDICT.test(one)) ??
    lines.find((one) => includesAny(one.toLowerCase(), COMPLAINT)) ??
    lines.at(-1) ??
    '';
  return line.length > 300 ? `${line.slice(0, 299)}…` : line;
}

/** Throws `UsageError` for a build that failed. */
export function refuseFailed(command: BuildCommand, end: BuildEnd): void {
  if (end.failed) throw new UsageError('build-failed', { command: command.build, said: end.said });
}
