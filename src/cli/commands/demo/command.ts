// `acervus demo`: copies the demo site out and walks the whole way, each step with a line that says what it is for.

import { cpSync, existsSync, readdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { UsageError } from '../../../core/usage-error.js';
import { adopt } from '../adopt/command.js';
import { draft } from '../draft/command.js';
import { explain } from '../explain/command.js';
import { runFamily } from '../family/command.js';
import { runOutlast } from '../outlast/command.js';
import { runOverride } from '../override/command.js';
import { pc } from '../../shared/paper.js';
import { prove } from '../prove/command.js';
import { reach } from '../reach/command.js';
import { survey } from '../survey/command.js';
import { undo } from '../undo/command.js';

const SOURCE = path.join(
  path.dirname(path.dirname(path.dirname(fileURLToPath(import.meta.url)))),
  'demo',
  'site',
);

export async function demo(folder: string): Promise<number> {
  if (existsSync(folder) && readdirSync(folder).length > 0)
    throw new UsageError(`${folder}: exists and is not empty; name a new folder`);
  if (!existsSync(SOURCE))
    throw new UsageError('the demo site is missing from this installation; install Acervus again');
  cpSync(SOURCE, folder, { recursive: true });
  const original = `${folder}.before`;
  cpSync(SOURCE, original, { recursive: true });
  const step = (number: number, command: string, why: string): void => {
    process.stdout.write(
      `\n${pc.gray('─'.repeat(78))}\n${pc.bold(`${number}  acervus ${command}`)}\n   ${why}\n\n`,
    );
  };
  process.stdout.write(
    `The Skerrin Line, an island ferry company, and years of styling typed into its pages.\nA copy is in ${folder}\n`,
  );
  step(1, `survey ${folder}`, 'Take stock: what is written, how often the same, what is broken.');
  await survey(folder, {});
  step(2, `draft ${folder}`, 'Propose a home for every repeated style, and say what stays and why.');
  await draft(folder, { atLeast: '2' });
  step(3, `adopt ${folder}`, 'Carry it out. The proof comes first, the writing after it.');
  adopt(folder, {});
  step(
    4,
    `prove ${folder} --against ${original}`,
    'Compare with the site as it was: every element, every property.',
  );
  const different = await prove(folder, { against: original });
  step(5, `undo ${folder}`, 'Put every byte back.');
  undo(folder, {});
  rmSync(original, { recursive: true });
  const page = 'harbours/west/holm.html';
  step(
    6,
    `explain ${page} '.kw-crumbs a' ${folder}`,
    'On an ordinary day: why does this link look as it does?',
  );
  await explain(page, '.kw-crumbs a', folder, {});
  step(7, `reach '.kw-table th' ${folder}`, 'If I touch this, what moves?');
  reach('.kw-table th', folder, {});
  step(
    8,
    `override '.kw-table th' 'border-color: #1f3a56' ${folder}`,
    'Beat the platform, just there, with the weakest rule.',
  );
  runOverride(['.kw-table th', 'border-color: #1f3a56', folder], {});
  const platform = ['platform/3.1=platform/4.0'];
  step(
    9,
    `outlast --platform ${platform[0]} ${folder}`,
    'Before the platform is updated: what will not survive it?',
  );
  runOutlast(folder, { platform });
  step(10, `family --find ${folder}`, 'One block of rules a harbour, copied by hand, becomes one table.');
  runFamily([folder], { find: true });
  step(11, `undo ${folder}, twice`, 'Put every byte back.');
  undo(folder, {});
  undo(folder, {});
  process.stdout.write(
    `\n${pc.gray('─'.repeat(78))}\nThe site is as it was, and yours to try: open ${path.join(folder, 'index.html')} in a browser,\nedit ${path.join(folder, 'acervus-draft.yaml')}, adopt again, look again.\n`,
  );
  return different;
}
