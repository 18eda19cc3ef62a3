// Why nothing on a page can be decided, so that nothing on it moves.

export const UNDECIDED = {
  base: ['it has a <base> element', '', ''],
  policy: ['it has a content security policy', '', 'move the policy into a header'],
  'shadow roots': ['it declares shadow roots', '', ''],
  'nested deep': ['it is nested {depth} levels deep', '', ''],
  'no whole page': [
    'nothing marks it as a whole page; if pages include it, name it under "components" in acervus.json',
    '',
    '"components" in acervus.json',
  ],
  'shown nowhere': ['no page of the site could show it, so nothing can be compared', '', ''],
  'sheet undecided': ['{what} in {sheet}', '', ''],
  'layer under a condition': [
    'a layer under a condition',
    '',
    'name the layers in front, without a condition',
  ],
  'layer in a conditional sheet': [
    'a layer that is first named in a sheet under a condition',
    '',
    'name the layers in front, without a condition',
  ],
  'scope without a root': ['a scope inside another, or without a root', '', ''],
  namespace: ['a namespace', '', ''],
  'brackets deep': ['brackets more than {most} deep', '', ''],
  'sheet beside it': ['a sheet beside it may style it alone', '', ''],
  'no compiler': ['no compiler takes it', '', 'mend the component, or install its compiler beside Acervus'],
  'style block made': ['code makes a style block in it', '', ''],
  'styles written by code': ['its code writes styles or classes of elements', '', ''],
  'style block elsewhere': ['a style block stands in another file', '', ''],
  'names made up': ['the names in a style block are made up when it is built', '', ''],
  'reaches out': ['a style block reaches out of the component', '', ''],
  'written into': ['code writes into a style block', '', ''],
  'block language': ['a style block is written in {lang}', '', ''],
} as const;
