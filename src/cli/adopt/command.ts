// `acervus adopt`: carries a draft out.

import type { Command } from 'commander';
import { PASTE, type PasteFlags } from '../shared/paste-option.js';
import { type PictureFlags, withPicture } from '../shared/picture-option.js';
import type { ShowFlags } from '../shared/present.js';
import type { Act } from '../shared/terminal.js';

interface Flags extends ShowFlags, PasteFlags, PictureFlags {
  readonly patch?: boolean;
  readonly report?: boolean;
  readonly cache: boolean;
}

export function defineAdopt(program: Command, act: Act): void {
  withPicture(program.command('adopt'))
    .description('carry the draft out, once it is proven to change nothing')
    .argument('[site]', 'folder of the site', '.')
    .option(...PASTE)
    .option('--patch', 'print the change for "git apply" and write nothing')
    .option('--report', 'write what was done as one HTML page, with pictures before and after')
    .option('--no-cache', 'prove every page anew, those too that the draft has proven')
    .option('--all', 'show every line of every list')
    .option('--json', 'print one JSON document')
    .addHelpText(
      'after',
      '\nExample:\n  acervus adopt my-site\n  acervus adopt my-site --patch | git -C my-site apply',
    )
    .action(
      act(async (terminal, site: string, flags: Flags) => {
        const { adopt } = await import('../../commands/adopt/adopt.js');
        const { followedBy, largeFrom } = await import('../shared/environment.js');
        const { withProgress } = await import('../shared/progress.js');
        const { presentChange } = await import('../shared/paste.js');
        const document = await withProgress(terminal, 'reading the site', ({ say: onStep, steps }) =>
          adopt(site, {
            patch: flags.patch,
            cache: flags.cache,
            largeFrom: largeFrom(terminal),
            onStep,
            onPage: steps('proving'),
            trace: followedBy(terminal),
          }),
        );
        await presentChange(terminal, site, document, flags, async () => {
          const { adoptLines } = await import('./lines.js');
          return adoptLines(site, document, flags.all === true);
        });
        if (flags.report === true && document.written) {
          const { reportOfAdopt, showReport } = await import('../shared/report.js');
          await showReport(terminal, site, reportOfAdopt(document));
        }
        return 0;
      }),
    );
}
