#!/usr/bin/env node
// The `acervus` program as a process.

import { setFlagsFromString } from 'node:v8';
import { codeOf, runProgram } from './program.js';
import { processTerminal } from './shared/terminal.js';

// Pages are many small objects that live as long as their page: a nursery that holds one halves the time spent
// collecting. Every thread has its own, so that it is kept below what many threads could not afford.
// What asks about the whole site, or plans a change of it, holds all of it in one thread.
const plans = !['survey', 'prove', 'undo'].includes(process.argv[2] ?? '');
setFlagsFromString(`--max-semi-space-size=${plans ? 64 : 32}`);
setFlagsFromString('--min-semi-space-size=16');
// What is old is looked through before it has grown to a multiple: the memory of a large site is the bound, not the time.
setFlagsFromString('--heap-growing-percent=60');
setFlagsFromString('--semi-space-growth-factor=8');

// A reader that stops reading, as `head` does, is no failure.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EPIPE') process.exit(process.exitCode ?? 0);
  throw error;
});

// What escapes every command, a broken pipe within a thread, say.
process.on('uncaughtException', async (error) => process.exit(await codeOf(error, processTerminal)));

process.exitCode = await runProgram(process.argv.slice(2), processTerminal);
