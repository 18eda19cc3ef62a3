// `acervus outlast`: which overrides survive a platform update, and what looks different in spite of them.

import type { Command } from 'commander';
import { PASTE, type PasteFlags } from '../shared/paste-option.js';
import { type PictureFlags, withPicture } from '../shared/picture-option.js';
import type { ShowFlags } from '../shared/present.js';
import type { Act } from '../shared/terminal.js';

interface Flags extends ShowFlags, PasteFlags, PictureFlags {
  /** `old=new` each. */
  readonly platform: readonly string[];
  readonly with?: string;
  readonly visits?: boolean;
  readonly markup?: string;
  readonly mend?: boolean;
  readonly patch?: boolean;
}

/** Exit code 1 when something does not outlast the update, or looks different after it. */
export function defineOutlast(program: Command, act: Act): void {
  withPicture(program.command('outlast'))
    .description('which overrides survive a platform update, and what looks different in spite of them')
    .argument('[site]', 'folder of the site', '.')
    .option(
      '--platform <old=new>',
      'a sheet or a folder of sheets, and its new version; repeatable',
      (pair: string, known: string[]) => [...known, pair],
      [],
    )
    .option('--with <folder>', 'the site under the new platform, as visited on a copy of it')
    .option('--visits', 'what changed from the visit before to the last one')
    .option('--markup <folder>', 'the pages as the new platform writes them, under the same paths')
    .option('--mend', 'write the fixes: new names beside the old, stronger selectors')
    .option('--patch', 'with --mend: print the change for "git apply" and write nothing')
    .option(...PASTE)
    .option('--all', 'show every line of every list')
    .option('--json', 'print one JSON document')
    .addHelpText(
      'after',
      '\nExit code 1 when something does not outlast it, or looks different.\n\nExample:\n  acervus outlast my-site --platform platform/3.1=platform/4.0\n  acervus outlast line --with staging\n  acervus outlast line --visits --mend --paste',
    )
    .action(
      act(async (terminal, site: string, flags: Flags) => {
        const { markup, mend, patch } = flags;
        const other = flags.visits === true ? 'visits' : flags.with;
        const platform = Object.fromEntries(flags.platform.map(readPair));
        const { outlast } = await import('../../commands/outlast/outlast.js');
        const { withProgress } = await import('../shared/progress.js');
        const { presentChange } = await import('../shared/paste.js');
        const document = await withProgress(terminal, 'reading the site', async ({ say: onStep }) =>
          outlast(site, { platform, other, markup, mend, patch, onStep }),
        );
        await presentChange(terminal, site, document, flags, async () => {
          const { outlastLines } = await import('./lines.js');
          return outlastLines(site, document, { named: namedBy(flags), all: flags.all === true });
        });
        const fails = document.rules.some(
          ({ fate }) => fate === 'name gone' || fate === 'beaten' || fate === 'matches nothing',
        );
        return (fails && mend !== true) || document.changes.length > 0 ? 1 : 0;
      }),
    );
}

/** How the update was named, for the next step. */
function namedBy({ platform, with: other, visits }: Flags): readonly string[] {
  if (visits === true) return ['--visits'];
  return other === undefined ? platform.map((pair) => `--platform ${pair}`) : [`--with ${other}`];
}

function readPair(pair: string): [string, string] {
  const [old = '', fresh = ''] = pair.split('=');
  return [old, fresh];
}
