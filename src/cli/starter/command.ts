// `acervus starter`: the house sheet that the next site begins with.

import type { Command } from 'commander';
import { UsageError } from '../../core/base/usage-error.js';
import type { ShowFlags } from '../shared/present.js';
import type { Act } from '../shared/terminal.js';

interface Flags extends ShowFlags {
  readonly out?: string;
  readonly keep?: readonly string[];
  readonly leave?: readonly string[];
  readonly atLeast?: string;
  readonly words?: string;
}

const more = (value: string, known: readonly string[] = []): readonly string[] => [...known, value];

export function defineStarter(program: Command, act: Act): void {
  program
    .command('starter')
    .description('the house sheet that the next site begins with, and short words that call it up')
    .argument('[site]', 'folder of the site', '.')
    .option('--out <file>', 'write the sheet there; without, into .acervus/starter')
    .option('--keep <name>', 'want .class, --value or h2, whatever uses it; repeatable', more)
    .option('--leave <name>', 'do not want it; repeatable', more)
    .option('--at-least <pages>', 'want helpers that so many pages wear (3 without)')
    .option('--words <folder>', 'write editor snippets there, each with a short word')
    .option('--all', 'show every line of every list')
    .option('--json', 'print one JSON document')
    .addHelpText(
      'after',
      '\nWhat is wanted and not is remembered in acervus-starter.json.\n\nExample:\n  acervus starter my-site --out house.css\n  acervus starter my-site --leave .old-box --keep --tide --words snippets',
    )
    .action(
      act(async (terminal, site: string, flags: Flags) => {
        const { starter } = await import('../../commands/starter/starter.js');
        const { readWhole } = await import('../shared/numbers.js');
        const { withProgress } = await import('../shared/progress.js');
        const { present } = await import('../shared/present.js');
        const { out, keep, leave, words } = flags;
        const atLeast = readWhole(flags.atLeast, (given) => new UsageError('at-least', { given }));
        const document = await withProgress(terminal, 'reading the site', ({ say: onStep }) =>
          starter(site, { out, keep, leave, words, atLeast, onStep }),
        );
        await present(terminal, document, flags, async () => {
          const { starterLines } = await import('./lines.js');
          return starterLines(site, document, flags.all === true);
        });
        return 0;
      }),
    );
}
