// Messages of `hold`: see `index.ts`.

export const HOLD_MESSAGES = {
  'hold-file': [
    'acervus-hold.json',
    'is not as it was written ({problem})',
    'restore it, or delete it and begin anew',
  ],
  'hold-since': ['--since {reference}', 'is no commit that git knows here', 'name one, such as HEAD or main'],
  'hold-form': ['hold', 'one form at a time', 'choose one of --json, --sarif and --junit'],
} as const;
