// Messages of `restyle`: see `index.ts`.

export const RESTYLE_MESSAGES = {
  'rule-in-media': ['{selector}', 'the theme has it only inside {media}', 'name that with --medium'],
  'rule-elsewhere': ['{selector}', 'the theme has no such rule inside {medium}', 'it stands at {place}'],
  'rule-of-module': [
    '{selector}',
    'is a rule of a module ({sheet}) that is compiled, or of several: nothing here tells what is meant',
    'change it there by hand',
  ],
  'rule-of-platform': [
    '{selector}',
    'is a rule of the platform ({sheet}), which is not yours to edit',
    '"acervus override" beats it',
  ],
  'no-rule': [
    '{selector}',
    'no rule of the theme has this selector',
    'did you mean {near}? "acervus reach" tells what styles these elements',
  ],
  'no-rule-at-all': [
    '{selector}',
    'no rule of the theme has this selector',
    '"acervus reach" shows what styles these elements',
  ],
} as const;
