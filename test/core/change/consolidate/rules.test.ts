// What several rules say, said once: small sites, each with the sheet that a person would have written.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { prove } from '../../../../src/core/proof/index.js';
import { type Adopted, adoptAll } from '../../../support/model.js';
import { htmlPage } from '../../../support/site.js';

const LINK = '<link rel="stylesheet" href="t.css">\n';

interface Case {
  readonly what: string;
  readonly css: string;
  readonly body?: string;
  readonly pages?: Readonly<Record<string, string>>;
  readonly options?: Parameters<typeof adoptAll>[1];
  /** The sheet afterwards, without line breaks. */
  readonly after: string;
  /** Of the first page. */
  readonly page?: RegExp;
}

const adopted = ({ css, body = '', pages, options }: Case): Adopted =>
  adoptAll(
    { ...(pages ?? { 'index.html': htmlPage(body, LINK) }), 't.css': css },
    {
      shared: { path: 't.css', partNames: {} },
      ...options,
    },
  );

const block = (css: string, body: string): string => htmlPage(body, `${LINK}<style>\n${css}\n</style>\n`);
const section = (name: string, css: string, body: string): string =>
  block(css, body).replace('<body>', `<body class="sec-${name}">`);

const bands = ['a', 'b', 'c'].map((one) => `<p class="band band-${one}">x</p>`).join('');
const boxes = [1, 2, 3].map((n) => `<div class="box" id="n${n}"><h2>x</h2></div>`).join('');

