// `acervus reach`: where a selector, class, value, custom property or rule has effect.

import type { Command } from 'commander';
import { type PictureFlags, withPicture } from '../shared/picture-option.js';
import type { ShowFlags } from '../shared/present.js';
import type { Act } from '../shared/terminal.js';

/** Exit code 1 when it has effect nowhere. */
export function defineReach(program: Command, act: Act): void {
  withPicture(
    program.command('reach'),
    'outline the elements on a page, in an installed Chromium',
    'the one with most',
  )
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
      act(async (terminal, what: string, site: string, flags: ShowFlags & PictureFlags) => {
        const { reach } = await import('../../commands/reach/reach.js');
        const { MeantElements, showMeant } = await import('../shared/meant.js');
        const meant = new MeantElements();
        const { withProgress } = await import('../shared/progress.js');
        const { present } = await import('../shared/present.js');
        const document = await withProgress(terminal, 'reading the site', ({ say: onStep }) =>
          reach(site, what, { onStep, onElement: flags.picture === true ? meant.add : undefined }),
        );
        await present(terminal, document, flags, async () => {
          const { reachLines } = await import('./lines.js');
          return reachLines(site, document, flags.all === true);
        });
        if (flags.picture === true)
          await showMeant(terminal, site, meant, {
            title: `acervus reach ${what}`,
            page: flags.page,
            best: document.pages.map(({ path }) => path),
          });
        return document.elements === 0 && document.declarations.length === 0 ? 1 : 0;
      }),
    );
}
