// The way with a system that runs: a stand-in for a platform is started on this machine, and ended again.

import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { UsageError } from '../../core/base/usage-error.js';
import { pc } from '../shared/paper.js';
import type { Terminal } from '../shared/terminal.js';
import { RULER, type Run, stepper } from './walk.js';

const SERVER = new URL('../../../demo/platform-server/server.mjs', import.meta.url);
/** Each box, and where the editor takes it. */
const BOXES = [
  ['own/kw-own-css.css', 'site-css'],
  ['own/kw-page-css/fares/index.css', 'page-css/fares/'],
] as const;

interface Platform {
  readonly address: string;
  close(): Promise<void>;
}

/** Out: what the last proof said, 0 when the site is as was planned. Throws `UsageError` for a folder that holds something. */
export async function walkRunning(terminal: Terminal, folder: string, run: Run): Promise<number> {
  if (existsSync(folder) && readdirSync(folder).length > 0) throw new UsageError('demo-exists', { folder });
  if (!existsSync(fileURLToPath(SERVER))) throw new UsageError('demo-missing', {});
  const { startPlatform } = (await import(SERVER.href)) as { startPlatform(): Promise<Platform> };
  const platform = await startPlatform();
  try {
    return await walk(terminal, folder, run, platform);
  } finally {
    await platform.close();
  }
}

async function walk(terminal: Terminal, folder: string, run: Run, { address }: Platform): Promise<number> {
  const { write } = terminal;
  const step = stepper(terminal, folder, run);
  const put = async (where: string, body: string): Promise<void> => {
    write(`${pc.bold(`   PUT ${address}editor/${where}`)}\n`);
    await fetch(new URL(`editor/${where}`, address), { method: 'PUT', body });
  };
  const paste = async (): Promise<void> => {
    write(`\n${RULER}\n   Paste the boxes, as you would in the editor.\n`);
    for (const [file, where] of BOXES) await put(where, readFileSync(path.join(folder, file), 'utf8'));
  };
  write(
    `The Skerrin Line on a platform that you cannot edit: two boxes for CSS, a class field on each block.\nIt runs at ${address} until this walk ends.\n`,
  );
  await step(
    ['visit', address, folder, '--own', '#kw-own-css', '--own-page', 'style.kw-page-css'],
    'Bring the pages, and say which boxes are yours.',
  );
  await step(
    ['explain', `${address}fares/`, '.kw-table td', folder, '--property', 'padding'],
    'Why does the padding that somebody typed for this page not hold?',
  );
  await step(
    ['override', '.kw-table td', 'padding: 10px 14px', folder, '--paste'],
    'Beat it everywhere with the weakest rule; the text of the box is ready to paste.',
  );
  await paste();
  await step(['prove', '--live', folder], 'Fetch it all again: is it as was planned, and nothing else?');
  await step(['draft', folder], 'What is typed into blocks, again and again: rules for the box.');
  await step(['adopt', folder], 'The boxes are written; what only the editor can do is a work list.');
  await paste();
  write('   And overnight the platform is updated.\n');
  await put('version', '4.0');
  await step(['visit', folder], 'Visit again: only what changed is fetched, and listed.');
  await step(['outlast', folder, '--visits'], 'What did not survive?');
  await step(['outlast', folder, '--visits', '--mend'], 'Mend it.');
  await paste();
  const different = await step(['prove', '--live', folder], 'And look once more.');
  write(
    `\n${RULER}\nThe platform is ended. ${path.join(folder, 'work-list.html')} is the list to work from;\ndocs/running.md tells the rest.\n`,
  );
  return different;
}
