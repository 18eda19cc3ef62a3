// The end of every command: its document, its patch, or its account for a person.

import { withoutStart } from '../../core/base/phrases.js';
import type { Terminal } from './terminal.js';

/** Options that every command with a document takes. */
export interface ShowFlags {
  readonly json?: boolean;
  readonly all?: boolean;
}

/**
 * One write, so that nothing stands between.
 * In: what makes the lines: asked, and loaded, only where a person is to read them.
 */
export async function present(
  terminal: Terminal,
  document: { readonly command: string; readonly patch?: string | undefined },
  { json }: ShowFlags,
  lines: () => Promise<readonly string[]>,
): Promise<void> {
  if (json === true) terminal.write(`${plainJson(document)}\n`);
  else if (document.patch !== undefined) terminal.write(document.patch);
  else print(terminal, await lines());
}

/** What a terminal would obey is written as JSON's own escapes: it is the same to whoever reads the document. */
function plainJson(document: unknown): string {
  return JSON.stringify(document, null, 2).replace(
    /[\u007f-\u009f\u200e\u200f\u202a-\u202e\u2066-\u2069]/g,
    (character) => `\\u${character.charCodeAt(0).toString(16).padStart(4, '0')}`,
  );
}

export function print(terminal: Terminal, lines: readonly string[]): void {
  terminal.write(`${withoutStart(lines.join('\n'), '\n')}\n`);
}

/** Where the time went, on stderr. In: milliseconds by part, those of several threads added up. */
export async function printTimings(terminal: Terminal, parts: ReadonlyMap<string, number>): Promise<void> {
  const { heading } = await import('./paper.js');
  const lines = [heading('Time', 'seconds by part; those of several threads are added up')];
  const second = (milliseconds: number): string => (milliseconds / 1000).toFixed(2).padStart(8);
  for (const [name, milliseconds] of parts) lines.push(`${second(milliseconds)}   ${name}`);
  const { maxRSS } = process.resourceUsage();
  lines.push(`${second(performance.now())}   from start to end; ${Math.round(maxRSS / 1024)} MB at most`);
  terminal.warn(`${lines.join('\n')}\n`);
}
