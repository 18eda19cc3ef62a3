// Messages of writing a change, taking it back, and work in parts: see `index.ts`.

export const CHANGES_MESSAGES = {
  // Changes and their records
  'writing-failed': ['the change', 'writing failed ({problem})', 'everything is as it was'],
  'change-unfinished': [
    '.acervus',
    'the last change was cut short while writing',
    'run "acervus undo" first, it puts every file back',
  ],
  'undo-unfinished': [
    '.acervus',
    'the last undo was cut short',
    'run "acervus undo" again, it goes on with it',
  ],
  'undo-failed': ['undo', 'nothing was taken back ({problem})', 'mend that and run "acervus undo" again'],
  'site-busy': [
    '.acervus',
    'another process is changing this site',
    'wait until it is done, and run the command again',
  ],
  'not-a-file': ['{file}', 'is no plain file', 'put a file in its place'],
  'read-only': ['{file}', 'is read-only', 'make it writable, or refuse its styles in the draft'],
  'file-changed': ['{file}', 'changed while the change was planned', 'run the command again'],
  'leads-out': ['{file}', 'leads out of the site', 'nothing was written'],
  'changed-since': [
    '{files}',
    'changed since {command} wrote it',
    'nothing was touched. Put it back as it was then, or use git',
  ],
  'sheet-open': [
    '{sheet}',
    'ends in the middle of a rule, a comment or a string, so that nothing can stand behind it',
    'close that first',
  ],
  'record-broken': [
    '{file}',
    'its record does not lead back to what it was',
    'nothing more was touched, use git',
  ],
  'not-a-record': ['{file}', 'is not a record of Acervus', 'restore it, or take the change back with git'],
  // Parts of a piece of work
  part: ['--part', '{given} is no part', 'write it as 3/8: the third of eight'],
  'part-or-join': ['--part', 'a part cannot be joined and made at once', 'leave out --part or --join'],
  'part-browser': [
    '--part',
    'pictures are not made in parts',
    'look at some of the pages with --pages or --every',
  ],
  'part-unreadable': [
    '{file}',
    'is no part that "acervus {command} --part" has written, or it was cut short',
    'make it again',
  ],
  'part-twice': [
    '{file}',
    'part {part} of {of} is there already, or this is one of another number of parts',
    'join each part once',
  ],
  'part-outdated': [
    '{file}',
    'was made of files that have changed since, or by another version of the program',
    'make it again',
  ],
  'part-missing': ['--join', 'missing of {of}: part {parts}', 'make it, or name its file too'],
} as const;
