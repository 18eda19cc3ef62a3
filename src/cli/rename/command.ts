// `acervus rename`: gives a class another name everywhere it is written.

import type { Command } from 'commander';
import type { ShowFlags } from '../shared/present.js';
import type { Act } from '../shared/terminal.js';

interface Flags extends ShowFlags {
  readonly merge?: boolean;
  readonly scripts?: boolean;
  readonly patch?: boolean;
}

/** Exit code 1 when it is refused. */
export function defineRename(program: Command, act: Act): void {
  program
    .command('rename')
    .description('give a class another name everywhere')
    .argument('<class>', 'the class, with or without its dot')
    .argument('<name>', 'its new name')
    .argument('[site]', 'folder of the site', '.')
    .option('--merge', 'the new name is there already, with the same declarations: make the two one')
    .option('--scripts', 'rename in strings that only might mean the class, too')
    .option('--patch', 'print the change for "git apply" and write nothing')
    .option('--all', 'show every line of every list')
    .option('--json', 'print one JSON document')
    .addHelpText(
      'after',
      '\nExit code 1 when it is refused.\n\nExample:\n  acervus rename .btn-book .book my-site',
    )
    .action(
      act(async (terminal, from: string, to: string, site: string, flags: Flags) => {
        const { merge = false, scripts, patch, all = false } = flags;
        const { rename } = await import('../../commands/rename/rename.js');
        const { withProgress } = await import('../shared/progress.js');
        const { present } = await import('../shared/present.js');
        const made = await withProgress(terminal, 'reading the site', async ({ say: onStep }) =>
          rename(site, from, to, { merge, scripts, patch, onStep }),
        );
        await present(terminal, made.document, flags, async () => {
          const { renameLines } = await import('./lines.js');
          return renameLines(site, made, { all, merge });
        });
        return made.document.refused === undefined ? 0 : 1;
      }),
    );
}
