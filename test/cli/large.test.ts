// A large site is searched by excerpts of its pages: the same comes out as where every page is held.

import assert from 'node:assert/strict';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { Random, site as randomSite } from '../support/generate.js';
import { Seeds } from '../support/seeds.js';
import { acervusOn, htmlPage, makeSite, read, snapshot } from '../support/site.js';
import { smallSite } from '../support/small-site.js';

const LARGE = { ACERVUS_LARGE_FROM: '0' };

type Sites = Record<string, string>;

/** Drafts and adopts both ways. Out: the documents of both drafts, with excerpts last. */
async function bothWays(files: Sites) {
  const [whole, excerpts] = [makeSite(files), makeSite(files)] as const;
  const documents = [];
  for (const [folder, environment] of [
    [whole, {}],
    [excerpts, LARGE],
  ] as const) {
    const run = (...args: string[]) => acervusOn({ environment }, args);
    const drafted = await run('draft', folder, '--json');
    assert.equal(drafted.code, 0, drafted.stderr);
    documents.push(JSON.parse(drafted.stdout));
    const adopted = await run('adopt', folder, '--json');
    assert.equal(adopted.code, 0, adopted.stderr);
  }
  const files1 = filesOf(whole);
  assert.deepEqual(filesOf(excerpts), files1);
  return documents;
}

function filesOf(folder: string): Sites {
  return Object.fromEntries([...snapshot(folder)].filter(([name]) => /\.(html|css|tpl)$/.test(name)));
}

/** So many pages alike, with a table each; what `rowOf` gives for a page and a row is its attributes. */
function pagesOfRows(count: number, rowOf: (page: number, row: number) => string): Sites {
  const files: Sites = { 'theme.css': 'body { margin: 0 }\n' };
  for (let page = 0; page < count; page++) {
    const rows = Array.from({ length: 9 }, (_, row) => `<tr${rowOf(page, row)}><td>${page}:${row}</td></tr>`);
    files[`pier-${String(page).padStart(2, '0')}.html`] = htmlPage(
      `<h1>Pier ${page}</h1>\n<table class="tides">\n${rows.join('\n')}\n</table>`,
      '<link rel="stylesheet" href="theme.css">',
    );
  }
  return files;
}

test('hundreds of tags that are written alike change alike, on every page', async () => {
  const files = pagesOfRows(40, (_, row) => (row % 2 === 1 ? ' style="background: #eef4f7"' : ''));
  const [whole, excerpts] = await bothWays(files);
  assert.deepEqual(excerpts, whole);
  assert.equal(whole.styles[0].elements, 160);
  assert.equal(whole.styles[0].pages, 40);
});

test('a page of which nothing is kept links the sheet that its tags now need, where others of its head do', async () => {
  const page = (at: number, head: string, body: string): string =>
    `<!DOCTYPE html>\n<html><head>\n  <title>Pier ${at}</title>\n  ${head}\n</head>\n<body class="pier">\n${body}\n</body></html>\n`;
  const link = '<link rel="stylesheet" href="platform.min.css">';
  const tag = '<p style="color: #246; margin: 3px">';
  const files = Object.fromEntries(
    Array.from({ length: 24 }, (_, at): [string, string] => {
      const body = at % 3 === 0 ? `<p>None ${at}</p>` : `${tag}One ${at}</p>\n${tag}Two</p>`;
      const head = at % 2 === 0 ? link : `<!-- <body> -->\n  <meta name="pier" content="${at}">\n  ${link}`;
      return [`pier-${String(at).padStart(2, '0')}.html`, page(at, head, body)];
    }),
  );
  const [whole, excerpts] = await bothWays({ ...files, 'platform.min.css': 'p{margin:0}' });
  assert.deepEqual(excerpts, whole);
  assert.equal(whole.styles[0].pages, 16);
  // A part may stand on any page, and asks all of them for its sheet.
  const part = '<b style="top: 1px; left: 2px">a</b><b style="top: 1px; left: 2px">b</b>';
  const [plain, shorter] = await bothWays({
    ...files,
    'parts/crew.tpl': part,
    'platform.min.css': 'p{margin:0}',
  });
  assert.deepEqual(shorter, plain);
});

