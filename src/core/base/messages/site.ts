// Messages of a site, its files and its configuration: see `index.ts`.

export const SITE_MESSAGES = {
  // The site and its files
  'folder-missing': ['{folder}', 'there is no such folder', 'name the folder that holds the site'],
  'folder-is-file': ['{folder}', 'is a file', 'name the folder that holds the site'],
  'no-pages': [
    '{site}',
    'holds no page',
    'name a folder with .html files or templates, or set "pages" in acervus.json',
  ],
  'pages-empty': ['{site}', 'all its pages are empty', 'there is nothing to read'],
  'pages-empty-both': ['{site}', 'all its pages are empty', 'there is nothing to compare'],
  'link-leads-out': ['{file}', 'is a link that leads out of the site', 'copy the file in'],
  'left-out': ['left out', '{files}', 'mend them, or add them to "exclude" in acervus.json'],
  unlinked: [
    '{files}',
    'had other names (hard links): the change is under this name only',
    'link them anew where they should stay one',
  ],
  'not-html': ['{file}', 'is no HTML: it holds no tag', 'add it to "exclude" in acervus.json or mend it'],
  'not-a-state': [
    '{reference}',
    'is neither a folder nor a commit that git knows here',
    'give one of them to --against',
  ],
  'blob-missing': [
    '{file}',
    'is not there at {reference}: this copy of the repository lacks it',
    'fetch it with git first',
  ],
  'not-a-page': ['{file}', 'is no page of {site}', 'name {hint}'],
  'picture-component': [
    '{file}',
    'is a part that pages take in, and no page to take a picture of',
    'name a whole page',
  ],
  'page-empty': ['{file}', 'is empty', 'there is nothing to explain'],
  'component-unused': [
    '{file}',
    'is a component, and no page of the site shows which sheets it is styled by',
    '',
  ],
  // Configuration
  'config-json': ['acervus.json', 'is not valid JSON ({problem})', 'correct or delete it'],
  'config-invalid': ['acervus.json', '{problem}', ''],
  'copy-missing': ['acervus.json', 'copies: there is no {file} to stand for {address}', ''],
  // The system
  system: [
    '{file}',
    'the system refuses ({problem})',
    'see whether it may be read and written, and is what it should be',
  ],
} as const;
