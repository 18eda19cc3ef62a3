// Parts where templates put them: layouts, blocks and includes followed by the names that are written in them.

import assert from 'node:assert/strict';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { adopt, draft, explain, reach, survey } from '../../src/index.js';
import { acervus, makeSite, read } from '../support/site.js';

const NOTE = 'style="color: teal; margin: 0 0 3px"';
const NOTES = `<p ${NOTE}>a</p>\n<p ${NOTE}>b</p>\n`;
const SHEET = '.card p { color: red }\n.deck p { line-height: 2 }\n';

/** A page whose head is a file of its own, and a part in it. */
const EJS = {
  'views/partials/head.ejs':
    '<head>\n<title><%= title %></title>\n<link rel="stylesheet" href="/css/site.css">\n</head>\n',
  'views/partials/fares.ejs': NOTES,
  'views/index.ejs': `<!doctype html>\n<html>\n<%- include('partials/head') %>\n<body>\n<div class="deck">\n<p ${NOTE}>c</p>\n<%- include('partials/fares') %>\n</div>\n</body></html>\n`,
  'public/css/site.css': SHEET,
};

test('a page has the sheets and scripts of its parts', async () => {
  const site = makeSite(EJS);
  const { sheets, suggested } = await survey(site);
  assert.deepEqual(
    [sheets.map(({ path, pages }) => [path, pages]), suggested],
    [[['public/css/site.css', 1]], undefined],
  );
  // In no part may stand what a rule for cards reaches.
  const { styles } = await draft(site);
  assert.deepEqual(
    styles.map(({ name, elements }) => [name, elements]),
    [['text-teal', 3]],
  );
  await adopt(site);
  assert.equal(read(site, 'views/partials/fares.ejs'), NOTES.replaceAll(NOTE, 'class="text-teal"'));
  assert.equal(read(site, 'views/partials/head.ejs'), EJS['views/partials/head.ejs']);
});

test('a script that a part brings has its say on the whole page', async () => {
  const site = makeSite({
    ...EJS,
    'views/index.ejs': EJS['views/index.ejs'].replace('</body>', "<%- include('partials/foot') %></body>"),
    'views/partials/foot.ejs': '<script src="/js/site.js"></script>\n<p>foot</p>\n',
    'public/js/site.js': "document.querySelectorAll('p').forEach((one) => { one.style.color = '' })",
  });
  const { kept } = await draft(site);
  assert.ok(
    kept.some(({ reason }) => /site\.js/.test(reason)),
    JSON.stringify(kept),
  );
});

test('where a part links the sheets, a new one is linked there', async () => {
  const site = makeSite({
    ...EJS,
    'views/partials/head.ejs': EJS['views/partials/head.ejs'].replace('/css/', '/vendor/kit/'),
    'public/vendor/kit/site.css': SHEET,
  });
  await draft(site);
  await adopt(site);
  assert.match(
    read(site, 'views/partials/head.ejs'),
    /kit\/site\.css">\n<link rel="stylesheet" href="\/shared\.css">\n<\/head>/,
  );
  assert.match(read(site, 'public/shared.css'), /color: teal/);
});

const LINKS = '<link rel="stylesheet" href="{{ root }}/vendor/kit.css">\n<script>var quay = 1;</script>\n';

test('a part of links alone, in a head that comes at times, takes one more', async () => {
  const site = makeSite({
    'views/links.twig': LINKS,
    'views/page.twig': `{% if whole %}<!doctype html>\n<html><head>\n<title>x</title>\n{% include 'links.twig' %}\n</head><body>{% endif %}\n<div class="deck">\n${NOTES}{{ x }}</div>\n{% if whole %}</body></html>{% endif %}`,
    'public/vendor/kit.css': 'ol > li img:first-child + * { display: inline-block }\n',
  });
  await draft(site);
  const { files } = await adopt(site);
  assert.deepEqual(files, ['public/shared.css', 'views/links.twig', 'views/page.twig']);
  assert.match(
    read(site, 'views/links.twig'),
    /vendor\/kit\.css">\n<link rel="stylesheet" href="\{\{ root \}\}\/shared\.css">/,
  );
});

