// A class under another name.

import { type IntendedCase, page, site } from './site.js';

const CARD = '.card{color:red;padding:4px}.card.on{color:lime}';

/** Renamed from card to tile: nothing may look different, or it must be refused. */
const rename = (
  name: string,
  body: string,
  becomes: 'as it was' | 'refused',
  more: { css?: string; files?: Record<string, string>; merge?: boolean } = {},
): IntendedCase => ({
  name: `rename: ${name}`,
  runs: [['rename', 'card', 'tile', ...(more.merge === true ? ['--merge'] : [])]],
  files: site(more.css ?? CARD, {
    'a.html': page(`<p class="card">card</p><p id="o">o</p>${body}`),
    ...more.files,
  }),
  becomes: becomes === 'refused' ? 'refused' : {},
});

/** A script that does something to the second paragraph. */
const script = (text: string): string => `<script>var o=document.getElementById("o");${text}</script>`;

export const RENAME: readonly IntendedCase[] = [
  rename('what a script surely means by it', script('o.classList.toggle("card")'), 'as it was'),
  rename('the root of a scope', '<div class="card"><i>x</i></div>', 'as it was', {
    css: `${CARD}@scope (.card){i{color:blue}}`,
  }),
  rename('an escape in a sheet', '', 'as it was', { css: `${CARD}.c\\61 rd{margin:9px}` }),
  rename('a module that a module imports', '<script type="module" src="m.js"></script>', 'as it was', {
    files: {
      'm.js': 'import { go } from "./n.js";\ngo();\n',
      'n.js': 'export const go = () => document.getElementById("o").classList.add("card");\n',
    },
  }),
  rename('names of other things', '', 'as it was', {
    css: `${CARD}@container card (min-width:1px){.card{margin:9px}}@keyframes card{from{top:0}}`,
  }),
  rename(
    'a style inside a template goes with its markup',
    '<template><style>.card{top:0}</style><p class="card">t</p></template>',
    'as it was',
  ),
  rename('content that shows the class', '', 'refused', { css: `${CARD}p::after{content:attr(class)}` }),
  rename('a selector that reads the attribute', '', 'refused', { css: `${CARD}[class="card"]{top:0}` }),
  rename('a name put together', script('var k="rd";o.className="car"+k.slice(1)'), 'refused'),
  rename('the key of an object', script('for(var k in {card:1})o.classList.add(k)'), 'refused'),
  rename(
    'an attribute that a script reads',
    `<i rel="card">i</i>${script('o.className=document.querySelector("i").getAttribute("rel")')}`,
    'refused',
  ),
  rename(
    'an id that a script reads',
    `<i id="card">i</i>${script('o.className=document.querySelector("i").id')}`,
    'refused',
  ),
  rename('data in the page', '<script type="application/json">{"kind":"card"}</script>', 'refused'),
  rename(
    'a frame that is written out',
    '<iframe srcdoc="<link rel=stylesheet href=css/site.css><p class=card>f</p>"></iframe>',
    'refused',
  ),
  rename('a fragment that is fetched', script('fetch("part/x.xml")'), 'refused', {
    files: { 'part/x.xml': '<p class="card">x</p>' },
  }),
  rename('a name that a script gives already', script('o.classList.add("tile")'), 'refused'),
  rename('two that differ in a state', '<p class="tile">t</p>', 'refused', {
    css: '.card,.tile{color:red}.card:hover{color:lime}.tile:hover{color:blue}',
    merge: true,
  }),
  rename(
    'two that a script counts',
    `<p class="tile">t</p>${script('document.querySelectorAll(".tile").length')}`,
    'refused',
    {
      css: '.card{color:red}.tile{color:red}',
      merge: true,
    },
  ),
];
