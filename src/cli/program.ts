// The program: its commands, and what becomes of what they throw. Each command loads when it runs, so that help and
// mistakes answer at once.

import { readFileSync } from 'node:fs';
import { Command, CommanderError } from 'commander';
import { messageText } from '../core/messages.js';
import { defineAdopt } from './commands/adopt/command.js';
import { defineDemo } from './commands/demo/command.js';
import { defineDraft } from './commands/draft/command.js';
import { defineExplain } from './commands/explain/command.js';
import { defineFamily } from './commands/family/command.js';
import { defineOutlast } from './commands/outlast/command.js';
import { defineOverride } from './commands/override/command.js';
import { defineProve } from './commands/prove/command.js';
import { defineReach } from './commands/reach/command.js';
import { defineRename } from './commands/rename/command.js';
import { defineRestyle } from './commands/restyle/command.js';
import { defineSurvey } from './commands/survey/command.js';
import { defineUndo } from './commands/undo/command.js';
import type { Act, Terminal } from './shared/terminal.js';

/** What a person must mend, and what is a fault of ours. */
const USAGE = 2;
const OUR_FAULT = 3;

/** In: the words behind `acervus`. Out: the exit code: 0, 1 found something, 2 a person must mend it, 3 our fault. */
export async function runProgram(words: readonly string[], terminal: Terminal): Promise<number> {
  let code = 0;
  const act: Act =
    (work) =>
    async (...given) => {
      code = await work(terminal, ...given);
    };
  try {
    await buildProgram(act, terminal).parseAsync([...words], { from: 'user' });
    return code;
  } catch (error) {
    return codeOf(error, terminal);
  }
}

function buildProgram(act: Act, { write, warn }: Terminal): Command {
  const program = new Command('acervus')
    .description(
      'Consolidates the styling of a site into shared classes, and proves that no page looks different.',
    )
    .version(version())
    .exitOverride()
    .configureOutput({ writeOut: write, writeErr: warn })
    .showHelpAfterError('(acervus --help shows how)')
    .addHelpText(
      'after',
      '\nStart with:\n  acervus survey my-site\n  acervus demo            the whole way, on a site made for it',
    );
  defineSurvey(program, act);
  defineDraft(program, act);
  defineAdopt(program, act);
  defineProve(program, act);
  defineExplain(program, act);
  defineReach(program, act);
  defineRestyle(program, act);
  defineRename(program, act);
  defineOverride(program, act);
  defineOutlast(program, act);
  defineFamily(program, act);
  defineUndo(program, act);
  defineDemo(program, act, runProgram);
  return program;
}

/** Says what an error means to a person. Out: its exit code. */
export function codeOf(error: unknown, { warn, environment }: Terminal): number {
  // What it has to say, Commander has said.
  if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : USAGE;
  if (error instanceof Error && error.name === 'UsageError') {
    warn(`acervus: ${oneLine(error.message)}\n`);
    return USAGE;
  }
  if (isSystemError(error)) {
    const { code = '', path: file = 'a file' } = error;
    warn(`acervus: ${oneLine(messageText('system', { file, problem: code }))}\n`);
    return USAGE;
  }
  if (environment.ACERVUS_DEBUG === '1' && error instanceof Error) warn(`${error.stack}\n`);
  else
    warn(
      `acervus: a fault of our own (${oneLine(error instanceof Error ? error.message : String(error))}); run it again with ACERVUS_DEBUG=1 and report what it says\n`,
    );
  return OUR_FAULT;
}

/** A file that may not be read, a full disk, a folder where a file should be: the system's to say, a person's to mend. */
function isSystemError(error: unknown): error is NodeJS.ErrnoException {
  return error instanceof Error && 'syscall' in error && 'code' in error;
}

function oneLine(text: string): string {
  return text.replace(/\s+/g, ' ');
}

function version(): string {
  const text = readFileSync(new URL('../../package.json', import.meta.url), 'utf8');
  const { version: own }: { version: string } = JSON.parse(text);
  return own;
}
