// Messages of `override`: see `index.ts`.

export const OVERRIDE_MESSAGES = {
  'override-value': ['{property}', 'an override needs a value', '"acervus override --drop" takes one away'],
  'shared-is-platform': [
    '{sheet}',
    'is a platform sheet',
    'set "shared" in acervus.json to a sheet of your own',
  ],
  'override-nothing': [
    '{selector}',
    'picks out nothing {where}',
    '"acervus reach {quoted}" tells where it stands',
  ],
  unbeatable: ['{declaration}', 'in {by}, it {why}', 'change it where it stands'],
  'drop-what': ['--drop', 'no override is named', 'give its selector, as "acervus override --list" shows it'],
  'no-override': [
    '{selector}',
    'no override in {sheet} has this selector',
    '"acervus override --list" shows them',
  ],
  'no-override-but': [
    '{selector}',
    'no override in {sheet} has this selector, but "{near}" has one',
    'name that, with --within or --medium where they belong to it',
  ],
} as const;
