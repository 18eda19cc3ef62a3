// `acervus demo`: copies the demo site out and walks the whole way, each step with a line that says what it is for.

import type { Command } from 'commander';
import type { Act, Terminal } from '../shared/terminal.js';

/** In: what runs another command of the program, as if it were typed. */
export function defineDemo(
  program: Command,
  act: Act,
  run: (words: readonly string[], terminal: Terminal) => Promise<number>,
): void {
  program
    .command('demo')
    .description('copy the demo site somewhere and walk through the whole of it')
    .argument('[folder]', 'a new folder', 'skerrin-line')
    .option('--templates', 'the theme that such pages are made from, as its templates are written')
    .option('--running', 'a system that runs on this machine, and that only boxes are pasted into')
    .addHelpText(
      'after',
      '\nExample:\n  acervus demo /tmp/skerrin-line\n  acervus demo /tmp/skerrin-theme --templates\n  acervus demo /tmp/skerrin-live --running',
    )
    .action(
      act(async (terminal, folder: string, flags: { templates?: boolean; running?: boolean }) => {
        const type = (words: readonly string[]): Promise<number> => run(words, terminal);
        if (flags.running === true)
          return (await import('./walk-running.js')).walkRunning(terminal, folder, type);
        const { walkTemplates, walkThrough } = await import('./walk.js');
        return (flags.templates === true ? walkTemplates : walkThrough)(terminal, folder, type);
      }),
    );
}
