// Why a change, or a part of one, is not made.

export const REFUSED = {
  // rename
  'the platform styles it': [
    'the platform styles it',
    '',
    'a platform sheet names the class; give the elements a class of your own beside it',
  ],
  'the new name is taken': ['the new name is taken', '', 'choose another, or --merge to make the two one'],
  'not every place is sure': [
    'not every place is sure',
    '',
    'look at each, then --scripts to rename there too',
  ],
  'it would look different': [
    'it would look different',
    '',
    'something else has the name, or declares it: see what would change',
  ],
  // restyle
  'it would change what was not asked': ['it would change what was not asked', '', 'see what would change'],
  'it would not reach all': [
    'it would not reach all',
    '',
    'leave out --only-if-all, or change what keeps its own',
  ],
  // override
  'beaten in a style attribute': [
    'is !important in a style attribute, which no sheet beats',
    '',
    'change it where it stands',
  ],
  'beaten in a layer': [
    'is !important in a layer, which no rule outside layers beats',
    '',
    'change it where it stands',
  ],
  'more specific than any selector': [
    'is more specific than any selector for these elements',
    '',
    'change it where it stands',
  ],
  // values
  'file not yours': ['{path} may not be written', '', 'change it where it comes from'],
  'tokens of one name': ['the file has {count} tokens of this name', '', 'leave one'],
  'new name there': ['{to} stands in {place} already', '', 'choose another name'],
  'named in what is not yours': [
    '{place} speaks of it, and may not be written',
    '',
    'change it where it comes from',
  ],
  'named outside a style': ['{place} speaks of it outside a style', '', ''],
  'named by a script': ['the script at {place} speaks of it', '', 'rename it there by hand'],
  'named where nothing is read': ['{place} speaks of it, and is not read', '', 'rename it there by hand'],
  'no rule for it': ['{path} has no rule that it stands in', '', 'write the rule first'],
  // style blocks in code
  'block tag says more': ['its tag has attributes besides', '', 'move the medium into the rules'],
  'block of strings': ['it is put together of strings', '', ''],
  'block with values': ['its code writes values into it', '', ''],
  'block with addresses': [
    'it names other files by where its page is',
    '',
    'write addresses from the root of the site',
  ],
  'sheet says something else': ['{sheet} holds something else: name a sheet of its own', '', ''],
  'nothing loads the sheet': [
    'nothing tells how code loads {sheet}: say so under "link" or "served"',
    '',
    '',
  ],
  'quotes end the string': [
    'the quotes of "link" would end the string',
    '',
    'write "link" with the other quotes',
  ],
  // outlast --mend
  'still beaten': ['after the update its {property} would still be beaten by {by}', '', ''],
  'seen before the update': ['before the update {detail}', '', ''],
} as const;
