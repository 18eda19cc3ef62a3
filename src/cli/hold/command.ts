// `acervus hold`: fails when the mess grows; lets it only shrink.

import type { Command } from 'commander';
import { UsageError } from '../../core/base/usage-error.js';
import type { ShowFlags } from '../shared/present.js';
import type { Act } from '../shared/terminal.js';

interface Flags extends ShowFlags {
  readonly since?: string;
  readonly write: boolean;
  readonly exceptions?: boolean;
  readonly sarif?: boolean;
  readonly junit?: boolean;
}

/** Exit code 1 when something is new, or a budget is spent. */
export function defineHold(program: Command, act: Act): void {
  program
    .command('hold')
    .description('fail when the mess grows; let it only shrink')
    .argument('[site]', 'folder of the site', '.')
    .option('--since <commit>', 'only files that changed since this commit')
    .option('--no-write', 'do not write down what became less')
    .option('--exceptions', 'list what comments in the source except, and why')
    .option('--all', 'show every line of every list')
    .option('--json', 'print one JSON document')
    .option('--sarif', 'print a SARIF 2.1.0 log')
    .option('--junit', 'print a JUnit report')
    .addHelpText(
      'after',
      '\nThe first run writes acervus-hold.json: what is there. Later runs exit with 1 on what is new.\n\nExample:\n  acervus hold my-site\n  acervus hold my-site --since main --no-write',
    )
    .action(
      act(async (terminal, site: string, flags: Flags) => {
        const forms = [flags.json, flags.sarif, flags.junit].filter((one) => one === true);
        if (forms.length > 1) throw new UsageError('hold-form', {});
        const { hold, isHeld } = await import('../../commands/hold/hold.js');
        const { withProgress } = await import('../shared/progress.js');
        const { present } = await import('../shared/present.js');
        const document = await withProgress(terminal, 'reading the site', ({ steps }) =>
          hold(site, { since: flags.since, writesNothing: !flags.write, onPage: steps('reading') }),
        );
        if (flags.sarif === true || flags.junit === true) {
          const { asJunit, asSarif } = await import('../../commands/hold/reports.js');
          terminal.write(flags.sarif === true ? asSarif(document) : asJunit(document));
        } else
          await present(terminal, document, flags, async () => {
            const { exceptionLines, holdLines } = await import('./lines.js');
            return flags.exceptions === true
              ? exceptionLines(site, document)
              : holdLines(site, document, flags.all === true);
          });
        return isHeld(document) ? 0 : 1;
      }),
    );
}
