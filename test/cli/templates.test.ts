// Themes as they are written: what engines read is left alone, and what they make of it looks as before.

import assert from 'node:assert/strict';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import ejs from 'ejs';
import { adopt, draft, survey } from '../../src/index.js';
import { acervus, acervusOn, htmlPage, makeSite, PROJECT, read, snapshot } from '../support/site.js';

const SHEET = '.fare { font-weight: bold }\n#main p { margin: 0 }\n';
const NOTE = 'style="padding: 4px; color: #004466"';
const PARTS = `<p class="fare" ${NOTE}>a</p>\n<p ${NOTE}>b</p>\n<p ${NOTE}>c</p>\n`;

/** What a person sees in a site's folder: no draft, no records. */
function readSite(site: string): Record<string, string> {
  return Object.fromEntries(
    [...snapshot(site)]
      .filter(([file]) => !/^\.acervus|^acervus/.test(file))
      .map(([file, bytes]) => [file, Buffer.from(bytes, 'base64').toString('utf8')]),
  );
}

/** A layout and two parts of each engine, with the way in which it links a sheet. */
const ENGINES: Record<string, Record<string, string>> = {
  erb: {
    'app/views/layouts/site.html.erb': `<!DOCTYPE html>\n<html><head>\n<%= stylesheet_link_tag 'house', :media => 'all' %>\n</head><body class="<%= x ? 'late' : 'early' %>"><%= yield %></body></html>`,
    'app/views/fares/_fare.html.erb': `<% fares.each do |fare| %>\n${PARTS}<% end %>`,
    'app/views/crew/index.html.erb': `<div <%= 'hidden' if none %>>\n${PARTS}<%= render 'fare' %></div>`,
    'public/stylesheets/house.css': SHEET,
  },
  django: {
    'templates/base.html': `{% load static %}<!doctype html>\n<html><head><link rel="stylesheet" href="{% static 'css/house.css' %}"></head><body>{% block main %}{% endblock %}</body></html>`,
    'templates/fares.html': `{% extends "base.html" %}{% block main %}{% for fare in fares %}${PARTS}{% endfor %}{% endblock %}`,
    'templates/bare.html': PARTS,
    'static/css/house.css': SHEET,
  },
  php: {
    'header.php': `<!DOCTYPE html>\n<html><head><link rel="stylesheet" href="<?php echo theme_address(); ?>/css/house.css"></head><body <?php body_class(); ?>>`,
    'fares.php': `<?php get_header(); ?>\n<?php foreach ($fares as $fare): ?>${PARTS}<?php endforeach; ?>`,
    'functions.php': '<?php function fare() { return 1; }',
    'css/house.css': SHEET,
  },
  ejs: {
    'views/layout.ejs': `<!doctype html>\n<html><head><%- css('house.css') %></head><body><%- body %></body></html>`,
    'views/fares.ejs': `<% fares.forEach(function (fare) { %>${PARTS}<% }) %>`,
    'public/house.css': SHEET,
  },
  liquid: {
    'layout/theme.liquid': `<!doctype html>\n<html><head>{{ 'house.css' | asset_url | stylesheet_tag }}</head><body>{{ content }}</body></html>`,
    'snippets/fare.liquid': `{% if fare %}${PARTS}{% endif %}`,
    'assets/house.css': SHEET,
  },
  handlebars: {
    'views/main.hbs': `<!doctype html>\n<html><head><link rel="stylesheet" href="/css/house.css"></head><body>{{{body}}}</body></html>`,
    'views/fares.hbs': `{{#each fares}}${PARTS}{{else}}<p>none</p>{{/each}}`,
    'public/css/house.css': SHEET,
  },
};

