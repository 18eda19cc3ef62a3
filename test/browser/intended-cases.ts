// The cases of `intended.test.ts`: what is asked, of which site, and what a person would have made of it by hand.

export interface IntendedCase {
  readonly name: string;
  /** Commands without the site, which comes last. */
  readonly runs: readonly (readonly string[])[];
  readonly files: Readonly<Record<string, string>>;
  /** Files as they would be by hand, or that it must be refused. */
  readonly becomes: Readonly<Record<string, string>> | 'refused';
  readonly says?: RegExp;
}

const BODY = '<p class="a">x</p><p class="b">y</p><p class="c">z</p>';
const page = (body = BODY, head = ''): string =>
  `<!DOCTYPE html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n<title>x</title>\n<link rel="stylesheet" href="kit/kit.css">\n<link rel="stylesheet" href="css/site.css">${head}\n</head>\n<body>\n${body}\n</body>\n</html>\n`;

/** A site with one page, its own sheet and a platform's. */
function site(css: string, more: Readonly<Record<string, string>> = {}): Record<string, string> {
  return {
    'acervus.json': '{ "platform": ["kit/**"], "shared": "css/site.css" }',
    'kit/kit.css': '',
    'css/site.css': css,
    'a.html': page(),
    ...more,
  };
}

const kit = (
  platform: string,
  css = '',
  more: Readonly<Record<string, string>> = {},
): Record<string, string> => site(css, { 'kit/kit.css': platform, ...more });

const byHand = (css: string): Record<string, string> => ({ 'css/site.css': css });

