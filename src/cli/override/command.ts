// `acervus override`: beats the platform for exactly the elements meant; lists overrides; takes one away.

import type { Command } from 'commander';
import { PASTE, type PasteFlags } from '../shared/paste-option.js';
import { type PictureFlags, withPicture } from '../shared/picture-option.js';
import type { ShowFlags } from '../shared/present.js';
import { type SplitWords, splitSite } from '../shared/split-site.js';
import type { Act, Terminal } from '../shared/terminal.js';

interface Flags extends ShowFlags, PasteFlags, PictureFlags {
  readonly within?: string;
  readonly medium?: string;
  readonly everywhere?: boolean;
  readonly list?: boolean;
  readonly drop?: boolean;
  readonly patch?: boolean;
}

/** Exit code 1 when it is refused, or finds overrides that do nothing. */
export function defineOverride(program: Command, act: Act): void {
  withPicture(program.command('override'))
    .description('beat a platform rule, exactly where meant')
    .argument(
      '[selector and declarations...]',
      'a selector and "property: value"; last the folder of the site',
    )
    .option('--within <where>', 'a page, a folder, body.class, a selector, or "site" (default)')
    .option('--medium <query>', 'only in this media query')
    .option('--everywhere', 'beat what other states and media say, too')
    .option('--list', 'show each override with what it beats, and whether it is still needed')
    .option('--drop', 'take the override with this selector away, or that --within or in --medium')
    .option(...PASTE)
    .option('--patch', 'print the change for "git apply" and write nothing')
    .option('--all', 'show every line of every list')
    .option('--json', 'print one JSON document')
    .addHelpText(
      'after',
      "\nExit code 1 when it is refused, or --list finds one that does nothing.\n\nExample:\n  acervus override '.kw-crumbs a' 'color: #1f3a56' my-site --within body.sk-fares\n  acervus override --list my-site\n  acervus override --drop '.kw-crumbs a' my-site",
    )
    .action(
      act(async (terminal, typed: string[], flags: Flags) => {
        if (flags.list === true) return list(terminal, splitSite(typed), flags);
        if (flags.drop === true) return drop(terminal, splitSite(typed), flags);
        const [selector, ...rest] = typed;
        return write(terminal, selector, splitSite(rest), flags);
      }),
    );
}

async function write(
  terminal: Terminal,
  selector: string | undefined,
  { words, site }: SplitWords,
  flags: Flags,
): Promise<number> {
  const { within, medium, everywhere, patch } = flags;
  const { override } = await import('../../commands/override/override.js');
  const { withProgress } = await import('../shared/progress.js');
  const { presentChange } = await import('../shared/paste.js');
  const made = await withProgress(terminal, 'reading the site', async ({ say: onStep }) =>
    override(site, selector, words, { within, medium, everywhere, patch, onStep }),
  );
  await presentChange(terminal, site, made.document, flags, async () => {
    const { overrideLines } = await import('./lines.js');
    return overrideLines(site, made, flags.all === true);
  });
  return made.document.refused ? 1 : 0;
}

async function list(terminal: Terminal, { site }: SplitWords, flags: Flags): Promise<number> {
  const { listOverrides } = await import('../../commands/override/override.js');
  const { present } = await import('../shared/present.js');
  const { document, shared } = listOverrides(site);
  await present(terminal, document, flags, async () => {
    const { listLines } = await import('./lines.js');
    return listLines(site, document, shared, flags.all === true);
  });
  return document.overrides?.some(({ verdict }) => verdict !== 'needed') === true ? 1 : 0;
}

async function drop(terminal: Terminal, { words, site }: SplitWords, flags: Flags): Promise<number> {
  const [selector, ...properties] = words;
  const { dropOverride } = await import('../../commands/override/override.js');
  const { presentChange } = await import('../shared/paste.js');
  const { within, medium, patch } = flags;
  const made = dropOverride(site, selector, properties, { within, medium, patch });
  await presentChange(terminal, site, made.document, flags, async () => {
    const { dropLines } = await import('./lines.js');
    return dropLines(site, made, flags.all === true);
  });
  return made.document.refused ? 1 : 0;
}
