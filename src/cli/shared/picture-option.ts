// The options `--picture` and `--page`, apart from what carries them out: help loads no more than this.

import type { Command } from 'commander';

export interface PictureFlags {
  readonly picture?: boolean;
  readonly page?: string;
}

/** Whether there is a browser is asked before anything is written. In: what is shown, and of which page without `--page`. */
export function withPicture(
  command: Command,
  shows = 'show a page before and after, in an installed Chromium',
  usual = 'the one that moves most',
): Command {
  return command
    .hook('preAction', async (_, asked) => {
      const { checkPicture } = await import('./picture.js');
      checkPicture(asked.opts<PictureFlags>(), asked.args);
    })
    .option('--picture', shows)
    .option('--page <page>', `with --picture: this page, not ${usual}`);
}
