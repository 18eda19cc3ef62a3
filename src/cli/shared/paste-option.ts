// The option `--paste`, apart from what carries it out: help loads no more than this.

export interface PasteFlags {
  readonly paste?: boolean;
}

export const PASTE = [
  '--paste',
  'print the whole text of each box that was changed, and put it on the clipboard',
] as const;
