// Messages of `sampler` and `starter`: see `index.ts`.

export const STARTER_MESSAGES = {
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
} as const;
