// `acervus hold`: fails when the mess grows; lets it only shrink.

import type { Command } from 'commander';
import { HOLD_FORMS } from '../../commands/hold/forms.js';
import { UsageError } from '../../core/base/usage-error.js';
import type { ShowFlags } from '../shared/present.js';
import type { Act } from '../shared/terminal.js';

interface Flags extends ShowFlags {
  readonly since?: string;
  readonly write: boolean;
  readonly exceptions?: boolean;
}

/** One of them for each form. */
type FormFlags = Readonly<Record<string, unknown>>;

/** Exit code 1 when something is new, or a budget is spent. */
export function defineHold(program: Command, act: Act): void {
  const command = program
    .command('hold')
    .description('fail when the mess grows; let it only shrink')
    .argument('[site]', 'folder of the site', '.')
    .option('--since <commit>', 'only files that changed since this commit')
    .option('--no-write', 'do not write down what became less')
    .option('--exceptions', 'list what comments in the source except, and why')
    .option('--all', 'show every line of every list')
    .option('--json', 'print one JSON document')
    .addHelpText(
      'after',
      '\nThe first run writes acervus-hold.json: what is there. Later runs exit with 1 on what is new.\n\nExample:\n  acervus hold my-site\n  acervus hold my-site --since main --no-write',
    );
  for (const { name, about } of HOLD_FORMS) command.option(`--${name}`, `print ${about}`);
  command.action(
    act(async (terminal, site: string, flags: Flags & FormFlags) => {
      const [form, ...others] = HOLD_FORMS.filter(({ name }) => flags[name] === true);
      if (others.length > 0 || (form !== undefined && flags.json === true))
        throw new UsageError('hold-form', {});
      const { hold, isHeld } = await import('../../commands/hold/hold.js');
      const { withProgress } = await import('../shared/progress.js');
      const { present } = await import('../shared/present.js');
      const document = await withProgress(terminal, 'reading the site', ({ steps }) =>
        hold(site, { since: flags.since, writesNothing: !flags.write, onPage: steps('reading') }),
      );
      if (form !== undefined) terminal.write(await form.write(document));
      else
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
