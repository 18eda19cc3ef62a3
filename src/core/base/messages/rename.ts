// Messages of `rename`: see `index.ts`.

export const RENAME_MESSAGES = {
  'same-name': ['{name}', 'is the same name', 'name another'],
  'written-nowhere': [
    '.{name}',
    'is written nowhere on the site',
    '"acervus reach {quoted}" looks for what is like it',
  ],
  'not-a-class': [
    '{text}',
    'is no class',
    'write a dot and a name of letters, digits, - and _, such as .kind',
  ],
} as const;