test('no name is taken for a slip of another while a sheet that a part names is nowhere', async () => {
  const slipsIn = async (head: string): Promise<string[]> => {
    const { broken } = await survey(
      makeSite({
        'layout.ejs': `<!doctype html><html><%- include('head') %><body><p class="notise">x</p><%- body %></body></html>`,
        'head.ejs': `<head><link rel="stylesheet" href="/css/site.css">${head}</head>`,
        'public/css/site.css': '.notice { color: teal }\n',
      }),
    );
    return broken.map(({ message }) => message).filter((one) => /did you mean/.test(one));
  };
  assert.deepEqual(await slipsIn(''), ['.notise has no rule; did you mean .notice?']);
  assert.deepEqual(await slipsIn("<%- css('css/more.css') %>"), []);
});

/** By engine: a layout, and what fills it or stands in it; a rule that reaches what stands there, and one that does not. */
const LAYOUTS: Record<string, Record<string, string>> = {
  'blocks within blocks': {
    'base.njk':
      '<!doctype html><html><head><link rel="stylesheet" href="/site.css"></head><body><div class="deck">{% block main %}{% endblock %}</div></body></html>',
    'inner.njk':
      '{% extends "base.njk" %}{% block main %}<section>{% block deep %}{% endblock %}</section>{% endblock %}',
    'part.njk': `{% extends "inner.njk" %}{% block deep %}${NOTES}{% endblock %}`,
  },
  'views of a layout': {
    'app/views/layouts/application.html.erb':
      '<!doctype html><html><head><%= stylesheet_link_tag \'site\' %></head><body><main class="deck"><%= yield %></main></body></html>',
    'app/views/fares/part.html.erb': NOTES,
  },
  'a frame that one file opens and another closes': {
    'header.php':
      '<!doctype html><html><head><link rel="stylesheet" href="/site.css"></head><body><div class="deck"><main>',
    'footer.php': '</main></div></body></html>',
    'part.php': `<?php get_header(); ?>\n${NOTES}<?php get_footer(); ?>`,
  },
  'front matter': {
    '_layouts/base.liquid':
      '<!doctype html><html><head><link rel="stylesheet" href="/site.css"></head><body><div class="deck">{{ content }}</div></body></html>',
    'part.liquid': `---\nlayout: base\n---\n${NOTES}{{ x }}`,
  },
  directives: {
    'views/layouts/app.blade.php':
      '<!doctype html><html><head><link rel="stylesheet" href="/site.css"></head><body><div class="deck">@yield(\'main\')</div></body></html>',
    'views/part.blade.php': `@extends('layouts.app')\n@section('main')\n${NOTES}@endsection`,
  },
  'partials within partials': {
    'index.hbs':
      '<!doctype html><html><head><link rel="stylesheet" href="/site.css"></head><body>{{> middle}}</body></html>',
    'partials/middle.hbs': '<div class="deck">{{#each fares}}{{> part}}{{/each}}</div>',
    'partials/part.hbs': NOTES,
  },
};

test('layouts, blocks and partials of each engine are followed, and a part is read under what stands around it', async () => {
  for (const [name, files] of Object.entries(LAYOUTS)) {
    const site = makeSite({ ...files, 'site.css': SHEET });
    const part = Object.keys(files).find((file) => file.includes('part.'))!;
    const { standsIn, rules } = await explain(site, part, 'p');
    assert.equal(standsIn.length, 1, name);
    assert.match(standsIn[0]!.ancestors.join(' > '), /^html > body.* > (div|main)\.deck/, name);
    assert.deepEqual(
      rules.map(({ selector, when }) => [selector, when]),
      [['.deck p', '']],
      name,
    );
    const { elements } = await reach(site, '.deck p');
    assert.equal(elements, 2, name);
    const { upkeep } = await draft(site);
    assert.equal(upkeep.now - upkeep.after, 2, name);
  }
});

