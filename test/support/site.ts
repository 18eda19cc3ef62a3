// Sites in temporary folders, and the built program run on them.

import { spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import type { Terminal } from '../../src/cli/shared/terminal.js';

export const PROJECT = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..', '..', '..');
export const DEMO = path.join(PROJECT, 'demo', 'site');

/** A copy of a part of the demo: less to search where the search is not what is tested. */
export function demoPart(folder: string, parts: readonly string[]): string {
  for (const part of [...parts, 'components', 'theme', 'platform'])
    cpSync(path.join(DEMO, part), path.join(folder, part), { recursive: true });
  return folder;
}

const PROGRAM = path.join(PROJECT, 'dist', 'cli', 'main.js');

process.env.NO_COLOR = '1';
const built: Promise<typeof import('../../src/cli/program.js')> = import(
  pathToFileURL(path.join(PROJECT, 'dist', 'cli', 'program.js')).href
);

export type Files = Readonly<Record<string, string | Buffer>>;

const made: string[] = [];

/** A folder with these files, removed when the test process ends. */
export function makeSite(files: Files): string {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'acervus-test-'));
  if (made.length === 0)
    process.on('exit', () => {
      for (const one of made) rmSync(one, { recursive: true, force: true });
    });
  made.push(folder);
  addFiles(folder, files);
  return folder;
}

export function addFiles(folder: string, files: Files): void {
  for (const [name, content] of Object.entries(files)) {
    const file = path.join(folder, name);
    mkdirSync(path.dirname(file), { recursive: true });
    writeFileSync(file, content);
  }
}

export interface Run {
  readonly code: number | null;
  readonly stdout: string;
  readonly stderr: string;
}

/** The built program in this process, as it is imported: starting it anew for each question takes most of a test's time. */
export function acervus(...args: readonly string[]): Promise<Run> {
  return acervusOn({}, args);
}

/** The same at another terminal. */
export async function acervusOn(terminal: Partial<Terminal>, args: readonly string[]): Promise<Run> {
  const { runProgram } = await built;
  const said = { stdout: '', stderr: '' };
  const code = await runProgram(args, {
    write: (text) => {
      said.stdout += text;
    },
    warn: (text) => {
      said.stderr += text;
    },
    isWatched: false,
    canAsk: false,
    environment: {},
    ...terminal,
  });
  return { code, ...said };
}

/** The built program as a person starts it. */
export function acervusProcess(args: readonly string[], environment: NodeJS.ProcessEnv = {}): Run {
  const done = spawnSync(process.execPath, [PROGRAM, ...args], {
    encoding: 'utf8',
    env: { ...process.env, NO_COLOR: '1', ...environment },
    maxBuffer: 1 << 28,
  });
  return { code: done.status, stdout: done.stdout, stderr: done.stderr };
}

/** Every file of a folder with its bytes as base64, hidden ones too: for "byte for byte". */
export function snapshot(folder: string): Map<string, string> {
  const files = new Map<string, string>();
  const visit = (inside: string): void => {
    for (const entry of readdirSync(path.join(folder, inside), { withFileTypes: true })) {
      const name = path.join(inside, entry.name);
      if (entry.isDirectory()) visit(name);
      else files.set(name, readFileSync(path.join(folder, name)).toString('base64'));
    }
  };
  visit('');
  return files;
}

export function read(folder: string, file: string): string {
  return readFileSync(path.join(folder, file), 'utf8');
}

/** A whole page around a body. */
export function htmlPage(body: string, head = ''): string {
  return `<!DOCTYPE html>\n<html lang="en">\n<head>\n  <meta charset="utf-8">\n  <title>Skerrin Line</title>\n${head}</head>\n<body>\n${body}\n</body>\n</html>\n`;
}
