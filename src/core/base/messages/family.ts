// Messages of `family`: see `index.ts`.

export const FAMILY_MESSAGES = {
  'family-what': ['{word}', 'name one table file, such as harbours.family.yaml', '--find writes one for you'],
  'family-missing': ['{file}', 'there is no such file, in the site or here', ''],
  'family-yaml': ['{file}', 'is neither YAML nor JSON: {problem}', ''],
  'family-invalid': ['{file}', '{problem}', ''],
  'family-into-platform': ['{file}', 'into: {sheet} is a platform sheet', 'name one of your own'],
  'family-into-unused': [
    '{file}',
    'into: no page uses a sheet {sheet}',
    'name one that pages link, or leave it out',
  ],
} as const;
