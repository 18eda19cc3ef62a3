// Rules of the theme that are changed where they stand.

import { BODY, byHand, type IntendedCase, page, site } from './site.js';

export const RESTYLE: readonly IntendedCase[] = [
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
  {
    name: 'restyle: behind `all`, and under a shorthand, a property comes last',
    runs: [
      ['restyle', '.a', 'color: lime'],
      ['restyle', '.b', 'border-color: lime'],
      ['restyle', '.c', 'background: lime'],
    ],
    files: site(
      '.a{color:red;all:unset}.b{border-color:red;border:2px solid blue}.c{background:red;background:linear-gradient(red,blue)}',
    ),
    becomes: byHand('.a{all:unset;color:lime}.b{border:2px solid lime}.c{background:lime}'),
  },
  {
    name: 'restyle leaves the rule of the same name in a scope',
    runs: [['restyle', '.a', 'color: lime']],
    files: site('@scope (.w){.a{color:red}}.a{color:blue}', {
      'a.html': page(`<div class="w">${BODY}</div>${BODY}`),
    }),
    becomes: byHand('@scope (.w){.a{color:red}}.a{color:lime}'),
  },
  {
    name: 'restyle: each page in the sheet that it reads',
    runs: [['restyle', '.a', 'color: lime']],
    files: site('.a{color:red}', {
      'css/two.css': '.a{top:0}',
      'b.html': page().replace('css/site.css', 'css/two.css'),
    }),
    becomes: { 'css/site.css': '.a{color:lime}', 'css/two.css': '.a{top:0;color:lime}' },
  },
  {
    name: 'restyle --token: set in a style attribute, in print, and made of another',
    runs: [['restyle', '.a', 'color: lime', '--token']],
    files: site(
      ':root{--base:#123;--ink:var(--base)}@media print{:root{--ink:black}}.a{color:var(--ink)}.b{color:var(--base)}',
      {
        'a.html': page(`${BODY}<div style="--ink: navy"><p class="a">2</p></div>`),
      },
    ),
    becomes: byHand(
      ':root{--base:#123;--ink:lime}@media print{:root{--ink:black}}.a{color:var(--ink)}.b{color:var(--base)}',
    ),
    says: /"why": "style attribute"/,
  },
  {
    name: 'restyle and override with an address, as the sheet that it stands in reads it',
    runs: [
      ['restyle', '.a', 'background: url(../x.svg)'],
      ['override', '.b', 'background: url("../x.svg")'],
    ],
    files: site('.a{background:red}', { 'kit/kit.css': 'p.b{background:red}', 'x.svg': '<svg/>' }),
    becomes: byHand('.a{background:url(../x.svg)}p.b{background:url(../x.svg)}'),
  },
];