test('of a part that code names, that two places show, or that helpers wrap, no more is believed than is so', async () => {
  const page = (inner: string): string =>
    `<!doctype html><html><head><link rel="stylesheet" href="/site.css"></head><body>${inner}</body></html>`;
  const files = {
    'templates/base.html': page('<div class="deck">{% include "part.html" %}</div>'),
    'templates/part.html': `${NOTES}{{ x }}`,
    'site.css': SHEET,
  };
  const told = async (more: Record<string, string>): Promise<(readonly [string, string])[]> => {
    const { rules } = await explain(makeSite({ ...files, ...more }), 'templates/part.html', 'p');
    return rules.map(({ selector, when }) => [selector, when] as const);
  };
  assert.deepEqual(await told({}), [['.deck p', '']]);
  const anywhere = [
    ['.card p', 'an ancestor outside the fragment is .card'],
    ['.deck p', 'an ancestor outside the fragment is .deck'],
  ];
  assert.deepEqual(await told({ 'views.py': "return render(request, 'part.html', {})" }), anywhere);
  assert.deepEqual(
    await told({ 'templates/base.html': page('{% macro x() %}{% include "part.html" %}{% endmacro %}') }),
    anywhere,
  );
  assert.deepEqual(
    await told({ 'templates/part.html': `{% call box() %}${NOTES}{% endcall %}` }),
    anywhere.map(([selector, when]) => [
      selector,
      `a branch leaves it in ${selector!.slice(0, 5)} or ${when}`,
    ]),
  );
  // It shows itself, in an element of its own; or something does whose name is computed.
  for (const more of [
    { 'templates/part.html': `${NOTES}<div class="card">{% include "part.html" %}</div>` },
    { 'templates/more.html': page('<div class="card">{% include name %}</div>') },
  ] as Record<string, string>[]) {
    const [first] = await told(more);
    assert.equal(first?.[0], '.card p');
    assert.match(first[1], /outside the fragment is \.card, of \d places in 2/);
  }
  assert.deepEqual(await told({ 'templates/other.html': page('{% include "part.html" %}') }), [
    ['.deck p', 'an ancestor outside the fragment is .deck, of 2 places in 1'],
  ]);
});

test('explain says where a part stands', async () => {
  const { stdout } = await acervus('explain', 'views/partials/fares.ejs', 'p', makeSite(EJS));
  assert.match(stdout, /in html > body > div\.deck +views\/index\.ejs/);
});

test('a style block that a branch may leave out says nothing for certain', async () => {
  const page = (block: string, body: string): string =>
    `<!doctype html>\n<html><head><title>t</title>\n<link rel="stylesheet" href="a.css">\n${block}\n</head><body>\n${body}{{ body }}</body></html>\n`;
  const block = '<style>.a { color: teal }\n.b { top: 0; left: 0 }</style>';
  const body = '<p class="a" style="color: teal">x</p><p class="a" style="color: teal">y</p>';
  const at = async (written: string): Promise<[string, string]> => {
    const site = makeSite({ 'index.twig': page(written, body), 'a.css': 'p { margin: 0 }\n' });
    await draft(site);
    await adopt(site);
    return [read(site, 'index.twig'), read(site, 'a.css')];
  };
  // It is left as it is, and what it says at times is said always now.
  const [text, css] = await at(`{% if x %}${block}{% endif %}`);
  assert.ok(text.includes(block));
  assert.match(css, /\.a \{ color: teal; \}/);
  // Where it always is, it says so already.
  assert.equal((await at(block))[1], 'p { margin: 0 }\n');
});

test('a new sheet is linked where no branch leaves it out', async () => {
  const site = makeSite({
    'base.twig':
      '<!doctype html>\n<html>\n<head>\n{% block style %}\n<link rel="stylesheet" href="{% static "kit/kit.css" %}">\n{% if ink %}<style>i { color: {{ ink }} }</style>{% endif %}\n{% endblock %}\n</head>\n<body>\n{% block body %}{% endblock %}\n</body>\n</html>\n',
    'kit/kit.css': '/*! Quay Kit v2.1.0, MIT */\np { margin: 0 }\n',
    // What extends a layout is a part of it, be it with a whole body.
    'login.twig': `{% extends "base.twig" %}\n{% block body %}\n<body class="narrow">${NOTES}</body>\n{% endblock %}\n`,
    'fares.twig': `{% extends "base.twig" %}\n{% block body %}\n${NOTES}{% endblock %}\n`,
  });
  const { styles } = await draft(site);
  assert.deepEqual(
    styles.map(({ elements }) => elements),
    [4],
  );
  await adopt(site);
  assert.match(read(site, 'base.twig'), /\{% endblock %\}\n<link [^\n]*\n<\/head>/);
});

