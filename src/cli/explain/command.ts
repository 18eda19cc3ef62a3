// `acervus explain`: everything that styles one element, and why.

import type { Command } from 'commander';
import { UsageError } from '../../core/base/usage-error.js';
import type { ShowFlags } from '../shared/present.js';
import type { Act } from '../shared/terminal.js';

interface Flags extends ShowFlags {
  readonly property?: readonly string[];
  readonly state?: readonly string[];
  readonly width?: string;
  readonly picture?: boolean;
}

export function defineExplain(program: Command, act: Act): void {
  program
    .command('explain')
    .description('everything that styles one element of a page, and why')
    .argument('<page>', 'path of the page inside the site, or its address where it was visited')
    .argument(
      '<element>',
      'a selector, the line[:column] of its tag, an XPath or the tag as an inspector copies it',
    )
    .argument('[site]', 'folder of the site', '.')
    .option('--property <name...>', 'only these properties')
    .option('--state <name...>', 'in these states, such as hover')
    .option('--width <pixels>', 'in a window of this width')
    .option('--picture', 'outline the elements that are meant, in an installed Chromium')
    .option('--all', 'show every line of every list')
    .option('--json', 'print one JSON document')
    .addHelpText(
      'after',
      "\nExample:\n  acervus explain fares/index.html '.kw-table caption' my-site\n  acervus explain fares/index.html 42:7 my-site --state hover --width 600",
    )
    .action(
      act(async (terminal, page: string, element: string, site: string, flags: Flags) => {
        const { property, state } = flags;
        const width = readPixels(flags.width);
        if (flags.picture === true) {
          const { checkPicture } = await import('../shared/picture.js');
          checkPicture({ picture: true }, [page, element, site]);
        }
        const { MeantElements, showMeant } = await import('../shared/meant.js');
        const meant = new MeantElements();
        const { explain } = await import('../../commands/explain/explain.js');
        const { present } = await import('../shared/present.js');
        const { withProgress } = await import('../shared/progress.js');
        const { document, settings } = await withProgress(terminal, 'reading the page', ({ say: onStep }) =>
          explain(site, page, element, {
            ...{ property, state, width, onStep },
            onElement: flags.picture === true ? meant.add : undefined,
          }),
        );
        await present(terminal, document, flags, async () => {
          const { explainLines } = await import('./lines.js');
          return explainLines(site, document, { settings, all: flags.all === true, property, state, width });
        });
        if (flags.picture === true)
          await showMeant(terminal, site, meant, {
            title: `acervus explain ${page} ${element}`,
            best: [document.page],
          });
        return 0;
      }),
    );
}

/** `600`, or `600px`. */
function readPixels(given: string | undefined): number | undefined {
  if (given === undefined) return undefined;
  if (!/^\d+(px)?$/.test(given)) throw new UsageError('width', { given });
  return Number.parseInt(given, 10);
}
