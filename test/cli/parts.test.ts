// Templates in parts: which pages show them, what their addresses mean, and where a sheet is linked for all of them.

import assert from 'node:assert/strict';
import { cpSync } from 'node:fs';
import { test } from 'node:test';
import { acervus, makeSite, read } from '../support/site.js';

type Files = Record<string, string>;

/** Drafts and adopts; nothing differs afterwards. Out: the folder, and what adopting says. */
async function adopted(files: Files) {
  const site = makeSite(files);
  const before = makeSite({});
  cpSync(site, before, { recursive: true });
  assert.equal((await acervus('draft', site, '--json')).code, 0);
  const { code, stdout, stderr } = await acervus('adopt', site, '--json');
  assert.equal(code, 0, stderr);
  const proof = await acervus('prove', site, '--against', before, '--json');
  assert.deepEqual(JSON.parse(proof.stdout).differences, []);
  return { site, document: JSON.parse(stdout) };
}

const TWICE = '<p style="margin: 3px">a</p>\n<p style="margin: 3px">b</p>\n';

test('behind a sheet that is linked at times, a link goes to the end of the head', async () => {
  const page = (body: string) =>
    `<!DOCTYPE html>\n<html>\n<head>\n  <title>x</title>\n  <link rel="stylesheet" href="kit/line.css">\n<?php if ($dark) : ?>\n    <link rel="stylesheet" href="kit/dark.css">\n<?php endif; ?>\n</head>\n<body>\n${body}</body>\n</html>\n`;
  const { site } = await adopted({
    'index.php': page(TWICE),
    'kit/line.css': 'h1 { margin: 0 }\n',
    'kit/dark.css': 'h1 { color: white }\n',
  });
  const text = read(site, 'index.php');
  assert.doesNotMatch(text, /style=/);
  assert.match(text, /endif; \?>\n\s*<link rel="stylesheet" href="shared.css">\n<\/head>/);
});

test('a page that is shown in the place of one above it means by an address what that one does', async () => {
  const files = {
    'index.php': '<?php include "views/html/" . $page;\n',
    'views/html/fares.html': `<!DOCTYPE html>\n<html>\n<head>\n<title>Fares</title>\n<link rel="stylesheet" href="./views/kit/line.css">\n</head>\n<body>\n<h1><?php echo $title ?></h1>\n${TWICE}</body>\n</html>\n`,
    'views/kit/line.css': 'h1 { margin: 0 }\n',
  };
  const survey = JSON.parse((await acervus('survey', makeSite(files), '--json')).stdout);
  assert.deepEqual(survey.broken, []);
  const { site } = await adopted(files);
  const text = read(site, 'views/html/fares.html');
  assert.match(text, /<link rel="stylesheet" href=".\/views\/shared.css">/);
  assert.match(read(site, 'views/shared.css'), /margin: 3px/);
});

const layout = (body: string) =>
  `<!DOCTYPE html>\n<html>\n<head>\n<title>x</title>\n<link rel="stylesheet" href="{{ asset("css/line.css") }}">\n</head>\n<body>\n${body}\n</body>\n</html>\n`;

test('a page that shows no parts need not link what they are styled by', async () => {
  const alone =
    '<!DOCTYPE html>\n<html>\n<head>\n<title>x</title>\n</head>\n<body>\n{% if due %}<b>Due</b>{% endif %}\n<input value="{{ fare }}">\n</body>\n</html>\n';
  const { site, document } = await adopted({
    'views/layout.twig': layout('{% block content %}{% endblock %}'),
    'views/alone.twig': alone,
    'views/fares.twig': `{% extends "layout.twig" %}\n{% block content %}\n${TWICE}{% endblock %}\n`,
    'css/line.css': 'h1 { margin: 0 }\n',
  });
  assert.doesNotMatch(read(site, 'views/fares.twig'), /style=/);
  assert.equal(read(site, 'views/alone.twig'), alone);
  assert.ok(document.upkeep.after < document.upkeep.now);
});

