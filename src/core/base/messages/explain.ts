// Messages of `explain` and `reach`: see `index.ts`.

export const EXPLAIN_MESSAGES = {
  'no-element-there': [
    '{place}',
    'no element begins there or before',
    'name a line of the page, or a selector',
  ],
  'explain-nothing': [
    '{text}',
    'picks out nothing on {page}',
    '"acervus reach \'{text}\'" tells where it does',
  ],
  'reach-nothing': [
    '"{text}"',
    'is nothing to look for',
    'name a selector, a value, a declaration or a place such as {sheet}:12',
  ],
} as const;