const RESTYLE: readonly IntendedCase[] = [
  {
    name: 'restyle --token: of two declarations one comes by a token',
    runs: [['restyle', '.a', 'color: lime', 'padding: 9px', '--token']],
    files: site(':root{--ink:#123}.a{color:var(--ink);padding:2px}.c{border-color:var(--ink)}'),
    becomes: byHand(':root{--ink:lime}.a{color:var(--ink);padding:9px}.c{border-color:var(--ink)}'),
  },
  {
    name: 'restyle --token leaves the token of a section alone in which nothing meant stands',
    runs: [['restyle', '.a', 'color: lime', '--token']],
    files: site(':root{--ink:#123}.dark{--ink:#eee}.a{color:var(--ink)}.b{color:var(--ink)}', {
      'a.html': page('<p class="a">x</p><div class="dark"><p class="b">y</p></div>'),
    }),
    becomes: byHand(':root{--ink:lime}.dark{--ink:#eee}.a,.b{color:var(--ink)}'),
  },
  {
    name: 'restyle --token changes every section in which something meant stands',
    runs: [['restyle', '.a', 'color: lime', '--token']],
    files: site(':root{--ink:#123}.dark, .x{--ink:#eee}.a{color:var(--ink)}.x{color:var(--ink)}', {
      'a.html': page('<p class="a">x</p><div class="dark"><p class="a">y</p></div><p class="x">z</p>'),
    }),
    becomes: byHand(':root,.dark{--ink:lime}.x{--ink:#eee}.a,.x{color:var(--ink)}'),
  },
  {
    name: 'restyle keeps importance, and wins where the rule won',
    runs: [['restyle', '.a', 'color: lime']],
    files: site('.a{color:blue !important}p.a{color:red}'),
    becomes: byHand('.a{color:lime !important}p.a{color:red}'),
  },
  {
    name: 'restyle: a part of an important shorthand is important too',
    runs: [['restyle', '.a', 'margin-left: 30px']],
    files: site('.a{margin:4px !important}p.a{margin-left:9px}'),
    becomes: byHand('.a{margin:4px !important;margin-left:30px !important}p.a{margin-left:9px}'),
  },
  {
    name: 'restyle: a physical side under a logical one comes last',
    runs: [['restyle', '.a', 'margin-left: 30px']],
    files: site('.a{margin-left:3px;margin-inline-start:10px}'),
    becomes: byHand('.a{margin-inline-start:10px;margin-left:30px}'),
  },
  {
    name: 'restyle: two that set one side in the order in which they were typed',
    runs: [['restyle', '.a', 'margin: 4px', 'margin-left: 40px']],
    files: site('.a{margin-left:3px;color:red}'),
    becomes: byHand('.a{margin:4px;margin-left:40px;color:red}'),
  },
  {
    name: 'restyle: print blocks and sheets for print are another medium',
    runs: [['restyle', '.a', 'color: lime']],
    files: site('.b{top:0}', {
      'css/paper.css': '.a{color:black}',
      'a.html': page(
        BODY,
        '<link rel="stylesheet" href="css/paper.css" media="print"><style>.a{color:red}</style><style media="print">.a{color:navy}</style>',
      ),
    }),
    becomes: {
      'a.html': page(
        BODY,
        '<link rel="stylesheet" href="css/paper.css" media="print"><style>.a{color:lime}</style><style media="print">.a{color:navy}</style>',
      ),
    },
  },
  {
    name: 'restyle --medium takes a query for what it means, not for its spelling',
    runs: [['restyle', '.a', 'color: lime', '--medium', '(width <= 600px)']],
    files: site(
      '.a{color:red}@media (max-width:600px){.a{color:navy}}@media (max-width:800px){.b{color:navy}}',
    ),
    becomes: byHand(
      '.a{color:red}@media (max-width:600px){.a{color:lime}}@media (max-width:800px){.b{color:navy}}',
    ),
  },
  {
    name: 'restyle writes a new property on every page that has the rule pasted in',
    runs: [['restyle', '.a', 'margin: 9px']],
    files: site('', {
      'a.html': page(BODY, '<style>.a{color:red}</style>'),
      'b.html': page(BODY, '<style>.a{color:red}</style>'),
    }),
    becomes: {
      'a.html': page(BODY, '<style>.a{color:red;margin:9px}</style>'),
      'b.html': page(BODY, '<style>.a{color:red;margin:9px}</style>'),
    },
  },
  {
    name: 'restyle leaves what rules inside it say',
    runs: [['restyle', '.a', 'color: lime', 'margin: 7px']],
    files: site('.a{color:red;&:hover{color:blue}& + .b{margin:1px}}'),
    becomes: byHand('.a{color:lime;margin:7px}.a:hover{color:blue}.a + .b{margin:1px}'),
  },
  {
    name: 'restyle of one of a list leaves the others, also what is taken out',
    runs: [['restyle', '.a', 'color:', 'padding: 3px']],
    files: site('.a, .b{color:red;padding:1px;margin:2px}'),
    becomes: byHand('.b{color:red;padding:1px;margin:2px}.a{padding:3px;margin:2px}'),
  },
  {
    name: 'restyle of a state counts the elements that may be in it',
    runs: [['restyle', '.a:hover', 'color: lime']],
    files: site('.a:hover{color:blue}'),
    becomes: byHand('.a:hover{color:lime}'),
    says: /"meant": 1/,
  },
  {
    name: 'restyle of a pseudo-element leaves the element',
    runs: [['restyle', '.a::before', 'color: lime']],
    files: site('.a{color:red}.a::before{content:"x";color:blue}'),
    becomes: byHand('.a{color:red}.a::before{content:"x";color:lime}'),
  },
  {
    name: 'restyle does not touch how an element starts, nor another set of styles',
    runs: [['restyle', '.a', 'opacity: 0.5']],
    files: site('.a{opacity:1}@starting-style{.a{opacity:0}}', {
      'css/night.css': '.a{opacity:0.9}',
      'a.html': page(BODY, '<link rel="alternate stylesheet" title="night" href="css/night.css">'),
    }),
    becomes: byHand('.a{opacity:.5}@starting-style{.a{opacity:0}}'),
  },
  {
    name: 'restyle of what a registered property animates, in forced colours, and of a backdrop',
    runs: [
      ['restyle', '.a', '--ink: lime'],
      ['restyle', 'dialog::backdrop', 'background: lime'],
      ['restyle', '.b', 'color: lime', '--medium', '(forced-colors: active)'],
    ],
    files: site(
      '@property --ink{syntax:"<color>";inherits:true;initial-value:red}.a{--ink:blue;color:var(--ink)}dialog::backdrop{background:red}@media (forced-colors:active){.b{color:red}}',
      { 'a.html': page(`${BODY}<dialog open>d</dialog>`) },
    ),
    becomes: byHand(
      '@property --ink{syntax:"<color>";inherits:true;initial-value:red}.a{--ink:lime;color:var(--ink)}dialog::backdrop{background:lime}@media (forced-colors:active){.b{color:lime}}',
    ),
  },
  {
    name: 'restyle tells what a stronger rule keeps',
    runs: [['restyle', '.a', 'color: lime']],
    files: site('@layer base{.a{color:red}}.x{color:navy}', {
      'a.html': page('<p class="a x">1</p><p class="a">2</p>'),
    }),
    becomes: byHand('@layer base{.a{color:lime}}.x{color:navy}'),
    says: /"selector": "\.x"/,
  },
];

