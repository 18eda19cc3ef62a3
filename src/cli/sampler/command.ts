// `acervus sampler`: every shared style on one page.

import type { Command } from 'commander';
import type { ShowFlags } from '../shared/present.js';
import type { Act } from '../shared/terminal.js';

interface Flags extends ShowFlags {
  readonly out?: string;
  readonly browser?: boolean;
}

export function defineSampler(program: Command, act: Act): void {
  program
    .command('sampler')
    .description('one page that shows every shared style: its rule, an example, its reach')
    .argument('[site]', 'folder of the site', '.')
    .option('--out <file>', 'write the page there; without, into .acervus/sampler')
    .option(
      '--browser',
      'pictures by the installed Chromium in place of frames: the page travels as one file',
    )
    .option('--all', 'show every line of every list')
    .option('--json', 'print one JSON document')
    .addHelpText(
      'after',
      '\nExample:\n  acervus sampler my-site\n  acervus sampler my-site --browser --out styles.html',
    )
    .action(
      act(async (terminal, site: string, flags: Flags) => {
        const { sampler } = await import('../../commands/sampler/sampler.js');
        const { withProgress } = await import('../shared/progress.js');
        const { present } = await import('../shared/present.js');
        const document = await withProgress(terminal, 'reading the site', ({ say: onStep, steps }) =>
          sampler(site, {
            out: flags.out,
            browser: flags.browser,
            onStep,
            onSample: steps('taking pictures'),
          }),
        );
        await present(terminal, document, flags, async () => {
          const { samplerLines } = await import('./lines.js');
          return samplerLines(site, document, flags.all === true);
        });
        return 0;
      }),
    );
}
