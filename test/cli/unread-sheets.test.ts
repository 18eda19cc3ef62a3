// What was not read is never taken for nothing: sheets above the site, on other hosts, missing, or held to a hash.

import assert from 'node:assert/strict';
import { execFileSync } from 'node:child_process';
import path from 'node:path';
import { test } from 'node:test';
import { acervus, addFiles, makeSite, read } from '../support/site.js';

const page = (links: string, body: string): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Fares</title>${links}</head><body>\n${body}\n</body></html>\n`;
const OWN = '<link rel="stylesheet" href="css/line.css">';
const FRAMES = '<p class="berth" style="border-style: none; color: red">x</p>\n'.repeat(3);

async function adopted(files: Readonly<Record<string, string>>) {
  const site = makeSite(files);
  const draft = await acervus('draft', site);
  assert.equal(draft.code, 0, draft.stderr);
  const done = await acervus('adopt', site);
  assert.equal(done.code, 0, done.stderr);
  return { site, draft, done };
}

test('a sheet above the site is read as the platform’s, through its imports, and never written', async () => {
  const top = makeSite({
    'kit/kit.css': '@import "more.css";\n.berth { border: 1px solid }',
    'kit/more.css': '.berth { margin: 3px }',
  });
  addFiles(path.join(top, 'site'), {
    'a.html': page(`<link rel="stylesheet" href="../kit/kit.css">${OWN}`, FRAMES),
    'css/line.css': '.berth { margin: 3px }\n',
  });
  const site = path.join(top, 'site');
  const survey = JSON.parse((await acervus('survey', site, '--json')).stdout);
  assert.deepEqual(
    survey.sheets
      .map(({ path: sheet, owner }: { path: string; owner: string }) => `${owner} ${sheet}`)
      .sort(),
    ['platform ../kit/kit.css', 'platform ../kit/more.css', 'theme css/line.css'],
  );
  const draft = await acervus('draft', site);
  assert.doesNotMatch(draft.stdout, /was not read|another host/);
  assert.equal((await acervus('adopt', site)).code, 0);
  assert.match(read(site, 'css/line.css'), /border-style: none/, 'the frame of the kit is beaten by it');
  assert.equal(read(top, 'kit/more.css'), '.berth { margin: 3px }');
  assert.doesNotMatch((await acervus('hold', site, '--json')).stdout, /missing sheet/);
});

test('beside a sheet that nobody read nothing is given already, and no rule stands for another', async () => {
  const rules = '.berth { margin: 3px }\n.pier { margin: 3px }\n.quay { margin: 3px }\n';
  for (const link of ['https://kit.invalid/kit.css', 'https://kit.invalid/b.css']) {
    const { site, draft } = await adopted({
      'a.html': page(`<link rel="stylesheet" href="${link}">${OWN}`, FRAMES),
      'css/line.css': rules,
    });
    assert.match(draft.stdout, new RegExp(`Assumed[\\s\\S]*${link}[\\s\\S]*was not\\s+read[\\s\\S]*Styles`));
    assert.match(draft.stdout, /"copies" in acervus\.json/);
    const text = read(site, 'acervus-draft.yaml');
    assert.match(text.slice(0, text.indexOf('styles:')), /assumed:\n.*was not\s+read/s);
    const css = read(site, 'css/line.css');
    assert.match(css, /border-style: none/, 'it is moved, not taken out');
    assert.ok(css.includes(rules), css);
  }
  const { site } = await adopted({ 'a.html': page(OWN, FRAMES), 'css/line.css': rules });
  assert.doesNotMatch(read(site, 'css/line.css'), /border-style|\.pier \{/, 'where all is read, both are');
});

test('a sheet whose hash a page names is not edited', async () => {
  const line = '.berth { margin: 3px }\n';
  const { site } = await adopted({
    'a.html': page('<link rel="stylesheet" href="css/line.css" integrity="sha256-AAAA">', FRAMES),
    'css/line.css': line,
  });
  assert.equal(read(site, 'css/line.css'), line);
  assert.match(read(site, 'a.html'), /line\.css" integrity[^>]*>\s*<link/);
});

test('a file of the site that is linked by way of the folder above is not taken for another one', async () => {
  const top = makeSite({});
  const site = path.join(top, 'site');
  addFiles(site, {
    'a.html': page('<link rel="stylesheet" href="../site/css/line.css">', FRAMES),
    'css/line.css': '.berth { margin: 3px }\n',
  });
  const { stdout } = await acervus('draft', site);
  assert.match(stdout, /\.\.\/site\/css\/line\.css \(on 1 page\) is not in this folder/);
  assert.doesNotMatch(stdout, /another host/);
});

test('a sheet above the site is read in a commit, too', async () => {
  const top = makeSite({ 'kit/kit.css': '.berth { border: 1px solid }\n' });
  const site = path.join(top, 'site');
  addFiles(site, { 'a.html': page('<link rel="stylesheet" href="../kit/kit.css">', FRAMES) });
  const git = (...args: string[]) =>
    execFileSync('git', ['-c', 'user.name=Ebba', '-c', 'user.email=ebba@skerrin.invalid', ...args], {
      cwd: top,
    });
  git('init', '-q');
  git('add', '.');
  git('commit', '-q', '-m', 'first');
  assert.equal((await acervus('prove', site, '--against', 'HEAD')).code, 0);
  addFiles(top, { 'kit/kit.css': '.berth { margin: 9px }\n' });
  const changed = await acervus('prove', site, '--against', 'HEAD');
  assert.equal(changed.code, 1, changed.stderr);
  assert.match(changed.stdout, /border-bottom-color/, 'what the kit said at the commit');
});

test('a sheet that is missing from the folder is named like any other that was not read', async () => {
  const { site, draft, done } = await adopted({
    'a.html': page(`<link rel="stylesheet" href="css/gone.css">${OWN}`, FRAMES),
    'css/line.css': '.berth { margin: 3px }\n',
  });
  assert.match(
    draft.stdout.replace(/\s+/g, ' '),
    /css\/gone\.css \(on 1 page\) is not in this folder and was not read/,
  );
  assert.match(done.stdout, /css\/gone\.css/);
  assert.match(read(site, 'css/line.css'), /border-style: none/);
});

test('a sheet that a module imports is read, relative to the module, and missed where it is not there', async () => {
  const script = '<script type="module" src="js/main.js"></script>';
  const files = {
    'a.html': page(`${script}${OWN}`, FRAMES),
    'css/line.css': '.pier { margin: 3px }\n',
    'js/main.js': "import './look.css';\nimport 'kit/kit.css';\n",
    'js/look.css': '.berth { border: 3px solid }\n',
  };
  const { site, draft } = await adopted(files);
  const said = draft.stdout.replace(/\s+/g, ' ');
  assert.match(said, /kit\/kit\.css \(on 1 page\) is not in this folder and was not read/);
  assert.doesNotMatch(said, /look\.css \(on/);
  assert.match(`${read(site, 'css/line.css')}${read(site, 'a.html')}`, /border-style: none/);
});