test('a page that an excerpt did not hold enough of is read whole, and the answer is the same', async () => {
  // The first pages have the table without the turn of colours: no position may take them.
  const files = pagesOfRows(12, (page, row) =>
    page > 5 && row % 2 === 1 ? ' style="background: #eef4f7"' : '',
  );
  const [whole, excerpts] = await bothWays(files);
  assert.deepEqual(excerpts.upkeep, whole.upkeep);
});

test('tags that are written alike stay where a script of their page, or what it is for, keeps them', async () => {
  const files = pagesOfRows(14, () => ' style="color: #246"');
  for (const [name, text] of Object.entries(files).slice(7))
    files[name] = text.replace(
      '</h1>',
      "</h1><script>document.querySelector('tr').style.color = ''</script>",
    );
  const [whole, excerpts] = await bothWays(files);
  assert.deepEqual(excerpts, whole);
  assert.ok(whole.kept.length > 0);
});

test('tags that lose a class and a style at once lose each once', async () => {
  const files = pagesOfRows(14, (_, row) => `${row % 2 === 0 ? ' class="odd"' : ''} style="color: #246"`);
  for (const [name, text] of Object.entries(files))
    files[name] = text.replace('</head>', '<link rel="stylesheet" href="site.css"></head>');
  files['site.css'] = '.odd { background: #eee }\n.even { background: #fff }\n';
  const [whole, excerpts] = await bothWays(files);
  assert.deepEqual(excerpts, whole);
});

test('a style block that is pasted into pages of which nothing is kept goes from all of them', async () => {
  const block = '  <style>\n    .fare { color: navy }\n    .crew { top: 1px }\n  </style>\n';
  const files: Sites = { 'theme.css': 'body { margin: 0 }\n', 'theme/wide.css': '.crew { left: 2px }\n' };
  for (let at = 0; at < 12; at++) {
    const wide = at % 4 === 0 ? '<link rel="stylesheet" href="theme/wide.css">\n' : '';
    files[`pier-${String(at).padStart(2, '0')}.html`] = htmlPage(
      `<p class="fare" id="fare-${at}" style="margin: 3px">${at}</p><b class="crew">x</b>`,
      `<link rel="stylesheet" href="theme.css">\n${wide}<meta name="pier" content="${at}">\n${block}`,
    );
  }
  const [whole, excerpts] = await bothWays(files);
  assert.deepEqual(excerpts, whole);
  assert.deepEqual(whole.upkeep, { now: 38, after: 5 });
});

test('an exception to a style is made on the page that it names', async () => {
  const site = makeSite(pagesOfRows(12, () => ' style="color: #246"'));
  const run = (...args: string[]) => acervusOn({ environment: LARGE }, args);
  assert.equal((await run('draft', site)).code, 0);
  const draft = path.join(site, 'acervus-draft.yaml');
  const text = readFileSync(draft, 'utf8');
  const lines = readFileSync(path.join(site, 'pier-09.html'), 'utf8').split('\n');
  const line = 1 + lines.findIndex((one) => one.startsWith('<tr'));
  writeFileSync(
    draft,
    text.replace(/^(\s+)take: yes$/m, `$1take: yes\n$1except: ["pier-09.html:${line}:1"]`),
  );
  const adopted = await run('adopt', site, '--json');
  assert.equal(adopted.code, 0, adopted.stderr);
  assert.equal(read(site, 'pier-09.html').match(/style=/g)?.length, 1);
  assert.equal(read(site, 'pier-08.html').match(/style=/g), null);
});

test('random sites come out the same, style by style', async () => {
  for (const seed of new Seeds('cli/large', 2)) {
    const [whole, excerpts] = await bothWays(smallSite(new Random(seed)).files as Sites);
    assert.deepEqual(excerpts.styles, whole.styles);
    const [other, shorter] = await bothWays(randomSite(seed));
    assert.deepEqual(shorter.styles, other.styles);
  }
});
