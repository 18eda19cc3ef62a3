// Tables of rows and rules.

import { byHand, type IntendedCase, page, site } from './site.js';

const FAMILY_HEAD = 'format: 1\nfamily: fam\ninto: css/site.css\n';
const ROWS = "rows:\n  aa: { ink: '#ff0000' }\n  bb: { ink: '#0000ff' }\n";
const SECTIONS =
  '<div class="sk-aa"><h3>a</h3><p class="k">x</p><a href="?x&amp;y" title="q,r">l</a></div><div class="sk-bb"><h3>b</h3><p class="k">x</p><a href="?x&amp;y" title="q,r">l</a></div><h3>plain</h3>';

const family = (
  name: string,
  table: string,
  becomes: IntendedCase['becomes'],
  { css = 'h3{color:black}', body = SECTIONS, says }: { css?: string; body?: string; says?: RegExp } = {},
): IntendedCase => ({
  name,
  runs: [['family', 'fam.yaml']],
  files: site(css, { 'fam.yaml': FAMILY_HEAD + table, 'a.html': page(body) }),
  becomes,
  ...(says === undefined ? {} : { says }),
});

const EACH = "each: section\nwhere: '.sk-{row}'\n";

export const FAMILY: readonly IntendedCase[] = [
  ...[
    ['print', 'not print'],
    ['screen and (max-width: 600px)', 'not (screen and (max-width: 600px))'],
    ['(max-width: 600px)', 'not all and (max-width: 600px)'],
    ['print, (max-width: 600px)', 'screen and (min-width: 600.1px)'],
    ['(max-width: 300px) or (min-width: 900px)', '(300px < width < 900px)'],
    ['not print', 'print'],
  ].map(
    ([off = '', on]): IntendedCase =>
      family(
        `family: off in ${off}`,
        `${EACH}${ROWS}rules:\n  h3: { color: '{ink}' }\noff: '${off}'\n`,
        byHand(
          `h3{color:black}@media ${on === 'not (screen and (max-width: 600px))' ? 'not screen and (max-width: 600px)' : on}{.sk-aa h3{color:#f00}.sk-bb h3{color:#00f}}`,
        ),
      ),
  ),
  family(
    'family: an off that is no query is a mistake in the table',
    `${EACH}${ROWS}rules:\n  h3: { color: '{ink}' }\noff: 'in winter'\n`,
    'refused',
    { says: /off: "in winter" is no media query/ },
  ),
  family(
    'family: & and commas in attribute values are what they are',
    `${EACH}${ROWS}rules:\n  'a[href*="x&y"], a[title="q,r"]': { color: '{ink}' }\n`,
    byHand('h3{color:black}.sk-aa a{color:#f00}.sk-bb a{color:#00f}'),
  ),
  family(
    'family: & anywhere in a selector is the element',
    `${EACH}${ROWS}rules:\n  'h3:not(& + & *), & + & p': { color: '{ink}' }\n`,
    byHand('h3{color:black}.sk-aa h3{color:#f00}'),
    { body: SECTIONS.replace('<div class="sk-bb">', '<i></i><div class="sk-zz">') },
  ),
  family(
    'family: {row} twice in where',
    `each: section\nwhere: '.sk-{row} .in-{row}'\n${ROWS}rules:\n  '&': { color: '{ink}' }\n`,
    byHand('h3{color:black}.sk-aa .in-aa{color:#f00}.sk-bb .in-bb{color:#00f}'),
    {
      body: '<div class="sk-aa"><p class="in-aa">1</p><p class="in-bb">2</p></div><div class="sk-bb"><p class="in-bb">3</p></div>',
    },
  ),
  family(
    'family: a list of siblings, by position',
    `each: position\nwhere: '.row > p, .col > p'\nrows:\n  odd: { ink: '#ff0000' }\n  even: { ink: '#0000ff' }\nrules:\n  '&': { color: '{ink}' }\n`,
    byHand(':is(.row,.col)>p:nth-child(odd){color:#f00}:is(.row,.col)>p:nth-child(even){color:#00f}'),
    { body: '<div class="row"><p>1</p><p>2</p></div><div class="col"><p>1</p><p>2</p></div>' },
  ),
  family(
    'family: a list in where, one of it with a pseudo-element',
    `each: section\nwhere: '.sk-{row}, .to-{row}::before'\n${ROWS}rules:\n  '&': { color: '{ink}' }\n`,
    byHand('.to-bb::before{content:"x"}.sk-aa{color:#f00}.to-bb::before{color:#00f}'),
    { css: '.to-bb::before{content:"x"}', body: '<p class="sk-aa">1</p><p class="to-bb">2</p>' },
  ),
  family(
    'family: a value that the property does not take is a mistake in the table',
    `${EACH}${ROWS.replace('#0000ff', 'notacolor')}rules:\n  h3: { color: '{ink}' }\n`,
    'refused',
    { says: /does not take \\?"notacolor\\?", as row bb has it/ },
  ),
  family(
    'family: a value is put in whole',
    `${EACH}${ROWS.replaceAll(/'#\w+'/g, '4')}rules:\n  h3: { margin: '{ink}px' }\n`,
    'refused',
    { says: /whole value/ },
  ),
  family(
    'family: a sheet that ends in the middle of something is not written into',
    `${EACH}${ROWS}rules:\n  h3: { color: '{ink}' }\n`,
    'refused',
    { css: 'h3{color:black}\n/* to be', says: /ends in the middle/ },
  ),
];
