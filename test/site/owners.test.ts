// Whose a file is: what a build makes, what a library brings along, and what mail programs read is not moved.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { acervus, type Files, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const TWICE = '<p style="color: red; top: 0">a</p>\n<p style="color: red; top: 0">b</p>';
const LINK = '<link rel="stylesheet" href="css/site.css">';

async function adopted(files: Files): Promise<string> {
  const folder = makeSite(files);
  for (const command of ['draft', 'adopt']) {
    const run = await acervus(command, folder);
    assert.equal(run.code, 0, run.stderr);
  }
  return folder;
}

test('a sheet that is built is read, and not written', async () => {
  const page = htmlPage(TWICE, LINK);
  const css =
    '.a { margin: 3px; padding: 4px } .b { margin: 3px; padding: 4px } .c { margin: 3px; padding: 4px }';
  const signs: readonly Files[] = [
    { 'css/site.scss': '$a: 1' },
    { 'css/site.less': '@a: 1' },
    { 'css/site.css': `${css}\n/*# sourceMappingURL=site.css.map */` },
  ];
  for (const sign of signs) {
    const folder = await adopted({ 'index.html': page, 'css/site.css': css, ...sign });
    assert.equal(read(folder, 'css/site.css'), sign['css/site.css'] ?? css);
    assert.match((await acervus('survey', folder)).stdout, /platform {2}css\/site\.css +built: /);
  }
  const own = await adopted({ 'index.html': page, 'css/site.css': css });
  assert.notEqual(read(own, 'css/site.css'), css);
});

test('the pages that a library brings along are neither counted nor written', async () => {
  const files = {
    'index.html': htmlPage(TWICE, LINK),
    'css/site.css': '',
    'vendor/slides/examples/one.html': htmlPage(TWICE),
    'vendor/slides/slides.js': 'go()',
    'coverage/index.html': htmlPage(TWICE),
  };
  const folder = await adopted(files);
  for (const file of ['vendor/slides/examples/one.html', 'coverage/index.html'] as const)
    assert.equal(read(folder, file), files[file]);
  assert.doesNotMatch(read(folder, 'index.html'), /style=/);
  const { stdout } = await acervus('survey', folder, '--json');
  const { pages, platformPages } = JSON.parse(stdout);
  assert.deepEqual([pages, platformPages], [1, 2]);
});

test('a page about plugins is a page, and so is every page of a site that is one folder', async () => {
  for (const more of [
    { 'plugins/index.html': htmlPage(TWICE) },
    { 'acervus.json': '{ "theme": ["lib/**"] }' },
  ]) {
    const folder = await adopted({ 'lib/a.html': htmlPage(TWICE), 'lib/a.css': '', ...more });
    const { stdout } = await acervus('survey', folder, '--json');
    assert.equal(JSON.parse(stdout).platformPages, 'plugins/index.html' in more ? 1 : 0);
  }
});

test('mail keeps its styles, unless it is said otherwise', async () => {
  const mails = [
    `<!doctype html><html><head><title>m</title><style>p { mso-line-height-rule: exactly }</style></head><body>${TWICE}</body></html>`,
    `<!doctype html><html><head><title>m</title><!--[if mso]><i></i><![endif]--></head><body>${TWICE}</body></html>`,
    `<!doctype html><html><head><title>m</title></head><body><table cellpadding="0" border="0"><tr><td><table cellspacing="0"><tr><td>${TWICE}</td></tr></table></td></tr></table><a href="#">Unsubscribe</a></body></html>`,
  ];
  for (const mail of mails) {
    const folder = await adopted({ 'mail.html': mail });
    assert.equal(read(folder, 'mail.html'), mail);
    assert.match(
      (await acervus('draft', folder)).stdout,
      /mail programs read little but the styles of a tag/,
    );
    const moved = await adopted({ 'mail.html': mail, 'acervus.json': '{ "mail": "move" }' });
    assert.notDeepEqual(snapshot(moved).get('mail.html'), snapshot(folder).get('mail.html'));
  }
});

test('a template is mail by where it lies', async () => {
  const layout = (body: string): string =>
    `<!doctype html>\n<html><head><title>{{ t }}</title></head><body>${body}</body></html>\n`;
  const mails = {
    'views/mailer/_fares.html.erb': `<%= fares %>${TWICE}`,
    'views/crew_mailer/late.html.erb': layout(TWICE),
    'views/layouts/mailer.html.erb': layout(`<%= yield %>${TWICE}`),
    'templates/emails/late.twig': `{{ name }}${TWICE}`,
  };
  const pages = {
    'views/emails/index.twig': `{{ name }}<i class="x"></i>${TWICE}`,
    'email.html': htmlPage(TWICE, LINK),
    'css/site.css': 'i { top: 0 }',
    'layout.twig': `<!doctype html><html><head><title>t</title>${LINK}</head><body>{{ body }}</body></html>`,
  };
  const folder = await adopted({ ...mails, ...pages });
  for (const [file, text] of Object.entries(mails)) assert.equal(read(folder, file), text, file);
  for (const file of ['views/emails/index.twig', 'email.html'] as const)
    assert.notEqual(read(folder, file), pages[file], file);
});

test('a number in a name is that of a release', async () => {
  const css = '.a { margin: 3px; padding: 4px } .b { margin: 3px; padding: 4px }';
  const links = (name: string): string => `${LINK}<link rel="stylesheet" href="css/${name}">`;
  for (const [name, owner] of [
    ['quay-kit-2.1.0.css', 'platform'],
    ['skerrin-2.1.0.css', 'theme'],
    ['deck-2.css', 'theme'],
  ] as const) {
    const folder = makeSite({
      'index.html': htmlPage(TWICE, links(name)),
      'package.json': '{ "name": "skerrin" }',
      'css/site.css': '',
      [`css/${name}`]: css,
    });
    const { sheets } = JSON.parse((await acervus('survey', folder, '--json')).stdout);
    const found = sheets.find(({ path }: { readonly path: string }) => path === `css/${name}`);
    assert.equal(found.owner, owner, name);
  }
});
