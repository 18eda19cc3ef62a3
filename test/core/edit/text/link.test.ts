// How a page links a sheet that is to come: as it links the others, or not at all.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  applyEdits,
  copiesWith,
  linksIn,
  planBlock,
  planLink,
  sheetsBeside,
} from '../../../../src/core/edit/text/index.js';
import { parsePage } from '../../../../src/core/read/markup/index.js';

const KNOWN = new Map([
  ["{% static 'line/css/a.css' %}", 'static/line/css/a.css'],
  ['{{ root }}/css/a.css?v=1', 'public/css/a.css'],
  ['/css/a.css', 'public/css/a.css'],
  ['engine:a.css', 'public/css/a.css'],
]);
const copyOf = (address: string): string | undefined => KNOWN.get(address);

const pageWith = (head: string, body = '{{ main }}') =>
  parsePage('views/site.html', `<!doctype html><html><head>\n  ${head}\n</head><body>${body}</body></html>`);

function linked(head: string, target: string, line?: string, body?: string): string {
  const page = pageWith(head, body);
  const { edit } = planLink(page, target, copyOf, line);
  return edit === undefined
    ? 'no link'
    : /<head>\s*([\s\S]*?)\s*<\/head>/.exec(applyEdits(page.text, [edit]))![1]!;
}

test('the address of a new sheet is written as those of the others are', () => {
  const stat = `<link rel="stylesheet" href="{% static 'line/css/a.css' %}">`;
  assert.equal(
    linked(stat, 'static/line/shared.css'),
    `${stat}\n  <link rel="stylesheet" href="{% static 'line/shared.css' %}">`,
  );
  const root = `<link rel="stylesheet" href="{{ root }}/css/a.css?v=1" />`;
  assert.equal(
    linked(root, 'public/css/b.css'),
    `${root}\n  <link rel="stylesheet" href="{{ root }}/css/b.css?v=1" />`,
  );
  // Of this page an engine makes nothing but the addresses.
  assert.equal(
    linked(root, 'public/css/b.css', undefined, 'x'),
    `${root}\n  <link rel="stylesheet" href="{{ root }}/css/b.css?v=1" />`,
  );
  const served = '<link rel="stylesheet" href="/css/a.css">';
  assert.equal(linked(served, 'public/new.css'), `${served}\n  <link rel="stylesheet" href="/new.css">`);
});

test('where nothing shows how, no link is made up', () => {
  assert.equal(linked('<link rel="stylesheet" href="{{ other }}">', 'public/b.css'), 'no link');
  assert.equal(linked(`<%= stylesheet_link_tag 'a' %>`, 'public/css/b.css'), 'no link');
  const outside = `<link rel="stylesheet" href="{% static 'line/css/a.css' %}">`;
  assert.equal(linked(outside, 'elsewhere/b.css'), 'no link');
});

test('a page that no engine fills, and one that links beside itself, has a relative link', () => {
  assert.match(
    linked('<link rel="stylesheet" href="/css/a.css">', 'public/b.css', undefined, 'x'),
    /"\.\.\/public\/b\.css"/,
  );
  assert.match(linked('<link rel="stylesheet" href="../x.css">', 'public/b.css'), /"\.\.\/public\/b\.css"/);
  assert.match(linked('', 'public/b.css'), /"\.\.\/public\/b\.css"/);
});

test('what a person says goes before all that, on pages that an engine fills', () => {
  const line = "<%= stylesheet_link_tag '{name}', '{file}', '{path}' %>";
  assert.match(
    linked(`<%= stylesheet_link_tag 'a' %>`, 'public/css/b.css', line),
    /'a' %>\n {2}<%= stylesheet_link_tag 'b', 'b\.css', 'public\/css\/b\.css' %>$/,
  );
  assert.doesNotMatch(linked('', 'public/b.css', line, 'x'), /stylesheet_link_tag/);
});

test('a sheet that is linked already is not linked again', () => {
  for (const head of [`<link rel="stylesheet" href="/css/a.css">`, `<%= stylesheet_link_tag 'a' %>`]) {
    const plan = planLink(pageWith(head), 'public/css/a.css', copyOf);
    assert.deepEqual(plan, { edit: undefined, before: 0 }, head);
  }
  const atTimes = `{% if x %}<link rel="stylesheet" href="/css/a.css">{% endif %}`;
  assert.notEqual(planLink(pageWith(atTimes), 'public/css/a.css', copyOf).edit, undefined);
});

test('the address of the link leads to the sheet once it is there', () => {
  const page = pageWith(`<link rel="stylesheet" href="{% static 'line/css/a.css' %}">`);
  const copies = copiesWith(KNOWN, [page], 'static/line/b.css');
  assert.equal(copies.get("{% static 'line/b.css' %}"), 'static/line/b.css');
  assert.equal(copiesWith(KNOWN, [page], 'elsewhere/b.css'), KNOWN);
  const said = copiesWith(KNOWN, [page], 'public/b.css', "<%= stylesheet_link_tag '{name}' %>");
  assert.equal(said.get('engine:b.css'), 'public/b.css');
});

test('a sheet of its own has its place beside those that are linked', () => {
  const beside = (head: string): string[] => sheetsBeside([pageWith(head)], 'shared.css', copyOf);
  assert.deepEqual(beside(`<link rel="stylesheet" href="{% static 'line/css/a.css' %}">`), [
    'static/line/shared.css',
    'static/shared.css',
  ]);
  assert.deepEqual(beside('<link rel="stylesheet" href="{{ root }}/css/a.css?v=1">'), [
    'public/css/shared.css',
    'public/shared.css',
  ]);
  assert.deepEqual(beside('<link rel="stylesheet" href="{{ other }}">'), []);
});

test('a block stands where a link would, whatever is known of addresses', () => {
  const page = pageWith('<link rel="stylesheet" href="{{ other }}">');
  const declaration = { property: 'top', value: '0', important: false, range: { start: 0, end: 0 } };
  const rule = {
    selectors: ['p'],
    part: 'elements',
    declarations: [{ declaration, holder: page.path }],
  } as const;
  assert.match(
    applyEdits(page.text, planBlock(page, [rule])),
    /other }}">\n {2}<style>\n\s+p \{\n\s+top: 0;\n\s+\}\n {2}<\/style>\n<\/head>/,
  );
});

test('the links of a page stand in a part where that brings the last sheet that is surely there', () => {
  const sheet = (path: string | undefined) => ({
    ...pageWith('<link rel="stylesheet" href="/css/a.css">').sheets[0]!,
    ...(path === undefined ? {} : { broughtBy: { path, text: '' } }),
  });
  const page = (...sheets: object[]) =>
    ({ ...pageWith(''), sheets }) as unknown as Parameters<typeof linksIn>[0];
  const byPart = sheet('parts/head.html');
  const own = sheet(undefined);
  assert.equal(linksIn(page(own, byPart)), 'parts/head.html');
  assert.equal(linksIn(page(byPart, own)), undefined);
  // What only browsers without scripts load, what an engine links at times, and a block of styles are passed over.
  for (const passed of [
    { ...own, scriptingOff: true },
    { ...own, by: 'engine at times' },
    { kind: 'style', element: 0 },
  ])
    assert.equal(linksIn(page(byPart, passed)), 'parts/head.html');
  assert.equal(linksIn(page(own, { ...byPart, by: 'script' })), undefined);
});