test('a sheet in a block that a page fills anew is not there for certain', async () => {
  const own = '<link rel="stylesheet" href="b.css">';
  const files = (filling: string, between = ''): Record<string, string> => ({
    'base.twig': `<!doctype html>\n<html>\n<head>\n<title>t</title>\n{% block head %}{% block style %}<link rel="stylesheet" href="a.css">{% endblock %}{% endblock %}\n</head>\n<body>\n${NOTES}{% block body %}{% endblock %}\n</body>\n</html>\n`,
    'deep.twig': `{% extends "base.twig" %}\n${between}`,
    'child.twig': `{% extends "deep.twig" %}\n${filling}\n{% block body %}\n${NOTES}{% endblock %}\n`,
    'a.css': 'i { top: 0 }\n',
    'b.css': 'i { left: 0 }\n',
  });
  const home = async (filling: string, between?: string): Promise<string> => {
    const site = makeSite(files(filling, between));
    const { shared, styles } = await draft(site);
    assert.deepEqual(
      styles.map(({ elements }) => elements),
      [4],
    );
    return shared;
  };
  assert.equal(await home(''), 'a.css');
  assert.equal(await home(`{% block style %}${own}{% endblock %}`), 'shared.css');
  assert.equal(await home(`{% block style %}{{ parent() }}${own}{% endblock %}`), 'a.css');
  assert.equal(await home('', `{% block head %}${own}{% endblock %}`), 'shared.css');
  // Of a layout that nobody finds, it may be this one.
  const site = makeSite(files(`{% block style %}${own}{% endblock %}`));
  writeFileSync(path.join(site, 'child.twig'), read(site, 'child.twig').replace('"deep.twig"', 'layout'));
  assert.equal((await draft(site)).shared, 'shared.css');
});

test('a sheet that a page puts into its layout has its say on the layout, too', async () => {
  const site = (sheet: string): string =>
    makeSite({
      'base.twig': `<!doctype html>\n<html>\n<head>\n<title>t</title>\n<link rel="stylesheet" href="a.css">\n{% block more %}{% endblock %}\n</head>\n<body>\n<div class="deck">${NOTES}</div>\n{% block body %}{% endblock %}\n</body>\n</html>\n`,
      'child.twig':
        '{% extends "base.twig" %}\n{% block more %}<link rel="stylesheet" href="b.css">{% endblock %}\n{% block body %}<i>x</i>{% endblock %}\n',
      'a.css': 'i { top: 0 }\n',
      'b.css': sheet,
    });
  const moved = async (sheet: string): Promise<string> => {
    const folder = site(sheet);
    await draft(folder);
    await adopt(folder);
    return read(folder, 'a.css');
  };
  assert.match(await moved('p { color: red }\n'), /teal/);
  const strong = await moved('body .deck p { color: red; margin: 9px }\n');
  // It wins by an ancestor more, or stays.
  assert.ok(!/teal/.test(strong) || /(\S+ ){2,}.*\{[^}]*teal/.test(strong), strong);
});

test('what scripts repeat or leave out is no sure neighbour, and a file without whole pages beside it is a part', async () => {
  const note = 'style="padding: 4px; letter-spacing: 1px"';
  const site = makeSite({
    'app/list.html': `<ul class="crew"><li ng-repeat="one in crew">a</li><li>b</li></ul><p ${note}>c</p>`,
    'app/more/plain.html': `<div><b ${note}>x</b><b ${note}>x</b></div>`,
    'app/line.css': '.crew li + li { padding: 1px }\n',
    'acervus.json': '{ "sheets": { "app/**": ["app/line.css"] } }',
  });
  const survey = JSON.parse((await acervus('survey', site, '--json')).stdout);
  assert.deepEqual([survey.pages, survey.components], [0, 2]);
  const first = (await acervus('explain', 'app/list.html', 'li', site)).stdout;
  assert.match(first, /padding: 1px {2}\.crew li \+ li .*when/, 'there may be several of it');
  await acervus('draft', site);
  await acervus('adopt', site);
  assert.doesNotMatch(read(site, 'app/more/plain.html'), /style=/);
});