test('what repeats in the tags of templates moves into the sheet that their layout links', async () => {
  for (const [engine, files] of Object.entries(ENGINES)) {
    const site = makeSite(files);
    await draft(site);
    const { proof } = await adopt(site);
    const after = readSite(site);
    const [sheet] = Object.keys(files).filter((file) => file.endsWith('.css'));
    assert.match(after[sheet!]!, /padding: 4px/, engine);
    assert.doesNotMatch(Object.values(after).join('\n'), /style="padding/, engine);
    assert.equal(Object.keys(after).length, Object.keys(files).length, `${engine}: no file is new`);
    assert.ok(proof.components > 0, engine);
    for (const [file, text] of Object.entries(files)) {
      const engineText = /<%[\s\S]*?%>|<\?[\s\S]*?(?:\?>|$)|\{\{[\s\S]*?\}\}|\{%[\s\S]*?%\}/g;
      assert.deepEqual(after[file]!.match(engineText), text.match(engineText), `${engine} ${file}`);
    }
  }
});

test('a page whose addresses an engine writes links a new sheet as it links the others', async () => {
  const site = makeSite({
    ...ENGINES.django,
    'static/css/house.css': `/*! library */${'a{b:c}'.repeat(500)}`,
  });
  await draft(site);
  await adopt(site);
  const { 'templates/base.html': base = '', ...files } = readSite(site);
  assert.match(base, /house.css' %}">\s*<link rel="stylesheet" href="{% static 'css\/shared.css' %}">/);
  assert.match(files['static/css/shared.css']!, /padding: 4px/);
  assert.equal((await survey(site)).inline.written, 0);
});

test('where calls link the sheets, a person says how a new one is linked', async () => {
  const site = makeSite({
    ...ENGINES.erb,
    'public/stylesheets/house.css': `/*! library */${'a{b:c}'.repeat(500)}`,
    'acervus.json': JSON.stringify({
      shared: 'public/stylesheets/fares.css',
      link: "<%= stylesheet_link_tag '{name}' %>",
    }),
  });
  await draft(site);
  await adopt(site);
  const { 'app/views/layouts/site.html.erb': layout = '', ...files } = readSite(site);
  assert.match(layout, /:media => 'all' %>\s*<%= stylesheet_link_tag 'fares' %>\s*<\/head>/);
  assert.match(files['public/stylesheets/fares.css']!, /padding: 4px/);
});

test('where nothing tells the sheets of templates, a survey says what could, and with that they move', async () => {
  const site = makeSite({
    'theme/fares.hbs': `{{#each a}}${PARTS}{{/each}}`,
    'theme/scss/fares.scss': '$a: 1;',
    'x.pug': 'p',
  });
  const taken = await survey(site);
  assert.deepEqual(taken.suggested, { sheets: { 'theme/**': ['theme/scss/house.css'] } });
  assert.deepEqual(taken.unreadEndings, { '.pug': 1 });
  const shown = await acervus('survey', site);
  assert.match(shown.stdout, /\{"sheets":\{"theme\/\*\*":\["theme\/scss\/house.css"\]\}\}/);
  writeFileSync(path.join(site, 'acervus.json'), JSON.stringify(taken.suggested));
  await draft(site);
  const adopted = await adopt(site);
  assert.match(adopted.proof.assumptions.join('\n'), /"sheets" in acervus.json/);
  assert.match(readFileSync(path.join(site, 'theme/scss/house.css'), 'utf8'), /padding: 4px/);
});

test('what no file shows is not reached by a name that stands for everything', async () => {
  const site = makeSite({
    'base.twig':
      '<!doctype html><html><head><link rel="stylesheet" href="t.css"></head><body>{{ content }}</body></html>',
    'crew.twig': `<div class="crew">${'<p style="top: 0">a</p>'.repeat(5)}</div>`,
    't.css': 'p { margin: 0 }\n',
  });
  await draft(site);
  await adopt(site);
  const { 't.css': sheet = '' } = readSite(site);
  assert.match(sheet, /^\.[\w-]+ \{\s*top: 0;/m, 'content out of a database may hold a paragraph too');
});

test('a class that a branch or an expression gives is not taken for one that is there', async () => {
  const site = makeSite({
    'a.html':
      '<!doctype html><html><head><link rel="stylesheet" href="t.css"></head><body>{{ main }}</body></html>',
    'b.hbs': `<i class="{{#if late}}late{{/if}}" style="top: 0">a</i><i class="late" style="top: 0">b</i><i style="top: 0">c</i>`,
    't.css': '.late { color: red }\n',
  });
  await draft(site);
  await adopt(site);
  const { 'b.hbs': text = '', 't.css': sheet = '' } = readSite(site);
  assert.doesNotMatch(text, /style=/);
  assert.doesNotMatch(sheet, /\.late \{[^}]*top/);
});

test('what is written in EJS is carried out as before', async () => {
  const site = makeSite(ENGINES.ejs!);
  const data = { fares: [1, 2] };
  const file = path.join(site, 'views/fares.ejs');
  const made = (): string => ejs.render(readFileSync(file, 'utf8'), data);
  const before = made();
  await draft(site);
  await adopt(site);
  assert.equal(made().replace(/ class="[^"]*"/g, ''), before.replace(/ (class|style)="[^"]*"/g, ''));
});

test('the demo of a theme walks the whole way and leaves it as it was', async () => {
  const folder = path.join(makeSite({}), 'theme');
  const { code, stdout } = await acervus('demo', folder, '--templates');
  assert.equal(code, 0, stdout);
  assert.match(stdout, /6 {2}acervus undo/);
  assert.match(stdout, /0 {3}differences/);
  const demo = snapshot(path.join(PROJECT, 'demo', 'templates'));
  for (const [file, bytes] of demo) assert.equal(snapshot(folder).get(file), bytes, file);
});

test('a sheet that a layout links only in a branch is no home for what is always there', async () => {
  const site = makeSite({
    'base.twig': `<!doctype html><html><head>{% if winter %}<link rel="stylesheet" href="w.css">{% endif %}<link rel="stylesheet" href="t.css"></head><body>{{ x }}</body></html>`,
    'fares.twig': PARTS,
    'w.css': 'i { left: 0 }\n',
    't.css': 'b { left: 0 }\n',
  });
  await draft(site);
  await adopt(site);
  const { 't.css': sheet = '', 'w.css': winter = '' } = readSite(site);
  assert.match(sheet, /padding: 4px/);
  assert.equal(winter, 'i { left: 0 }\n');
});

test('what an engine writes into a style by its own marks stays in the tag', async () => {
  const styles: Record<string, string> = {
    'views/a.cshtml': 'style="width: @Model.Width%"',
    'views/b.blade.php': 'style="color: @color($x)"',
    'views/c.tpl': 'style="height: {$height}px"',
  };
  const site = makeSite({
    'css/t.css': 'b { left: 0 }\n',
    ...Object.fromEntries(
      Object.entries(styles).map(([file, style]) => [file, `<p ${style}>a</p>\n`.repeat(4)]),
    ),
  });
  await draft(site);
  await adopt(site).catch(() => undefined);
  const after = readSite(site);
  for (const [file, style] of Object.entries(styles)) assert.equal(after[file]!.split(style).length, 5, file);
  assert.equal(after['css/t.css'], 'b { left: 0 }\n');
});

test('what somebody names under "sheets" is an area of its own, and no other page gets its sheet', async () => {
  const page = `<!doctype html><html><head><link rel="stylesheet" href="help.css"></head><body>${PARTS}</body></html>`;
  const site = makeSite({
    'help/index.html': page,
    'help/help.css': 'i { left: 0 }\n',
    'views/fares.twig': PARTS,
    'acervus.json': JSON.stringify({ sheets: { 'views/**': ['css/house.css'] } }),
  });
  await draft(site);
  await adopt(site);
  const {
    'help/help.css': help = '',
    'css/house.css': house = '',
    'help/index.html': index = '',
  } = readSite(site);
  assert.match(help, /padding: 4px/);
  assert.match(house, /padding: 4px/);
  assert.doesNotMatch(index, /house/);
});

test('findings that hold of finished pages only are not told of templates', async () => {
  const layout = `<!doctype html><html><head><link rel="stylesheet" href="{{ root }}/t.css"><style>{{ rules }}</style></head><body>{% if x %}<p id="a" class="b">c</p>{% else %}<p id="a" class="b">d</p>{% endif %}{{ content }}</body></html>`;
  const sheet = 'h5 { top: 0 }\n.never { top: 0 }\n';
  const kinds = async (files: Record<string, string>) =>
    (await survey(makeSite(files))).broken.map(({ kind }) => kind);
  assert.deepEqual(await kinds({ 'l.twig': layout, 't.css': sheet }), []);
  const finished = layout.replace(/\{[{%].*?[%}]\}/g, '').replace('/t.css', 't.css');
  assert.deepEqual(
    new Set(await kinds({ 'l.html': finished, 't.css': sheet })),
    new Set(['class without a rule', 'id used twice', 'rule without a use']),
  );
});

test('scripts that a layout brings in count for its parts', async () => {
  const files = {
    'base.twig': `<!doctype html><html><head><link rel="stylesheet" href="t.css">{{ 'fold.js' | asset_url | script_tag }}</head><body>{{ x }}</body></html>`,
    'fares.twig': '<p class="fold" style="display: none">a</p>\n'.repeat(4),
    't.css': 'b { left: 0 }\n',
    'js/fold.js': 'document.querySelector(".fold").style.display = "";\n',
  };
  const site = makeSite(files);
  const { kept } = await draft(site);
  assert.ok(
    kept.some(({ reason }) => /fold\.js|script/.test(reason)),
    JSON.stringify(kept),
  );
});

test('a large theme is drafted as a small one', async () => {
  const files = { ...ENGINES.django, 'templates/plain.html': `{% extends "base.html" %}${PARTS}` };
  const [small, large] = [makeSite(files), makeSite(files)];
  const { stdout: one } = await acervus('draft', small, '--json');
  const { stdout: other } = await acervusOn({ environment: { ACERVUS_LARGE_FROM: '0' } }, [
    'draft',
    large,
    '--json',
  ]);
  assert.deepEqual(JSON.parse(other).styles, JSON.parse(one).styles);
});

test('style attributes that code writes are told, with their place, and are left alone', async () => {
  const site = makeSite({
    'base.php': `<!doctype html><html><head></head><body><?php echo '<p style="color: red">a</p>'; ?><b style="top: 0">b</b></body></html>`,
    'helpers/fares.rb': `def fare\n  "<td class='a' style=\\"margin: 0\\">#{x}</td>"\nend\n`,
    'js/quay.js': "const a = '<i style=\"left: 1px\">x</i>'; const b = '<i style=\"' + c + '\">';\n",
    'js/notice.js': "const css = '<style>.notice { color: teal;' +\n  ' margin: 0 }' + '</style>';\n",
    'helpers/head.py': 'HEAD = "<style>\\n.crew { top: 0 }\\n</style>"\n',
    'js/quay.min.js': 'const a = "<i style=\'left: 1px\'>";\n',
  });
  const { inCode, inline } = await survey(site);
  assert.equal(inline.written, 1);
  assert.equal(inCode.times, 3);
  assert.deepEqual(
    inCode.examples.map(({ path: file, line }) => `${file}:${line}`),
    ['base.php:1', 'helpers/fares.rb:2', 'js/quay.js:1'],
  );
  assert.deepEqual(
    [inCode.blocks.times, inCode.blocks.declarations, inCode.blocks.examples.map(({ path: file }) => file)],
    [2, 3, ['helpers/head.py', 'js/notice.js']],
  );
  const { stdout } = await acervus('survey', site);
  assert.match(stdout, /3 {3}style attributes in strings of code: not counted/);
  assert.match(stdout, /3 {3}declarations in 2 style blocks in strings of code: not counted/);
});

test('templates of which none shows how it links a sheet are told so, with what would name one', async () => {
  const layout = '<!doctype html><html><head><%- css(theme.sheets) %></head><body><%- body %></body></html>';
  const files = { 'layout/layout.ejs': layout, 'layout/fares.ejs': PARTS, 'source/css/a.styl': 'a\n  top 0' };
  const site = makeSite(files);
  const { code, stderr } = await acervus('draft', site);
  assert.equal(code, 2);
  assert.match(
    stderr,
    /^acervus: acervus\.json: no template shows how it links a sheet[^\n]*\{"sheets":\{"layout\/\*\*":\["source\/css\/house\.css"\]\}\}[^\n]*\n$/,
  );
  const named = makeSite({ ...files, 'acervus.json': '{"sheets":{"layout/**":["source/css/house.css"]}}' });
  assert.equal((await acervus('draft', named)).code, 0);
  await adopt(named);
  const { 'layout/layout.ejs': after, 'source/css/house.css': house = '' } = readSite(named);
  assert.equal(after, layout);
  assert.match(house, /padding: 4px/);
  // A page of PHP lies where it is asked for.
  const php = makeSite({
    'index.php': `<!doctype html><html><head><title><?= $a ?></title></head><body>${PARTS}</body></html>`,
  });
  await draft(php);
  await adopt(php);
  assert.match(readSite(php)['index.php']!, /<link rel="stylesheet" href="shared\.css">/);
});

test('a sheet that is only a part of others is no fault of the site', async () => {
  const site = makeSite({
    'theme/a.twig': '<p style="margin: 4px">a</p>',
    'theme/b.twig': '<p style="margin: 4px">b</p>',
    'theme/all.scss': "$ink: #004466;\n@import 'card';\n",
    'theme/card.scss': '.card { color: $ink; }\n',
  });
  const { stdout, stderr } = await acervus('survey', site);
  assert.match(stdout, /house\.css/);
  assert.equal(stderr, '');
});

test('a sheet is suggested where one page has a sheet and the templates around it none, and not one named by a sum', async () => {
  const rules = [
    'crew-list',
    'pier-map',
    'fare-table',
    'tide-note',
    'mast-line',
    'quay-side',
    'deck-plan',
    'bell-time',
  ];
  const css = rules.map((name) => `.${name} { top: 0 }\n`).join('');
  const page = (head: string): string =>
    `<html><head>${head}</head><body><?php main(); ?><p>x</p></body></html>\n`;
  const files = {
    'install.php': page('<link rel="stylesheet" href="install.css">'),
    'install.css': '.step { left: 0 }\n',
    ...Object.fromEntries(['a', 'b', 'c'].map((name) => [`${name}.php`, page('')])),
    'list.php': `<?php rows(); ?><p class="${rules.join(' ')}">x</p>\n`,
    'theme/main.css': css,
    'theme/main.0123abcd.css': `${css}.late-boat { top: 0 }\n`,
  };
  const suggested = async (more: Record<string, string>): Promise<unknown> =>
    JSON.parse((await acervus('survey', makeSite({ ...files, ...more }), '--json')).stdout).suggested;
  assert.deepEqual(await suggested({}), { sheets: { '**': ['theme/main.css', 'theme/house.css'] } });
  const told = await acervus('survey', makeSite(files));
  assert.match(told.stdout, /No sheet is known for most of the templates/);
  const linked = page('<link rel="stylesheet" href="theme/main.css">');
  assert.equal(await suggested({ 'a.php': linked, 'b.php': linked, 'c.php': linked }), undefined);
});

test('a layout with a base keeps nothing back that could not match on it', async () => {
  const row = (text: string): string => `{{#rows}}<li style="margin: 0; float: left">${text}</li>{{/rows}}\n`;
  const site = makeSite({
    'acervus.json': '{ "sheets": { "views/**": ["line.css"] } }',
    'line.css': 'body { margin: 0 }\n',
    'views/layout.hbs':
      '<!doctype html>\n<html>\n<head><base href="{{ root }}"></head>\n<body class="{{ kind }}">{{{ body }}}</body>\n</html>\n',
    'views/a.hbs': row('Tarbek'),
    'views/b.hbs': row('Ulvay'),
  });
  await acervus('draft', site);
  const { files } = JSON.parse((await acervus('adopt', site, '--json')).stdout);
  assert.deepEqual(files, ['line.css', 'views/a.hbs', 'views/b.hbs']);
});

for (const ending of ['j2', 'tpl', 'cshtml', 'astro', 'php', 'twig', 'pug', 'hbs'])
  test(`a rule for every p stays out of a sheet that a .${ending} loads, which nobody has read`, async () => {
    const page = htmlPage(
      '<p style="color: red">a</p><p style="color: red">b</p><p style="color: red">c</p>',
      '<link rel="stylesheet" href="a.css">',
    );
    const folder = makeSite({
      'acervus.json': JSON.stringify({ pages: ['*.html'], shared: 'a.css' }),
      'index.html': page,
      'fares.html': page,
      'a.css': '.x { top: 0 }\n',
      [`other.${ending}`]: '<link rel="stylesheet" href="a.css">\n<div><p>Tide</p></div>\n',
    });
    assert.equal((await acervus('draft', folder)).code, 0);
    const drafted = read(folder, 'acervus-draft.yaml');
    assert.match(drafted, /home: new class/);
    assert.doesNotMatch(drafted, /selector: p$/m);
  });
