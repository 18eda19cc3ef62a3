// A Chromium that is installed, found and started; none is ever downloaded.

import { accessSync, constants } from 'node:fs';
import path from 'node:path';
import { type Browser, chromium } from 'playwright-core';
import { UsageError } from '../core/usage-error.js';

const NAMES = ['chromium', 'chromium-browser', 'google-chrome', 'google-chrome-stable', 'chrome', 'msedge'];
const PLACES = [
  '/Applications/Chromium.app/Contents/MacOS/Chromium',
  '/Applications/Google Chrome.app/Contents/MacOS/Google Chrome',
];

/** The path of a Chromium: the variable CHROMIUM, then the usual names on the search path. */
export function findChromium(environment: NodeJS.ProcessEnv = process.env): string | undefined {
  if (environment.CHROMIUM !== undefined && environment.CHROMIUM !== '') return environment.CHROMIUM;
  const folders = (environment.PATH ?? '').split(path.delimiter).filter((folder) => folder !== '');
  const candidates = [
    ...NAMES.flatMap((name) => folders.map((folder) => path.join(folder, name))),
    ...PLACES,
  ];
  return candidates.find(isExecutable);
}

function isExecutable(file: string): boolean {
  try {
    accessSync(file, constants.X_OK);
    return true;
  } catch {
    return false;
  }
}

/** Starts a browser that reaches nothing but this machine. Throws `UsageError` where there is none. */
export async function startChromium(): Promise<Browser> {
  const executablePath = findChromium();
  if (executablePath === undefined) throw new UsageError('no-chromium', {});
  const args = [
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1',
    // Containers run as root, where Chromium's own sandbox cannot start.
    ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
  ];
  try {
    return await chromium.launch({ executablePath, args });
  } catch (error) {
    const [line] = (error as Error).message.split('\n');
    throw new UsageError('chromium-fails', { path: executablePath, problem: line ?? '' });
  }
}
