// A Chromium that is installed, found and started; none is ever downloaded.

import { accessSync, constants } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import type { Browser } from 'playwright-core';
import { UsageError } from '../core/base/usage-error.js';

const load = createRequire(import.meta.url);

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

/**
 * Starts a browser that reaches the given servers on this machine and nothing else, no other port of it either.
 * In: host names with the ports that stand behind them. Throws `UsageError` where there is no browser.
 */
export async function startChromium(hosts: ReadonlyMap<string, number> = new Map()): Promise<Browser> {
  const named = [...hosts].map(([name, port]) => `MAP ${name}:80 127.0.0.1:${port}`);
  return launch([`--host-resolver-rules=${[...named, 'MAP * ~NOTFOUND'].join(', ')}`]);
}

/** Starts a browser that reaches whatever its tabs are let ask for. Throws `UsageError` where there is none. */
export async function startOpenChromium(): Promise<Browser> {
  return launch([]);
}

/** Only the last list counts, so what the browser's library turns off and matters here is in it, too. */
const UNWANTED = [
  // A process or a frame of its own for every page that is opened takes longer than the page.
  'RenderDocument',
  // A page shows nothing of the one before it.
  'PaintHolding',
  // What is asked for is what is asked for, and nothing else is.
  ...['HttpsUpgrades', 'HttpsFirstBalancedModeAutoEnable', 'AvoidCorsURLLoaderRestartOnRedirect'],
  ...['ThirdPartyStoragePartitioning', 'MediaRouter', 'OptimizationHints', 'NetworkTimeServiceQuerying'],
];

async function launch(more: readonly string[]): Promise<Browser> {
  const executablePath = findChromium();
  if (executablePath === undefined) throw new UsageError('no-chromium', {});
  const args = [
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    `--disable-features=${UNWANTED.join(',')}`,
    ...more,
    // Containers run as root, where Chromium's own sandbox cannot start.
    ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
  ];
  try {
    // Loaded for a browser that is started alone, and asked for as it is written: as a module it is read through twice.
    const { chromium } = load('playwright-core') as typeof import('playwright-core');
    return await chromium.launch({ executablePath, args });
  } catch (error) {
    const [line] = (error as Error).message.split('\n');
    throw new UsageError('chromium-fails', { path: executablePath, problem: line ?? '' });
  }
}
