import assert from 'node:assert/strict';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { acervus, addFiles, htmlPage, makeSite } from '../support/site.js';

/** Pages that differ from one another, with a component, template text and slips of all kinds. */
function manyPages(): Record<string, string> {
  const files: Record<string, string> = {
    'theme/a.css': '.notice { color: red } .late { top: 0 } .wide { width: 10px }',
    'part.tpl': '<p class="notice {{ kind }}" style="color: red">x</p>',
  };
  for (let number = 0; number < 30; number++) {
    const folder = number % 3 === 0 ? 'fares/' : '';
    files[`${folder}page-${number}.html`] = htmlPage(
      [
        `<p style="margin: 0; color: ${number % 2 === 0 ? 'red' : '#f00'}" class="notise" id="x${number}">a`,
        `<p style="background: url(${folder === '' ? '' : '../'}tide.png)">b<i id="q"></i><i id="q"></i>`,
        number === 7 ? '<p class="{{ kind }} late" align="center">c' : '',
      ].join('\n'),
      `<link rel="stylesheet" href="${folder === '' ? '' : '../'}theme/a.css"><style>p { colour: red }</style>`,
    );
  }
  return files;
}

test('a survey is the same, byte for byte, in any number of threads', async () => {
  const site = makeSite(manyPages());
  const one = await acervus('survey', site, '--json', '--jobs', '1');
  assert.equal(one.code, 1);
  for (const jobs of ['2', '4'])
    assert.equal((await acervus('survey', site, '--json', '--jobs', jobs)).stdout, one.stdout);
});

test('so is a proof, for pages that differ, components and template text', async () => {
  const files = manyPages();
  const before = makeSite(files);
  const after = makeSite(files);
  addFiles(after, {
    'theme/a.css': files['theme/a.css']!.replace('10px', '11px').replace(
      '.late { top: 0 }',
      '.late { top: 1px }',
    ),
    'page-1.html': files['page-1.html']!.replace('margin: 0', 'margin: 1px'),
    'fares/new.html': htmlPage('<p>new'),
  });
  const one = await acervus('prove', after, '--against', before, '--json', '--jobs', '1');
  assert.equal(one.code, 1);
  assert.match(one.stdout, /"the page is new"/);
  assert.match(one.stdout, /"property": "margin-top"/);
  assert.match(one.stdout, /page-7\.html/);
  for (const jobs of ['2', '3'])
    assert.equal(
      (await acervus('prove', after, '--against', before, '--json', '--jobs', jobs)).stdout,
      one.stdout,
    );
});

test('what one thread cannot read is told once, whichever thread it was', async () => {
  const site = makeSite(manyPages());
  writeFileSync(path.join(site, 'page-28.html'), Buffer.from([0, 1, 2, 3, 0]));
  for (const jobs of ['1', '3']) {
    const { code, stderr } = await acervus('survey', site, '--jobs', jobs);
    assert.ok((code ?? 2) < 2);
    assert.match(stderr, /^acervus: left out: page-28\.html is no text; [^\n]*\n$/);
  }
  assert.match(
    (await acervus('survey', site, '--jobs', 'all')).stderr,
    /--jobs all: expected a whole number/,
  );
});

test('timings go to stderr, and leave the document alone', async () => {
  const site = makeSite(manyPages());
  const { stdout, stderr } = await acervus('survey', site, '--json', '--timings');
  assert.equal(JSON.parse(stdout).command, 'survey');
  assert.match(stderr, /\d+\.\d\d {3}pages, parsing\n/);
  assert.match(stderr, /from start to end; \d+ MB at most\n$/);
  assert.equal(readFileSync(path.join(site, 'part.tpl'), 'utf8'), manyPages()['part.tpl']);
});

test('a token that a script of the site names is not put in', async () => {
  const page = (css: string, script: string): Record<string, string> => ({
    'index.html': htmlPage('<p class="a">x', `<style>${css}</style><script src="own.js"></script>`),
    'own.js': script,
  });
  const prove = async (script: string): Promise<number | null> => {
    const before = makeSite(page('.a { color: teal }', script));
    const after = makeSite(page(':root { --ink: teal } .a { color: var(--ink) }', script));
    return (await acervus('prove', after, '--against', before)).code;
  };
  assert.equal(await prove('say("tide")'), 0);
  assert.equal(await prove('document.body.style.setProperty("--ink", "red")'), 1);
});

test('what a proof tells of a page stands where the page has it', async () => {
  const link = '<link rel="stylesheet" href="a.css">';
  const plain = htmlPage('<p>high</p>\n  <p class="k">low</p>', link);
  const own = htmlPage('<p>x</p>\n<script>document.querySelector("p").style.color = ""</script>', link);
  const before = makeSite({ 'plain.html': plain, 'own.html': own, 'a.css': '.k { top: 0 }' });
  const after = makeSite({ 'plain.html': plain, 'own.html': own, 'a.css': '.k { top: 1px }' });
  const run = await acervus('prove', after, '--against', before, '--json');
  const { differences, assumptions } = JSON.parse(run.stdout);
  const placeOf = (text: string, piece: string): string => {
    const lines = text.slice(0, text.indexOf(piece)).split('\n');
    return `${lines.length}:${lines.at(-1)!.length + 1}`;
  };
  const [{ page, place }, ...others] = differences;
  assert.deepEqual(others, []);
  assert.equal(page, 'plain.html');
  assert.equal(`${place.line}:${place.column}`, placeOf(plain, '<p class="k"'));
  assert.ok(
    assumptions.some((one: string) =>
      one.startsWith(`own.html:${placeOf(own, 'style.color').split(':')[0]}:`),
    ),
    assumptions.join('\n'),
  );
});
