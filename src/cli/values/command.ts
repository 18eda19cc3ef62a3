// `acervus values`: colours, fonts, sizes by name: out to and in from open design tokens.

import type { Command } from 'commander';
import { UsageError } from '../../core/base/usage-error.js';
import { PASTE, type PasteFlags } from '../shared/paste-option.js';
import type { ShowFlags } from '../shared/present.js';
import type { Act } from '../shared/terminal.js';

interface Flags extends ShowFlags, PasteFlags {
  readonly out?: string;
  readonly in?: string;
  readonly pairs?: boolean;
  readonly patch?: boolean;
}

/** Exit code 1 when a change is refused. */
export function defineValues(program: Command, act: Act): void {
  program
    .command('values')
    .description('colours, fonts, sizes by name: out to design tokens, and in from them')
    .argument('[site]', 'folder of the site', '.')
    .option('--out <file>', 'write the named values as a design token file')
    .option('--in <file>', 'write and change custom properties from a design token file')
    .option('--pairs', 'colours that stand on each other, the least contrast first')
    .option(...PASTE)
    .option('--patch', 'with --in: print the change for "git apply" and write nothing')
    .option('--all', 'show every line of every list')
    .option('--json', 'print one JSON document')
    .addHelpText(
      'after',
      '\nExit code 1 when a change is refused.\n\nExample:\n  acervus values my-site\n  acervus values my-site --out tokens.json\n  acervus values my-site --in tokens.json --patch',
    )
    .action(
      act(async (terminal, site: string, flags: Flags) => {
        if (flags.in !== undefined && flags.out !== undefined) throw new UsageError('values-both', {});
        const { values } = await import('../../commands/values/values.js');
        const { withProgress } = await import('../shared/progress.js');
        const { presentChange } = await import('../shared/paste.js');
        const document = await withProgress(terminal, 'reading the site', ({ say: onStep }) =>
          values(site, { out: flags.out, in: flags.in, pairs: flags.pairs, patch: flags.patch, onStep }),
        );
        await presentChange(terminal, site, document, flags, async () => {
          const { valuesLines } = await import('./lines.js');
          return valuesLines(site, document, flags.all === true);
        });
        return document.in !== undefined && document.in.strays + document.in.refused.length > 0 ? 1 : 0;
      }),
    );
}
