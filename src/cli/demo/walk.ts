// The way through the demo site, each step a command as a person would type it.

import { cpSync, existsSync, readdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { asTyped } from '../../core/base/site-text.js';
import { UsageError } from '../../core/base/usage-error.js';
import { pc } from '../shared/paper.js';
import type { Terminal } from '../shared/terminal.js';

/** In the installed package, beside `dist`. */
const SOURCES = {
  site: fileURLToPath(new URL('../../../demo/site', import.meta.url)),
  templates: fileURLToPath(new URL('../../../demo/templates', import.meta.url)),
};

export const RULER = pc.gray('─'.repeat(78));

export type Run = (words: readonly string[]) => Promise<number>;
/** Carries out a command as it is typed. In: the words; what it is for; how often it is done, where more than once. */
export type Step = (words: readonly string[], why: string, again?: string) => Promise<number>;

/** A copy of a demo, and one of it as it is. Throws `UsageError` for a folder that holds something. */
function copyOut(source: string, folder: string): string {
  if (existsSync(folder) && readdirSync(folder).length > 0) throw new UsageError('demo-exists', { folder });
  const original = `${folder}.before`;
  if (existsSync(original)) throw new UsageError('demo-exists', { folder: original });
  if (!existsSync(source)) throw new UsageError('demo-missing', {});
  cpSync(source, folder, { recursive: true });
  cpSync(source, original, { recursive: true });
  return original;
}

export function stepper({ write }: Terminal, folder: string, run: Run): Step {
  let number = 0;
  return async (words, why, again = '') => {
    number++;
    const typed = words.map((word) => (word === folder ? word : asTyped(word)));
    write(`\n${RULER}\n${pc.bold(`${number}  acervus ${typed.join(' ')}${again}`)}\n   ${why}\n\n`);
    return run(words);
  };
}

/** Out: what the proof said, 0 when nothing is different. Throws `UsageError` for a folder that holds something. */
export async function walkTemplates(terminal: Terminal, folder: string, run: Run): Promise<number> {
  const original = copyOut(SOURCES.templates, folder);
  const step = stepper(terminal, folder, run);
  const { write } = terminal;
  write(
    `The Skerrin Line as a theme: a layout, parts, pages that an engine fills.\nA copy is in ${folder}\n`,
  );
  await step(['survey', folder], 'Take stock: of templates as they are written.');
  await step(['draft', folder], 'A home for what repeats, right for all that the engine could make.');
  await step(['adopt', folder], 'Carry it out: no word of the engine is touched.');
  const different = await step(
    ['prove', folder, '--against', original],
    'Compare with the theme as it was: each part where its layouts and pages put it.',
  );
  await step(['reach', '.fare', folder], 'Which elements have this now, and in which templates?');
  await step(['undo', folder], 'Put every byte back.');
  rmSync(original, { recursive: true });
  write(
    `\n${RULER}\nThe theme is as it was, and yours to try: docs/templates.md tells what is read and how.\n`,
  );
  return different;
}

/** Out: what the proof said, 0 when nothing is different. Throws `UsageError` for a folder that holds something. */
export async function walkThrough(terminal: Terminal, folder: string, run: Run): Promise<number> {
  const original = copyOut(SOURCES.site, folder);
  const step = stepper(terminal, folder, run);
  const { write } = terminal;
  write(
    `The Skerrin Line, an island ferry company, and years of styling typed into its pages.\nA copy is in ${folder}\n`,
  );
  await step(['survey', folder], 'Take stock: what is written, how often the same, what is broken.');
  await step(['draft', folder], 'Propose a home for every repeated style, and say what stays and why.');
  await step(['adopt', folder], 'Carry it out. The proof comes first, the writing after it.');
  const different = await step(
    ['prove', folder, '--against', original],
    'Compare with the site as it was: every element, every property.',
  );
  await step(['sampler', folder], 'What does the house have now? Every shared style, on one page.');
  await step(['undo', folder], 'Put every byte back.');
  rmSync(original, { recursive: true });
  await step(
    ['explain', 'harbours/west/holm.html', '.kw-crumbs a', folder],
    'On an ordinary day: why does this link look as it does?',
  );
  await step(['reach', '.kw-table th', folder], 'If I touch this, what moves?');
  await step(
    ['override', '.kw-table th', 'border-color: #1f3a56', folder],
    'Beat the platform, just there, with the weakest rule.',
  );
  await step(
    ['outlast', '--platform', 'platform/3.1=platform/4.0', folder],
    'Before the platform is updated: what will not survive it?',
  );
  await step(
    ['family', '--find', folder],
    'One block of rules a harbour, copied by hand, becomes one table.',
  );
  await step(['undo', folder], 'Put every byte back.', ', twice');
  await run(['undo', folder]);
  write(
    `\n${RULER}\nThe site is as it was, and yours to try: open ${path.join(folder, 'index.html')} in a browser,\nedit ${path.join(folder, 'acervus-draft.yaml')}, adopt again, look again.\n`,
  );
  return different;
}
