// The options `--picture` and `--page`, apart from what carries them out: help loads no more than this.

import type { Command } from 'commander';

export interface PictureFlags {
  readonly picture?: boolean;
  readonly page?: string;
}

/** Whether there is a browser is asked before anything is written. */
export function withPicture(command: Command): Command {
  return command
    .hook('preAction', async (_, asked) => {
      const { checkPicture } = await import('./picture.js');
      checkPicture(asked.opts<PictureFlags>(), asked.args);
    })
    .option('--picture', 'show a page before and after, in an installed Chromium')
    .option('--page <page>', 'with --picture: this page, not the one that moves most');
}
