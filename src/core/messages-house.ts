// The part of the messages that is about keeping a site, and about looking at it: see `messages.ts`.

export const HOUSE_MESSAGES = {
  // Pictures
  'picture-page': ['--page', 'means nothing by itself', 'add --picture'],
  'built-no-picture': [
    '--picture',
    'shows pages as they lie here, and a build makes these',
    'ask in the folder that is built',
  ],
  // Values
  'values-out': ['{file}', 'is there already, and holds no tokens', 'name another file for --out'],
  'values-folder': ['{file}', 'there is no such folder', 'make it first'],
  'values-tokens': ['{file}', 'is no file of design tokens ({problem})', 'correct it'],
  'values-both': ['values', 'one way at a time', 'leave out --in or --out'],
  // Hold
  'hold-file': [
    'acervus-hold.json',
    'is not as it was written ({problem})',
    'restore it, or delete it and begin anew',
  ],
  'hold-since': ['--since {reference}', 'is no commit that git knows here', 'name one, such as HEAD or main'],
  'hold-form': ['hold', 'one form at a time', 'choose one of --json, --sarif and --junit'],
  // Sampler and starter
  'sampler-out': ['{file}', 'the sampler is one HTML page', 'name a file that ends in .html'],
  'starter-file': [
    'acervus-starter.json',
    'is not as it was written ({problem})',
    'mend it, or take it away',
  ],
  'starter-name': ['{given}', 'is no name that a starter knows', 'give .class, --value or a type of element'],
  'starter-both': ['{name}', 'cannot be kept and left at once', 'say one of them'],
  'starter-unknown': ['{name}', "stands in none of the site's own sheets", 'look for a slip in the name'],
  'starter-used': ['{name}', 'is used by {selector}, which stays', 'leave that out too, or keep the value'],
  'starter-out': ['{file}', 'is there already, and is no house sheet', 'name another file for --out'],
  'starter-css': ['{file}', 'a house sheet is a sheet', 'name a file that ends in .css'],
} as const satisfies Record<string, readonly [where: string, what: string, todo: string]>;