const OVERRIDE: readonly IntendedCase[] = [
  {
    name: 'override --drop takes the one that is named, not those for a state, for print, or deeper in the page',
    runs: [
      ['override', '.a', 'color: red'],
      ['override', '.a:hover', 'color: lime'],
      ['override', '.a', 'color: navy', '--medium', 'print'],
      ['override', '#main .a', 'top: 1px'],
      ['override', '--drop', '.a'],
    ],
    files: kit('.a{color:blue}', '', { 'a.html': page(`<div id="main">${BODY}</div>`) }),
    becomes: byHand('.a:hover{color:lime}@media print{.a{color:navy}}#main .a{top:1px}'),
  },
  {
    name: 'override --drop --medium takes the one in that medium',
    runs: [
      ['override', '.a', 'color: red'],
      ['override', '.a', 'color: navy', '--medium', 'print'],
      ['override', '--drop', '.a', '--medium', 'print'],
    ],
    files: kit('.a{color:blue}'),
    becomes: byHand('.a{color:red}'),
  },
  {
    name: 'override --drop takes what was said again for it, and one of a list alone',
    runs: [
      ['override', '.a', 'color: lime'],
      ['override', '.b', 'color: lime'],
      ['override', '--drop', '.a'],
    ],
    files: kit('.a,.b{color:blue}.a:hover{color:red}'),
    becomes: byHand('.b{color:lime}'),
  },
  {
    name: 'override --drop of one property leaves the rest',
    runs: [
      ['override', '.a', 'color: lime', 'top: 3px'],
      ['override', '--drop', '.a', 'color'],
    ],
    files: kit('.a{color:blue}'),
    becomes: byHand('.a{top:3px}'),
  },
  ...[
    ['wider', '(max-width: 800px)', 'p.a'],
    ['narrower', '(max-width: 300px)', 'p.a'],
    ['overlapping', '(min-width: 400px)', 'body p.a'],
  ].map(
    ([what, query, selector]): IntendedCase => ({
      name: `override --medium wins over a ${what} query`,
      runs: [['override', '.a', 'color: lime', '--medium', '(max-width: 600px)']],
      files: kit(`.a{color:blue}@media ${query}{${selector}{color:navy}}`),
      becomes: byHand('@media (max-width: 600px){html body p.a.a{color:lime}}'),
    }),
  ),
  {
    name: 'override --medium leaves print and states as they are',
    runs: [['override', '.a', 'color: lime', '--medium', '(min-width: 300px)']],
    files: kit('.a{color:blue}@media print{p.a{color:black}}p.a:hover{color:red}'),
    becomes: byHand('@media (min-width: 300px){.a{color:lime}}'),
  },
  {
    name: 'override within a body class reaches nothing that only has the class',
    runs: [['override', '.a', 'color: lime', '--within', 'body.pg']],
    files: kit('.a{color:blue}', '', {
      'a.html': page().replace('<body>', '<body class="pg">'),
      'b.html': page(`<div class="pg">${BODY}</div>`),
    }),
    becomes: byHand('body.pg .a{color:lime}'),
  },
  {
    name: 'override within a page is refused where a script gives its body class to another',
    runs: [['override', '.a', 'color: lime', '--within', 'a.html']],
    files: kit('.a{color:blue}', '', {
      'a.html': page().replace('<body>', '<body class="pg">'),
      'b.html': page(`${BODY}<button onclick="document.body.className='pg'">z</button>`),
    }),
    becomes: 'refused',
  },
  {
    name: 'override is refused where a template brings the sheet into a shadow root',
    runs: [['override', '.w .a', 'color: lime']],
    files: kit('.a{color:blue}', '', {
      'a.html': page(
        `<div class="w">${BODY}</div><div id="h"></div><template id="t"><link rel="stylesheet" href="css/site.css"><div class="w"><p class="a">s</p></div></template><script>document.getElementById('h').attachShadow({mode:'open'}).append(document.getElementById('t').content.cloneNode(true))</script>`,
      ),
    }),
    becomes: 'refused',
  },
  {
    name: 'override beats importance in a medium with importance, there only',
    runs: [['override', '.a', 'color: lime', '--medium', 'print']],
    files: kit('.a{color:blue}@media print{.a{color:black !important}}'),
    becomes: byHand('@media print{.a{color:lime !important}}'),
  },
  {
    name: 'override says that nothing beats importance in a layer',
    runs: [['override', '.a', 'color: lime']],
    files: kit('@layer kit{.a{color:blue !important}}'),
    becomes: 'refused',
  },
  {
    name: 'override of a physical side beats a logical one',
    runs: [['override', '.a', 'margin-left: 30px']],
    files: kit('p.a{margin-inline-start:10px}'),
    becomes: byHand('p.a{margin-left:30px}'),
  },
  {
    name: 'override of a value that browsers do not take is refused in one line',
    runs: [['override', '.a', 'color: notacolor']],
    files: kit('.a{color:blue}'),
    becomes: 'refused',
    says: /does not take "notacolor"/,
  },
];

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

const FAMILY: readonly IntendedCase[] = [
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

const plainMend = ['outlast', '--platform', 'kit/kit.css=new/kit.css', '--mend'] as const;
/** Mended, and then updated. */
const mend = (name: string, own: string, old: string, fresh: string, wanted: string): IntendedCase => ({
  name,
  runs: [plainMend],
  files: kit(old, own, { 'new/kit.css': fresh }),
  becomes: byHand(wanted),
});

const OUTLAST: readonly IntendedCase[] = [
  mend(
    'outlast --mend shows nothing before the update',
    '.a{color:red;margin:5px}',
    '.a{color:blue;margin:1px}',
    'html .a{color:blue}body .a.a{margin:1px}',
    '.a{color:red;margin:5px}',
  ),
  mend(
    'outlast --mend leaves what importance in a layer beats',
    'p.a{color:red}',
    '.a{color:blue}',
    '@layer kit{.a{color:blue !important}}',
    'p.a{color:red}',
  ),
];

export const CASES: readonly IntendedCase[] = [...RESTYLE, ...OVERRIDE, ...FAMILY, ...OUTLAST];
