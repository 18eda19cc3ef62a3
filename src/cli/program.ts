// The program: its commands, and what becomes of what they throw. Each loads when it is asked for, so that help and
// mistakes answer at once.

import { Command, CommanderError } from 'commander';
import { withSingleSpaces } from '../core/base/phrases.js';
import { clean } from '../core/base/site-text.js';
import { type Notices, noNotices, withNotices } from '../site/files/notices.js';
import { programVersion } from '../site/version.js';
import type { Act, Terminal } from './shared/terminal.js';

type Define = (program: Command, act: Act) => void;

/** In the order of work, as the help shows them. */
const GROUPS: ReadonlyMap<string, readonly string[]> = new Map([
  ['To clean a site:', ['survey', 'draft', 'adopt', 'prove', 'undo']],
  ['To ask:', ['explain', 'reach']],
  ['To change one thing:', ['restyle', 'rename', 'override', 'outlast', 'family']],
  ['A site that only runs:', ['visit']],
  ['To keep it so:', ['hold', 'values', 'sampler', 'starter']],
  ['To begin:', ['demo', 'shell']],
]);

const COMMANDS: ReadonlyMap<string, () => Promise<Define>> = new Map([
  ['survey', async () => (await import('./survey/command.js')).defineSurvey],
  ['draft', async () => (await import('./draft/command.js')).defineDraft],
  ['adopt', async () => (await import('./adopt/command.js')).defineAdopt],
  ['prove', async () => (await import('./prove/command.js')).defineProve],
  ['explain', async () => (await import('./explain/command.js')).defineExplain],
  ['reach', async () => (await import('./reach/command.js')).defineReach],
  ['restyle', async () => (await import('./restyle/command.js')).defineRestyle],
  ['rename', async () => (await import('./rename/command.js')).defineRename],
  ['override', async () => (await import('./override/command.js')).defineOverride],
  ['outlast', async () => (await import('./outlast/command.js')).defineOutlast],
  ['family', async () => (await import('./family/command.js')).defineFamily],
  ['visit', async () => (await import('./visit/command.js')).defineVisit],
  ['values', async () => (await import('./values/command.js')).defineValues],
  ['hold', async () => (await import('./hold/command.js')).defineHold],
  ['sampler', async () => (await import('./sampler/command.js')).defineSampler],
  ['starter', async () => (await import('./starter/command.js')).defineStarter],
  ['undo', async () => (await import('./undo/command.js')).defineUndo],
  ['demo', loadDemo],
  ['shell', loadShell],
]);

/** The demo runs the other commands as if they were typed. */
async function loadDemo(): Promise<Define> {
  const { defineDemo } = await import('./demo/command.js');
  return (program, act) => defineDemo(program, act, runProgram);
}

/** What completes knows every command. */
async function loadShell(): Promise<Define> {
  const { defineShell } = await import('./shell/command.js');
  return (program, act) => defineShell(program, act, () => wholeProgram(act));
}

/** What a person must mend, and what is a fault of ours. */
const USAGE = 2;
const OUR_FAULT = 3;

/** In: the words behind `acervus`. Out: the exit code: 0, 1 found something, 2 a person must mend it, 3 our fault. */
export async function runProgram(words: readonly string[], terminal: Terminal): Promise<number> {
  let code = 0;
  const notices = noNotices();
  const act: Act =
    (work) =>
    async (...given) => {
      code = await work(terminal, ...given);
    };
  try {
    const program = await buildProgram(words, act, terminal);
    await withNotices(notices, () => program.parseAsync(words.map(asDeclaration), { from: 'user' }));
  } catch (error) {
    code = await codeOf(error, terminal);
  }
  await tell(notices, terminal);
  return code;
}

const MOST_NAMED = 10;

/** One line for each kind of thing there is to say. */
async function tell({ leftOut, unlinked }: Notices, { warn }: Terminal): Promise<void> {
  if (leftOut.size + unlinked.size === 0) return;
  const { messageText } = await import('../core/base/messages/index.js');
  const listed = (names: readonly string[]): string =>
    `${names.slice(0, MOST_NAMED).join(', ')}${names.length > MOST_NAMED ? ` and ${names.length - MOST_NAMED} more` : ''}`;
  const say = (code: 'left-out' | 'unlinked', names: readonly string[]): void => {
    if (names.length > 0) warn(`acervus: ${oneLine(messageText(code, { files: listed(names) }))}\n`);
  };
  say('left-out', [...leftOut].map(([file, why]) => `${file} ${why}`).sort());
  say('unlinked', [...unlinked].sort());
}

const DESCRIPTION =
  'Consolidates the styling of a site into shared classes, and proves that no page looks different.';

/** Of one command that is named nothing but that one is loaded. */
async function buildProgram(words: readonly string[], act: Act, { write, warn }: Terminal): Promise<Command> {
  const program = new Command('acervus')
    .description(DESCRIPTION)
    .version(programVersion())
    .exitOverride()
    .configureOutput({ writeOut: write, writeErr: warn })
    .showHelpAfterError('(acervus --help shows how)')
    .addHelpText(
      'after',
      '\nStart with:\n  acervus survey my-site\n  acervus demo            the whole way, on a site made for it',
    );
  const [word = ''] = words;
  const named = COMMANDS.get(word);
  if (named === undefined) await defineAll(program, act);
  else (await named())(program, act);
  return program;
}

async function wholeProgram(act: Act): Promise<Command> {
  const program = new Command('acervus').description(DESCRIPTION);
  await defineAll(program, act);
  return program;
}

async function defineAll(program: Command, act: Act): Promise<void> {
  for (const [group, names] of GROUPS)
    for (const name of names) {
      (await COMMANDS.get(name)!())(program, act);
      program.commands.at(-1)!.helpGroup(group);
    }
}

/** Says what an error means to a person. Out: its exit code. */
export async function codeOf(error: unknown, { warn, environment }: Terminal): Promise<number> {
  // What it has to say, Commander has said.
  if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : USAGE;
  if (error instanceof Error && error.name === 'UsageError') {
    warn(`acervus: ${oneLine(error.message)}\n`);
    return USAGE;
  }
  if (isSystemError(error)) {
    const { code = '', path: file = 'a file' } = error;
    const { messageText } = await import('../core/base/messages/index.js');
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
  return withSingleSpaces(clean(text));
}

/** `--ink: teal` is a declaration, not an option. */
function asDeclaration(word: string): string {
  return /^--[^\s:=]+\s*:/.test(word) ? ` ${word}` : word;
}
