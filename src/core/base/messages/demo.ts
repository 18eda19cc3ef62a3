// Messages of `demo`: see `index.ts`.

export const DEMO_MESSAGES = {
  'demo-exists': ['{folder}', 'exists and is not empty', 'name a new folder'],
  'demo-missing': ['demo', 'the demo site is missing from this installation', 'install Acervus again'],
} as const;
