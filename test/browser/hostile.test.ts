// Small sites on which a proof is easily wrong: what the engine calls equal looks equal in Chromium, and what a browser, a
// person or a script may change stays where it is.

import assert from 'node:assert/strict';
import { cpSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { lookDifferent, VIEWS, withBrowser } from '../support/chromium.js';
import { acervus, addFiles, type Files, htmlPage, makeSite, read } from '../support/site.js';

const LINK = '<link rel="stylesheet" href="theme/a.css">';
const three = (tag: string): string => Array.from({ length: 3 }, () => tag).join('\n');
const site = (css: string, body: string, more: Files = {}): string =>
  makeSite({ 'index.html': htmlPage(body, LINK), 'theme/a.css': css, ...more });

/** No sheet here asks for a width or a medium. */
const ONE_VIEW = VIEWS.slice(0, 1);

/** Adopted, with its look compared. Out: the page afterwards. */
async function adopted(tab: Parameters<typeof lookDifferent>[0], folder: string): Promise<string> {
  const before = makeSite({});
  cpSync(folder, before, { recursive: true });
  for (const command of ['draft', 'adopt']) {
    const run = await acervus(command, folder);
    assert.equal(run.code, 0, run.stderr);
  }
  const [a, b] = [before, folder].map((one) => path.join(one, 'index.html'));
  assert.deepEqual(
    await lookDifferent(tab, a!, b!, undefined, undefined, ONE_VIEW),
    [],
    read(folder, 'index.html'),
  );
  return read(folder, 'index.html');
}

const AT_REST: readonly (readonly [what: string, css: string, body: string])[] = [
  ['a brace in a style attribute ends nothing', '', three('<p style="color: red}">x</p>')],
  ['a property in escapes is itself', '', three('<p style="c\\6flor: red; top: 0">x</p>')],
  [
    'importance in escapes is importance',
    '#w p { color: blue !important }',
    `<div id="w">${three('<p style="color: red !\\69mportant; top: 0">x</p>')}</div>`,
  ],
  [
    'an alias has words of its own',
    '.a { break-after: always }',
    three('<p class="a" style="page-break-after: always">x</p>'),
  ],
  [
    'a value that no browser keeps beats nothing',
    '.a { filter: gray; width: calc(100%-20px); line-height: -1 }',
    three(
      '<p class="a" style="filter: grayscale(1); filter: gray; width: 300px; width: calc(100%-20px); line-height: 2; line-height: -1">x</p>',
    ),
  ],
  [
    'a zero in a function is no length',
    '.a { width: max(0, 50%); float: left }',
    three('<p class="a" style="width: max(0px, 50%)">x</p>'),
  ],
  [
    'a part of a property competes with the whole',
    '.w .a { transform-origin: 0 0; transform: rotate(3deg) }',
    `<div class="w">${three('<p class="a" style="-webkit-transform-origin-x: 100%; color: red">x</p>')}</div>`,
  ],
  [
    'a layer rolled back lays an old attribute bare',
    'p.a { text-align: revert-layer }',
    `${three('<p class="a" align="center">x</p>')}${three('<p align="center">y</p>')}`,
  ],
  [
    'what a rule reads by attr() is shown',
    'span::after { content: attr(style) }',
    three('<span style="color: red; font-weight: bold">x</span>'),
  ],
  [
    'a selector that browsers drop takes its list along',
    '#1a { color: red; top: 0 } .b { color: red; top: 0 } .c { color: red; top: 0 }',
    '<p id="1a">x<p class="b">y<p class="c">z',
  ],
  [
    'a source gives a picture its size',
    '',
    three(
      '<picture><source srcset="x.png" width="200" height="100"><img alt="" src="y.png" width="100" height="50"></picture>',
    ),
  ],
];

test('adopting hostile sites changes nothing that Chromium shows', async (context) => {
  await withBrowser(context, async (tab) => {
    for (const [what, css, body] of AT_REST)
      await context.test(
        what,
        async () =>
          void (await adopted(tab, site(css, body, { 'acervus.json': '{ "pictureSizes": "move" }' }))),
      );
  });
});

/** What a person or a script does to a page, as its markup is then. */
const DONE: readonly (readonly [what: string, css: string, body: string, done: (html: string) => string])[] =
  [
    [
      'details that are opened',
      'details[open] summary { color: red }',
      three('<details><summary style="color: black; top: 0">x</summary></details>'),
      (html) => html.replaceAll('<details', '<details open'),
    ],
    [
      'a dialog that is shown',
      'dialog[open] { color: red }',
      three('<dialog style="color: blue; top: 0">x</dialog>'),
      (html) => html.replaceAll('<dialog', '<dialog open'),
    ],
    [
      'what a search finds',
      '.k:not([hidden]) { color: red }',
      three('<p class="k" hidden="until-found" style="color: blue">x</p>'),
      (html) => html.replaceAll(' hidden="until-found"', ''),
    ],
    [
      'a class that a script gives the body',
      'body.dark .card { color: white }',
      `${three('<p class="card" style="color: black">x</p>')}<script>go.onclick = () => document.body.classList.toggle("dark")</script>`,
      (html) => html.replace('<body', '<body class="dark"'),
    ],
    [
      'an attribute that a handler gives the root',
      '[data-theme=dark] p { color: white }',
      `${three('<p style="color: black">x</p>')}<button onclick="document.documentElement.dataset.theme = 'dark'">y</button>`,
      (html) => html.replace('<html', '<html data-theme="dark"'),
    ],
    [
      'a class that a script puts together',
      '.row.is-late { color: red } .is-late .b { top: 3px }',
      `${three('<p class="row" style="color: blue">x <b class="b" style="top: 0">y</b></p>')}<script>e.classList.add("is-" + state)</script>`,
      (html) => html.replaceAll('class="row', 'class="is-late row'),
    ],
    [
      'a sheet that a script switches off',
      '.k { color: blue }',
      `${three('<p class="k" style="color: red; top: 0">x</p>')}<button onclick="for (const one of document.styleSheets) one.disabled = true">y</button>`,
      (html) => html.replaceAll(/<link[^>]*>/g, ''),
    ],
    [
      'a link that a script takes out',
      '',
      `${three('<p class="k" style="color: red; top: 0">x</p>')}<script>document.querySelector("link").remove()</script>`,
      (html) => html.replaceAll(/<link[^>]*>/g, ''),
    ],
    [
      'a class that code in a string gives',
      'body.dark p { color: white }',
      `${three('<p style="color: black">x</p>')}<a href="javascript:void document.body.classList.toggle('dark')">y</a><script>setTimeout("document.body.classList.add('late')")</script>`,
      (html) => html.replace('<body', '<body class="dark"'),
    ],
    [
      'a class by a call that is not seen',
      '.k.on { color: green }',
      `${three('<p class="k" style="color: red; top: 0">x</p>')}<script>e.classList[now ? "add" : "remove"]("on")</script>`,
      (html) => html.replaceAll('class="k', 'class="on k'),
    ],
    [
      'a class that a binding gives',
      '.k.on { color: green }',
      three('<p class="k" :class="{ on: open }" style="color: red; top: 0">x</p>'),
      (html) => html.replaceAll('class="k', 'class="on k'),
    ],
    [
      'a sheet that a script adds',
      '',
      `${three('<p class="k" style="color: blue">x</p>')}<script>const s = document.createElement("style"); s.textContent = ".k.k { color: red }"</script>`,
      (html) => html.replace('</head>', '<style>.k.k { color: red }</style></head>'),
    ],
    [
      'a class that a script takes away',
      '.on { color: red }',
      `${three('<p class="on" style="color: red; top: 0">x</p>')}<script>e.classList.remove("on")</script>`,
      (html) => html.replaceAll(/class="on ?/g, 'class="'),
    ],
  ];

test('what a person or a script does to a page looks as it did', async (context) => {
  await withBrowser(context, async (tab) => {
    for (const [what, css, body, done] of DONE) {
      const folder = site(css, body);
      const before = makeSite({ 'theme/a.css': css, 'index.html': done(read(folder, 'index.html')) });
      const after = await adopted(tab, folder);
      addFiles(folder, { 'index.html': done(after) });
      const [a, b] = [before, folder].map((one) => path.join(one, 'index.html'));
      assert.deepEqual(await lookDifferent(tab, a!, b!, undefined, undefined, ONE_VIEW), [], what);
    }
  });
});

const STAYS: readonly (readonly [what: string, css: string, body: string, left: RegExp])[] = [
  [
    'a style that a script takes up',
    '',
    `${three('<p class="q" style="color: red; top: 0">x</p>')}<script>document.querySelectorAll(".q").forEach((one) => { const s = one.style; s.color = "" })</script>`,
    /style="color: red/,
  ],
  [
    'elements of a name that a script clears',
    '',
    `${three('<div style="color: red; top: 0">x</div>')}<script>for (const one of document.querySelectorAll("div")) one.style.cssText = "margin: 0"</script>`,
    /style="color: red/,
  ],
  [
    'elements that a script finds by their style',
    '',
    `${three('<p style="color: red; top: 0">x</p>')}<script>for (const one of document.querySelectorAll("[style]")) one.hidden = true</script>`,
    /style="color: red/,
  ],
  [
    'a class that a script writes by a built id',
    '.open { color: green }',
    `${[0, 1, 2].map((n) => `<p id="t${n}" style="color: red; top: 0">x</p>`).join('')}<script>for (let i = 0; i < 3; i++) document.getElementById("t" + i).className = "open"</script>`,
    /style="color: red/,
  ],
];

test('what a script may change stays where it is', async () => {
  for (const [what, css, body, left] of STAYS) {
    const folder = site(css, body);
    await acervus('draft', folder);
    assert.equal((await acervus('adopt', folder)).code, 0, what);
    assert.match(read(folder, 'index.html'), left, what);
  }
});

test('elements that a script makes get no rule of those that are there', async () => {
  const item = '<li style="color: red; font-weight: bold">x</li>';
  const script = '<script>function more() { document.body.append(document.createElement("li")) }</script>';
  const folder = site('', `<ul>${three(item)}</ul>${script}`);
  await acervus('draft', folder);
  await acervus('adopt', folder);
  assert.match(read(folder, 'index.html'), /<li class="[a-z-]+">/);
});

test('rows that a script puts in another order are not told apart by their place', async () => {
  const rows = (script: string): string =>
    `<table><tbody>${[0, 1, 2, 3, 4, 5, 6, 7]
      .map((n) => `<tr${n % 2 === 0 ? ' style="background: #eef"' : ''}><td>${n}</td></tr>`)
      .join('\n')}</tbody></table><script>${script}</script>`;
  for (const [script, home] of [
    ['go()', /nth-child/],
    ['body.append(body.firstElementChild)', /^\./m],
  ] as const) {
    const folder = site('', rows(script));
    await acervus('draft', folder);
    await acervus('adopt', folder);
    assert.match(read(folder, 'theme/a.css'), home);
  }
});

const DIFFERENT: readonly (readonly [what: string, before: string, after: string, body: string])[] = [
  [
    'a container by its case',
    '.w { container: Card / inline-size } @container Card (min-width: 1px) { p { color: red } }',
    '.w { container: Card / inline-size } @container card (min-width: 1px) { p { color: red } }',
    '<div class="w"><p>x</div>',
  ],
  [
    'layers around a definition',
    '@layer a, b; @layer a { @property --k { syntax: "<color>"; inherits: true; initial-value: red } } p { color: var(--k) }',
    '@layer a, b; @layer b { @property --k { syntax: "<color>"; inherits: true; initial-value: red } } p { color: var(--k) }',
    '<p>x',
  ],
  [
    'two tokens and one',
    ':root { --n: 10 } p { width: 10px }',
    ':root { --n: 10 } p { width: var(--n)px }',
    '<p>x',
  ],
  [
    'a variable in a string',
    ':root { --n: red } p { content: "red" }',
    ':root { --n: red } p { content: "var(--n)" }',
    '<p>x',
  ],
  ['space in a string', 'p::after { content: "a  b" }', 'p::after { content: "a b" }', '<p>x'],
];

test('what is different is told', async () => {
  for (const [what, before, after, body] of DIFFERENT) {
    const run = await acervus('prove', site(after, body), '--against', site(before, body));
    assert.equal(run.code, 1, what);
  }
});

test('a shared sheet that other documents load gets no rule that could match in them', async () => {
  const link = '<link rel="stylesheet" href="shared.css">';
  const twice = '<p style="color: red">a</p><p style="color: red">b</p>';
  const others: readonly Files[] = [
    { 'tide.php': `<?php head() ?>${link}<p>x</p>` },
    { 'index.html': htmlPage(`${twice}<iframe srcdoc='${link}<p>x</p>'></iframe>`, link) },
  ];
  for (const other of others) {
    const folder = makeSite({ 'index.html': htmlPage(twice, link), 'shared.css': '', ...other });
    await acervus('draft', folder);
    assert.equal((await acervus('adopt', folder)).code, 0);
    assert.match(read(folder, 'shared.css'), /^ *\.[\w-]+ \{/m, 'a class in place of p');
  }
});

test('a sheet that another document loads leans on no other sheet', async () => {
  const css =
    '.a { color: #c01010; top: 0 } .b { background: #c01010 } .c { outline: 1px solid #c01010; left: 0 }';
  const body = `<p class="a">x<p class="b">y<p class="c">z${three('<i style="color: #c01010; margin: 3px">i</i>')}`;
  const folder = site(css, body, {
    'old.xhtml':
      '<html xmlns="http://www.w3.org/1999/xhtml"><head><link rel="stylesheet" href="theme/a.css"/></head></html>',
    'theme/shared.css': '',
  });
  await acervus('draft', folder);
  await acervus('adopt', folder);
  assert.equal(read(folder, 'theme/a.css'), css);
});
