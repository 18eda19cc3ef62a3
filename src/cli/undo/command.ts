// `acervus undo`: takes the last change back, byte for byte.

import type { Command } from 'commander';
import type { ShowFlags } from '../shared/present.js';
import type { Act } from '../shared/terminal.js';

export function defineUndo(program: Command, act: Act): void {
  program
    .command('undo')
    .description('take the last change back, byte for byte')
    .argument('[site]', 'folder of the site', '.')
    .option('--json', 'print one JSON document')
    .addHelpText('after', '\nExample:\n  acervus undo my-site')
    .action(
      act(async (terminal, site: string, flags: ShowFlags) => {
        const { undo } = await import('../../commands/undo/undo.js');
        const { present } = await import('../shared/present.js');
        const { document, undone } = undo(site);
        await present(terminal, document, flags, async () => {
          const { undoLines } = await import('./lines.js');
          return undoLines(site, undone);
        });
        return 0;
      }),
    );
}
