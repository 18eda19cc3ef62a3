// `acervus reach`: where a selector, class, value, custom property or rule has effect.

import type { Command } from 'commander';
import type { ShowFlags } from '../../shared/present.js';
import type { Act } from '../../shared/terminal.js';

/** Exit code 1 when it has effect nowhere. */
export function defineReach(program: Command, act: Act): void {
  program
    .command('reach')
    .description('where a selector, class, value, custom property or rule has effect')
    .allowUnknownOption()
    .argument('<what>', 'selector, .class, #id, --name, value, "property: value" or sheet.css:line')
    .argument('[site]', 'folder of the site', '.')
    .option('--all', 'show every line of every list')
    .option('--json', 'print one JSON document')
    .addHelpText(
      'after',
      "\nExit code 1 when it has effect nowhere.\n\nExample:\n  acervus reach .kw-num my-site\n  acervus reach '#1f3a56' my-site\n  acervus reach theme/line.css:120 my-site\n  acervus reach --tide my-site",
    )
    .action(
      act(async (terminal, what: string, site: string, flags: ShowFlags) => {
        const { reach } = await import('./run.js');
        const { withProgress } = await import('../../shared/progress.js');
        const { present } = await import('../../shared/present.js');
        const document = await withProgress(terminal, 'reading the site', ({ say: onStep }) =>
          reach(site, what, { onStep }),
        );
        await present(terminal, document, flags, async () => {
          const { reachLines } = await import('./lines.js');
          return reachLines(site, document, flags.all === true);
        });
        return document.elements === 0 && document.declarations.length === 0 ? 1 : 0;
      }),
    );
}
