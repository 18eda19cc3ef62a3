// Messages of `draft` and `adopt`: see `index.ts`.

export const DRAFT_MESSAGES = {
  'too-large': [
    'the site',
    'its pages hold {size} MB, for which a draft takes about {need} MB of memory, and this process may take {limit} MB',
    'draft its folders one by one, or give it more: NODE_OPTIONS=--max-old-space-size={asked}',
  ],
  'no-draft': ['{file}', 'there is no draft', 'run "acervus draft" first'],
  'draft-yaml': [
    'acervus-draft.yaml:{line}',
    'is not valid YAML: {problem}',
    'correct it, or delete it and draft again',
  ],
  'draft-outdated': ['acervus-draft.yaml', 'was made by an earlier version', 'delete it and draft again'],
  'draft-invalid': ['acervus-draft.yaml:{line}', '{problem}', ''],
  'draft-name': [
    'acervus-draft.yaml:{line}',
    'styles[{index}].name: "{name}" is no class name',
    'use letters, digits, - and _, a letter first',
  ],
  'draft-name-twice': [
    'acervus-draft.yaml:{line}',
    'styles[{index}].name: "{name}" names the style on line {other} too',
    'rename one, or merge it with "into: {name}"',
  ],
  'draft-into': [
    'acervus-draft.yaml:{line}',
    'styles[{index}].into: "{into}" is no new class of the draft that is taken',
    '"{name}" cannot go into it',
  ],
  'draft-name-in-use': [
    'acervus-draft.yaml',
    'style {id}: .{name} is in use on the site already',
    'choose another name',
  ],
  'draft-declarations': [
    'acervus-draft.yaml',
    'style {id}: declarations: expected CSS declarations, and it {problem}',
    '',
  ],
  'draft-foreign': [
    'acervus-draft.yaml',
    'style {id}: «{declaration}» is not what its elements say',
    'declarations may be left out whole, not changed',
  ],
  'draft-lacks': [
    'acervus-draft.yaml',
    'style {id}: "{name}" cannot go into "{into}": it lacks {declaration}',
    '',
  ],
  'draft-shared-platform': [
    'acervus-draft.yaml',
    'shared: {sheet} is a platform sheet',
    'name a sheet of your own, or list it under "theme" in acervus.json',
  ],
  'review-terminal': [
    '--review',
    'it asks questions, and nobody can answer here',
    'run it in a terminal, or edit acervus-draft.yaml by hand',
  ],
} as const;
