// `acervus restyle`: changes a shared style once, where it stands, and tells what moved and what did not.

import type { Command } from 'commander';
import { PASTE, type PasteFlags } from '../shared/paste-option.js';
import { type PictureFlags, withPicture } from '../shared/picture-option.js';
import type { ShowFlags } from '../shared/present.js';
import { splitSite } from '../shared/split-site.js';
import type { Act } from '../shared/terminal.js';

interface Flags extends ShowFlags, PasteFlags, PictureFlags {
  readonly medium?: string;
  readonly token?: boolean;
  readonly onlyIfAll?: boolean;
  readonly patch?: boolean;
}

/** Exit code 1 when it is refused. */
export function defineRestyle(program: Command, act: Act): void {
  withPicture(program.command('restyle'))
    .description('change a shared style once, where it stands; say what moved and what did not')
    .argument('<selector>', 'as it stands in the sheet')
    .argument(
      '<declaration...>',
      '"property: value", or "property:" to take it out; last the folder of the site',
    )
    .option('--medium <query>', 'the rule inside this media query')
    .option('--token', 'where the value is a custom property, change that instead')
    .option('--only-if-all', 'refuse a change that does not reach every element')
    .option(...PASTE)
    .option('--patch', 'print the change for "git apply" and write nothing')
    .option('--all', 'show every line of every list')
    .option('--json', 'print one JSON document')
    .addHelpText(
      'after',
      "\nExit code 1 when it is refused.\n\nExample:\n  acervus restyle '.kw-table caption' 'color: #2e6b5e' 'font-weight:' my-site",
    )
    .action(
      act(async (terminal, selector: string, typed: string[], flags: Flags) => {
        const { words, site } = splitSite(typed);
        const { medium, token, onlyIfAll, patch } = flags;
        const { restyle } = await import('../../commands/restyle/restyle.js');
        const { withProgress } = await import('../shared/progress.js');
        const { presentChange } = await import('../shared/paste.js');
        const made = await withProgress(terminal, 'reading the site', async ({ say: onStep }) =>
          restyle(site, selector, words, { medium, token, onlyIfAll, patch, onStep }),
        );
        const { document } = made;
        await presentChange(terminal, site, document, flags, async () => {
          const { restyleLines } = await import('./lines.js');
          return restyleLines(site, made, flags.all === true);
        });
        return document.refused === undefined ? 0 : 1;
      }),
    );
}
