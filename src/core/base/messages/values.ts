// Messages of `values`: see `index.ts`.

export const VALUES_MESSAGES = {
  'values-out': ['{file}', 'is there already, and holds no tokens', 'name another file for --out'],
  'values-folder': ['{file}', 'there is no such folder', 'make it first'],
  'values-tokens': ['{file}', 'is no file of design tokens ({problem})', 'correct it'],
  'values-both': ['values', 'one way at a time', 'leave out --in or --out'],
} as const;
