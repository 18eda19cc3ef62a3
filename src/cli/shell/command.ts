// `acervus shell`: completion for shells, and a man page, made from the same help.

import type { Command } from 'commander';
import { UsageError } from '../../core/base/usage-error.js';
import type { Act } from '../shared/terminal.js';

const FORMS = ['bash', 'zsh', 'fish', 'man', 'words'] as const;

/** In: what makes the whole program, with every command defined. */
export function defineShell(program: Command, act: Act, whole: () => Promise<Command>): void {
  program
    .command('shell')
    .description('completion for bash, zsh or fish, or a man page')
    .argument('<what>', 'bash, zsh, fish or man')
    .argument('[words...]', 'with "words": what is typed so far, for completion itself')
    .addHelpText(
      'after',
      '\nExample:\n  acervus shell bash >> ~/.bashrc\n  acervus shell zsh > ~/.zfunc/_acervus\n  acervus shell fish > ~/.config/fish/completions/acervus.fish\n  acervus shell man | man -l -',
    )
    .allowUnknownOption()
    .action(
      act(async (terminal, what: string, words: string[]) => {
        const form = FORMS.find((one) => one === what);
        if (form === undefined) throw new UsageError('shell-form', { given: what });
        if (form === 'words') {
          const { candidates } = await import('./words.js');
          terminal.write((await candidates(await whole(), words)).map((one) => `${one}\n`).join(''));
          return 0;
        }
        const { manPage, shellScript } = await import('./scripts.js');
        terminal.write(form === 'man' ? manPage(await whole()) : shellScript(form));
        return 0;
      }),
    );
}