test('pages in a package of a library are none of the site', async () => {
  const page = '<!DOCTYPE html>\n<html><body><?php echo $token ?></body></html>\n';
  const files = {
    'index.php': layout(`<?php echo $content ?>\n${TWICE}`).replace(
      '{{ asset("css/line.css") }}',
      'line.css',
    ),
    'line.css': 'h1 { margin: 0 }\n',
    'vendor/post/token.php': page,
    'vendor/post/composer.json': '{ "name": "post/post" }\n',
    'plugins.html': page.replace('<?php echo $token ?>', 'Plugins'),
  };
  const { pages } = JSON.parse((await acervus('survey', makeSite(files), '--json')).stdout);
  assert.equal(pages, 2);
});

test('a sheet that says what it is a release of is a library, unless that is the site itself', async () => {
  const banner =
    '/*!\n * Quay Kit v2.1.0 (https://example.invalid/quay)\n * MIT License\n */\n.quay { top: 0 }\n';
  const files: Files = {
    'index.html': `<!DOCTYPE html>\n<html><head><link rel="stylesheet" href="quay.css"></head><body>${TWICE}</body></html>\n`,
    'quay.css': banner,
  };
  const ownerIn = async (more: Files) => {
    const { stdout } = await acervus('survey', makeSite({ ...files, ...more }), '--json');
    const [{ owner, because }] = JSON.parse(stdout).sheets;
    return `${owner}: ${because}`;
  };
  assert.equal(await ownerIn({}), 'platform: a release: Quay Kit v2.1.0');
  assert.equal(
    await ownerIn({ 'package.json': '{ "name": "@skerrin/quay-kit" }' }),
    'theme: readable source',
  );
  assert.equal(await ownerIn({ 'quay.css': banner.replace('v2.1.0', '') }), 'theme: readable source');
  assert.equal(await ownerIn({ 'quay.css': banner.replace('/*!', '/*') }), 'theme: readable source');
});

test('a script that says so is a library: it acts where the markup calls it', async () => {
  const code = "document.querySelectorAll('p').forEach((one) => { one.style.margin = ''; });\n";
  const keptBy = async (script: string): Promise<number> => {
    const site = makeSite({
      'index.html': `<!DOCTYPE html>\n<html><head></head><body>${TWICE}<script src="js/slider.js"></script></body></html>\n`,
      'js/slider.js': script,
    });
    return JSON.parse((await acervus('draft', site, '--json')).stdout).kept.length;
  };
  const banner =
    '/* jshint undef:true */\n/*\n * Quay Slider\n * Version 1.5pre\n * Copyright 2019 the crew\n */\n';
  assert.equal(await keptBy(code), 1);
  assert.equal(await keptBy(banner + code), 0);
  assert.equal(await keptBy(banner.replace('Copyright', 'Written') + code), 1);
});

test('parts look as before on the pages of every area, not of their own alone', async () => {
  const page = (sheet: string) =>
    `<!DOCTYPE html>\n<html>\n<head>\n<link rel="stylesheet" href="${sheet}">\n</head>\n<body>\n<div class="crew"><i class="mate">x</i>\n<?php include $part ?>\n</div>\n</body>\n</html>\n`;
  const { document } = await adopted({
    'old/index.php': page('old.css'),
    'old/old.css': '* { margin: 0 }\n.wide { margin: 4px }\n.crew { margin: 0 }\n.mate { margin: 0 }\n',
    'new/index.php': page('new.css'),
    'new/new.css': 'p { color: navy }\n',
    'new/part.php': '<div class="<?= $word ?>">x</div>\n',
  });
  assert.equal(document.upkeep.after, document.upkeep.now);
});

test('what the cells of a table would lose takes back what the table said, and nothing else', async () => {
  const { site } = await adopted({
    'index.php': layout('<?php include $part ?>').replace('{{ asset("css/line.css") }}', 'line.css'),
    'line.css': 'h1 { margin: 0 }\n',
    'part.php': `<table cellpadding="5">\n<?php if ($a) { ?>\n<tr><td>x</td></tr>\n<?php } else { ?>\n</table>\n<table>\n<tr><td>z</td></tr>\n<?php } ?>\n</table>\n<table cellpadding="5"><tr><td>y</td></tr></table>\n${TWICE}`,
  });
  assert.doesNotMatch(read(site, 'part.php'), /style=/);
});
