// Messages of `visit`, and `prove --live`: see `index.ts`.

export const VISIT_MESSAGES = {
  'visit-address': ['{text}', 'is no address', 'write it as https://host/path'],
  'visit-start': [
    '{text}',
    'is neither an address nor a file of addresses',
    'begin an address with http:// or https://, or name a list, a sitemap or a .har file',
  ],
  'visit-nothing': ['{folder}', 'nothing was brought into it yet', 'name the address to visit'],
  'visit-taken': ['{folder}', 'holds {file}, which no visit brought', 'name a new folder behind the address'],
  'visit-other': ['{folder}', 'holds a visit of {origin}', 'name another folder for this one'],
  'visit-failed': ['{address}', '{why}', 'nothing was brought'],
  'visit-barred': [
    '{address}',
    'robots.txt asks programs to stay away',
    'add --ignore-robots if the site is yours',
  ],
  'visit-archive': ['{file}', 'is no HTTP archive to read ({problem})', 'save it again with its contents'],
  'visit-list': ['{file}', 'names no page', ''],
  'visit-list-line': ['{file}:{line}', 'is no address', 'write one address a line'],
  'visit-hosts': ['{file}', 'names pages of {one} and of {other}', 'visit each by itself'],
  'visit-manifest': [
    'visit.json',
    'is not as it was written ({problem})',
    'visit the site anew into another folder',
  ],
  'visit-file': ['{file}', 'there is no such file', ''],
  'visit-header': ['{file}:{line}', 'is no header', 'write it as "name: value"'],
  'visit-cookie': ['{file}:{line}', 'is no line of a cookie file', 'save it again in Netscape’s form'],
  'visit-number': ['{option}', '{given} is no such number', 'give a whole number, {least} or more'],
  'visit-no-box': [
    '{box}',
    'stands on no page',
    'look for it in the source of a page, and name it as it is there',
  ],
  'visit-own': [
    '--own',
    '"{text}" names no box',
    'write #id or style.class for a block, or the end of a sheet’s address',
  ],
  'visited-pages': [
    '{file}',
    'is brought from a running system, where it cannot be written',
    'only the boxes in "own" of acervus.json are changed',
  ],
  'live-not-visited': [
    '{folder}',
    'was not brought by a visit, so it is not known where it runs',
    'name a folder that "acervus visit" filled',
  ],
  'live-or-against': [
    'prove',
    'there is nothing to compare with',
    'name another state with --against, or the running site with --live',
  ],
  'address-not-visited': [
    '{address}',
    'was not brought by the visit',
    'visit again with --pages or --match so that it is among them',
  ],
  'outlast-one-visit': [
    '{folder}',
    'was visited once only',
    'visit it again when the platform is another, or name a visited copy with --with',
  ],
  'visited-no-page-box': [
    '--within {text}',
    'no body class tells these pages from others, and none of them has a box of its own',
    'put a rule into that box on the site, visit again, and name it with --own-page',
  ],
  'visited-no-box': [
    'acervus.json',
    'it is not known which box is yours',
    'run "acervus visit" again with --own, such as --own "#own-css"',
  ],
} as const;