const CASES: readonly Case[] = [
  {
    what: 'what people wrote of a class gives way to no attribute that its elements happen to have',
    css: '.rail { top: 0; color: red; }\nol { left: 0; }\n.crew { top: 0; color: teal; }\n',
    body: '<p class="rail" role="note">x</p><p class="crew" role="note">y</p>',
    after: '.rail { top: 0; color: red; } ol { left: 0; } .crew { top: 0; color: teal; }',
  },
  {
    what: 'a comment behind a rule is said of that rule',
    css: '.k { top: 0; color: red } /* keys */\n.o { left: 0 } /* others */\n.n { top: 0; color: red } /* names */\n',
    body: '<b class="k">x</b><b class="o">x</b><b class="n">x</b>',
    after: '.k, .n { top: 0; color: red; } /* keys */ .o { left: 0 } /* others */',
  },
  {
    what: 'a class that all carry is the first home, with each rule keeping its rest',
    css: '.band-a { top: 0; color: red; }\n.band-b { top: 0; color: teal; }\n.band-c { top: 0; color: navy; }\n',
    body: bands,
    after: '.band { top: 0; } .band-a { color: red; } .band-b { color: teal; } .band-c { color: navy; }',
  },
  {
    what: 'rules by id are one for what all of them are, and for the part in it',
    css: '#n1 { top: 0; left: 0; }\n#n2 { top: 0; left: 0; }\n#n3 { top: 0; left: 9px; }\n#n1 h2 { right: 0; }\n#n2 h2 { right: 0; }\n#n3 h2 { right: 0; }\n',
    body: boxes,
    after: '.box { top: 0; left: 0; } #n3 { left: 9px; } .box h2 { right: 0; }',
  },
  {
    what: 'a narrow form is factored like the wide one, where the wide one is',
    css: '#n1 { top: 9px; }\n@media (max-width: 700px) {\n#n1 { top: 0; }\n}\n#n2 { top: 9px; }\n@media (max-width: 700px) {\n#n2 { top: 0; }\n}\n#n3 { top: 9px; }\n@media (max-width: 700px) {\n#n3 { top: 0; }\n}\n',
    body: boxes,
    after: '.box { top: 9px; } @media (max-width: 700px) { .box { top: 0; } }',
  },
  {
    what: 'states that say the same are one rule',
    css: '.go { top: 0; }\n.go:hover { color: red; left: 0; }\n.to:hover { color: red; left: 0; right: 0; }\n',
    body: '<a class="go" href="#">x</a><a class="to" href="#">y</a>',
    after: '.go { top: 0; } .go:hover, .to:hover { color: red; left: 0; } .to:hover { right: 0; }',
  },
  {
    what: 'a state that no page shows goes with what all of its rules ask for',
    css: '#n1.is-wrong h2 { color: red; }\n#n2.is-wrong h2 { color: red; }\n#n3.is-wrong h2 { color: red; }\n',
    body: boxes,
    after: '.is-wrong h2 { color: red; }',
  },
  {
    what: 'names that nobody is seen to wear are not taken for all that contents may wear with them',
    css: '.token.url { float: left; }\n.token.loud { top: 0; }\n.token.name b { float: left; }\n.token.sum { float: left; }\n',
    body: boxes,
    after:
      '.token.url { float: left; } .token.loud { top: 0; } .token.name b { float: left; } .token.sum { float: left; }',
  },
  {
    what: 'rules of one selector are joined, and what a later one beats goes',
    css: '.go { color: red; top: 0; }\n.no { left: 0; }\n.go { color: teal; right: 0; }\n',
    body: '<p class="go">x</p><p class="no">y</p>',
    after: '.go { top: 0; color: teal; right: 0; } .no { left: 0; }',
  },
  {
    what: 'they stay apart where something between them would come to win',
    css: '.go { top: 0; }\n.no { top: 1px; }\n.go { left: 0; top: 2px; }\n',
    body: '<p class="go no">x</p><p class="no">y</p>',
    after: '.no { top: 1px; } .go { left: 0; top: 2px; }',
  },
  {
    what: 'two names that the same elements wear today are not one name',
    css: '.a { top: 0; left: 0; }\n.c { right: 0; }\n.b { top: 0; right: 1px; }\n',
    body: '<p class="a b c">x</p>',
    after: '.a { top: 0; left: 0; } .c { right: 0; } .b { top: 0; right: 1px; }',
  },
  {
    what: 'two declarations in common are chance where the rules are about other things',
    css: '.tide { font-weight: bold; color: red; top: 0; }\n.gull { left: 0; }\n#quay { font-weight: bold; color: red; right: 0; }\n',
    body: '<p class="tide">x</p><p class="gull">y</p><p id="quay">z</p>',
    after:
      '.tide { font-weight: bold; color: red; top: 0; } .gull { left: 0; } #quay { font-weight: bold; color: red; right: 0; }',
  },
  {
    what: 'a block that every page pastes goes, and one page keeps what it says otherwise',
    css: 'p { left: 0; }\n',
    pages: {
      'a.html': block('.box { top: 0; right: 0; }\n.box b { color: red; }', '<p class="box"><b>x</b></p>'),
      'b.html': block('.box { top: 0; right: 0; }\n.box b { color: red; }', '<p class="box"><b>x</b></p>'),
      'c.html': block('.box { top: 0; right: 9px; }\n.box b { color: red; }', '<p class="box"><b>x</b></p>'),
    },
    after: 'p { left: 0; } .box { top: 0; right: 0; } .box b { color: red; }',
    page: /<link rel="stylesheet" href="t\.css">\s*<\/head>/,
  },
  {
    what: 'sections that differ in a colour share their rules',
    css: 'p { left: 0; }\n',
    pages: Object.fromEntries(
      ['red', 'teal', 'navy'].map((ink, at) => [
        `${ink}.html`,
        section(
          `${at}`,
          `h1 { color: ${ink}; }\nh2 { border-left: 2px solid ${ink}; }\n.more { color: ${ink}; }\n.more:hover { background: ${ink}; }\n.lead { outline: 1px solid ${ink}; }`,
          '<h1>x</h1><h2>y</h2><p class="lead">v <a class="more" href="#">z</a></p>',
        ),
      ]),
    ),
    after:
      '.sec-0 { --ink-1: red; } .sec-1 { --ink-1: teal; } .sec-2 { --ink-1: navy; } p { left: 0; } h1 { color: var(--ink-1); } h2 { border-left: 2px solid var(--ink-1); } .more { color: var(--ink-1); } .more:hover { background: var(--ink-1); } .lead { outline: 1px solid var(--ink-1); }',
  },
  {
    what: 'a class that was put on in turn is counted, and leaves the tags',
    css: '.rows .odd { color: red; }\n.rows .even { color: teal; }\n',
    body: `<ul class="rows">${[0, 1, 2, 3, 4, 5].map((n) => `<li class="${n % 2 === 0 ? 'odd' : 'even'}">x</li>`).join('')}</ul>`,
    after: '.rows li:nth-child(odd) { color: red; } .rows li:nth-child(even) { color: teal; }',
    page: /<ul class="rows"><li>x<\/li>/,
  },
  {
    what: 'a script that names it keeps it',
    css: '.rows .odd { color: red; }\n',
    body: `<ul class="rows">${[0, 1, 2, 3, 4, 5].map((n) => (n % 2 === 0 ? '<li class="odd">x</li>' : '<li>x</li>')).join('')}</ul><script>count('.odd')</script>`,
    after: '.rows .odd { color: red; }',
    page: /class="odd"/,
  },
  {
    what: 'a class that no rule asks for any more leaves the tags',
    css: '.g1 { top: 0; left: 0; }\n.g2 { top: 0; left: 0; }\n.g3 { top: 0; left: 0; }\n',
    body: '<p class="tile g1">x</p><p class="tile g2">y</p><p class="tile g3">z</p>',
    after: '.tile { top: 0; left: 0; }',
    page: /<p class="tile">x<\/p><p class="tile">y<\/p>/,
  },
  {
    what: 'rules are as weak as their work allows, on request',
    css: '#page #main .note b { color: red !important; }\n#page #main .note i { left: 0; }\n',
    body: '<div id="page"><div id="main"><p class="note"><b>x</b><i>y</i></p></div></div>',
    options: { weaken: true },
    after: '.note b { color: red; } .note i { left: 0; }',
  },
  {
    what: 'what must beat something keeps the strength for it, and importance stays beside scripts',
    css: '.note b { color: teal; left: 0; }\n#main .note b { color: red !important; }\n',
    body: '<div id="main"><p class="note"><b>x</b></p></div><p class="note"><b>y</b></p><script>go()</script>',
    options: { weaken: true },
    after: '.note b { color: teal; left: 0; } #main .note b { color: red !important; }',
  },
];

for (const one of CASES)
  test(one.what, () => {
    const { before, after, text } = adopted(one);
    assert.equal(text('t.css').replace(/\s+/g, ' ').trim(), one.after);
    if (one.page !== undefined) assert.match(text(after.paths[0]!), one.page);
    assert.deepEqual(prove(before, after).differences, []);
  });

test('a style block that a rule shows is not cut', () => {
  const shown = block('style { display: block; }\n.box { top: 0; }', '<p class="box">x</p>').replace(
    '<head>',
    '<head>',
  );
  const files = { 'a.html': shown, 'b.html': shown, 't.css': 'head, style { display: block; }\n' };
  const { after } = adoptAll(files);
  assert.equal(after.sources.pages.get('a.html'), shown);
});

test('the standard says how text is aligned, where no box stands in it', () => {
  const rows = (cell: string): string =>
    `<table class="t">${Array.from({ length: 4 }, () => `<tr><td align="center">${cell}</td></tr>`).join('')}</table>`;
  const css = (cell: string): string => adoptAll({ 'a.html': htmlPage(rows(cell)) }).text('shared.css');
  assert.match(css('x'), /text-align: center/);
  assert.match(css('<p>x</p>'), /text-align: -webkit-center/);
});
