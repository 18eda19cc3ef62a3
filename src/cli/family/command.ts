// `acervus family`: rules for many sections, positions or states from one small table; and tables for what was copied.

import type { Command } from 'commander';
import { UsageError } from '../../core/base/usage-error.js';
import { PASTE, type PasteFlags } from '../shared/paste-option.js';
import { type PictureFlags, withPicture } from '../shared/picture-option.js';
import type { ShowFlags } from '../shared/present.js';
import { splitSite } from '../shared/split-site.js';
import type { Act, Terminal } from '../shared/terminal.js';

interface Flags extends ShowFlags, PasteFlags, PictureFlags {
  readonly find?: boolean;
  readonly patch?: boolean;
}

/** Exit code 1 when it is refused, or left something that was changed by hand. */
export function defineFamily(program: Command, act: Act): void {
  withPicture(program.command('family'))
    .description('rules for many sections, positions or states from one small table')
    .argument('[file and site...]', 'the table file, and the folder of the site')
    .option('--find', 'find families copied out by hand, and put tables in their place')
    .option(...PASTE)
    .option('--patch', 'print the change for "git apply" and write nothing')
    .option('--all', 'show every line of every list')
    .option('--json', 'print one JSON document')
    .addHelpText(
      'after',
      '\nExit code 1 when it is refused, or a rule was changed by hand.\n\nExample:\n  acervus family theme/harbours.family.yaml my-site\n  acervus family --find my-site',
    )
    .action(
      act(async (terminal, typed: string[], flags: Flags) => {
        const { words, site } = splitSite(typed);
        if (flags.find === true) return find(terminal, site, flags);
        const [file, extra] = words;
        if (file === undefined || extra !== undefined)
          throw new UsageError('family-what', { word: extra ?? 'family' });
        return write(terminal, site, file, flags);
      }),
    );
}

async function write(terminal: Terminal, site: string, file: string, flags: Flags): Promise<number> {
  const { family } = await import('../../commands/family/family.js');
  const { withProgress } = await import('../shared/progress.js');
  const { presentChange } = await import('../shared/paste.js');
  const made = await withProgress(terminal, 'reading the site', async ({ say: onStep }) =>
    family(site, file, { patch: flags.patch, onStep }),
  );
  await presentChange(terminal, site, made.document, flags, async () => {
    const { familyLines } = await import('./lines.js');
    return familyLines(site, made, flags.all === true);
  });
  const [written] = made.document.families;
  return written === undefined || written.refused || written.byHand.length > 0 ? 1 : 0;
}

async function find(terminal: Terminal, site: string, flags: Flags): Promise<number> {
  const { findFamilies } = await import('../../commands/family/find.js');
  const { presentChange } = await import('../shared/paste.js');
  const made = findFamilies(site, { patch: flags.patch });
  await presentChange(terminal, site, made.document, flags, async () => {
    const { foundLines } = await import('./lines.js');
    return foundLines(site, made);
  });
  return 0;
}
