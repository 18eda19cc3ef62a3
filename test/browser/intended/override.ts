// Rules that beat a platform, in just the places that are meant.

import { BODY, byHand, type IntendedCase, kit, page } from './site.js';

export const OVERRIDE: readonly IntendedCase[] = [
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
  ...[
    ['(max-width: 40em)', '@media (max-width: 800px){p.a{color:navy}}'],
    ['print, (max-width: 600px)', '@media (max-width: 700px){p.a{color:navy}}'],
    [
      '(min-width: 300px) and (max-width: 900px)',
      '@media (min-width: 600px){body p.a{color:navy}}@media (max-width: 400px){.a{color:teal}}',
    ],
    ['(prefers-color-scheme: dark)', '@media (prefers-color-scheme: light){p.a{color:navy}}'],
  ].map(
    ([medium = '', rivals]): IntendedCase => ({
      name: `override --medium ${medium}`,
      runs: [['override', '.a', 'color: lime', '--medium', medium]],
      files: kit(`.a{color:blue}${rivals}`),
      becomes: byHand(`@media ${medium}{html body p.a{color:lime}}`),
    }),
  ),
  {
    name: 'override of a popover, open and its backdrop',
    runs: [
      ['override', '#p:popover-open', 'color: lime'],
      ['override', '#p::backdrop', 'background: lime'],
    ],
    files: kit('[popover]:popover-open{color:blue}[popover]::backdrop{background:red}', '', {
      'a.html': page(`${BODY}<div popover id="p">x</div>`),
    }),
    becomes: byHand('#p:popover-open{color:lime}#p::backdrop{background:lime}'),
  },
  {
    name: 'override of the base, then of a state, then of a medium: each stands',
    runs: [
      ['override', '.a:hover', 'color: lime'],
      ['override', '.a', 'color: navy'],
      ['override', '.a', 'color: teal', '--medium', '(max-width: 600px)'],
      ['override', '.a', 'color: red'],
    ],
    files: kit('p.a{color:blue}'),
    becomes: byHand('p.a{color:red}@media (max-width: 600px){p.a{color:teal}}p.a:hover{color:lime}'),
  },
];
