import assert from 'node:assert/strict';
import { execFileSync } from 'node:child_process';
import { cpSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { adoptDocument } from '../../src/commands/adopt/document.js';
import { draftDocument } from '../../src/commands/draft/document.js';
import { proveDocument } from '../../src/commands/prove/document.js';
import { surveyDocument } from '../../src/commands/survey/document.js';
import { undoDocument } from '../../src/commands/undo/document.js';
import { acervus, addFiles, DEMO, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const link = '  <link rel="stylesheet" href="theme/line.css">\n';
const row = (text: string, more = ''): string => `<p style="padding: 4px; color: #1f3a56${more}">${text}</p>`;

function smallSite(): string {
  return makeSite({
    'index.html': htmlPage(`${row('Tarbek')}\n${row('Ulvay')}\n<p style="width: 37%">x</p>`, link),
    'bare.html': htmlPage('<p>Brannish</p>', link),
    'fares/index.html': htmlPage(row('Merrow', '; top: 3px'), link.replace('theme', '../theme')),
    'theme/line.css': 'p { margin: 0; }\n',
  });
}

const json = (run: { stdout: string }): unknown => JSON.parse(run.stdout);

test('survey counts what is written and exits with 1 for what is broken', async () => {
  const folder = smallSite();
  const clean = await acervus('survey', folder);
  assert.equal(clean.code, 0);
  assert.match(clean.stdout, /8 {3}declarations in 4 style attributes/);
  assert.match(clean.stdout, /next {2}acervus draft /);
  addFiles(folder, { 'theme/line.css': 'p { colour: red; }\n' });
  const broken = await acervus('survey', folder, '--json');
  assert.equal(broken.code, 1);
  const document = surveyDocument.parse(json(broken));
  assert.deepEqual(
    document.broken.map(({ kind, place }) => [kind, `${place.path}:${place.line}:${place.column}`]),
    [['unknown property', 'theme/line.css:1:5']],
  );
  assert.deepEqual(document.inline, { written: 8, distinct: 4, repeated: 6, holders: 4, alike: 2 });
});

test('draft, adopt, prove, undo: what repeats moves, nothing differs, every byte comes back', async () => {
  const folder = smallSite();
  const before = snapshot(folder);
  const copy = makeSite({});
  cpSync(folder, copy, { recursive: true });
  const drafted = draftDocument.parse(json(await acervus('draft', folder, '--json')));
  assert.deepEqual(
    drafted.styles.map(({ home, name, elements, pages, saves }) => [
      home,
      name,
      elements,
      pages,
      saves?.places,
    ]),
    [['new class', 'text-navy', 3, 2, 4]],
  );
  assert.deepEqual(drafted.upkeep, { now: 9, after: 5 });
  const adopted = adoptDocument.parse(json(await acervus('adopt', folder, '--json')));
  assert.deepEqual(adopted.files, ['fares/index.html', 'index.html', 'theme/line.css']);
  assert.match(
    read(folder, 'index.html'),
    /<p class="text-navy">Tarbek<\/p>\n<p class="text-navy">Ulvay<\/p>\n<p style="width: 37%">/,
  );
  // The sheet that every page links already, in its own form.
  assert.equal(
    read(folder, 'theme/line.css'),
    'p { margin: 0; }\n.text-navy { padding: 4px; color: #1f3a56; }\n',
  );
  const proof = await acervus('prove', folder, '--against', copy, '--json');
  assert.equal(proof.code, 0);
  assert.equal(proveDocument.parse(json(proof)).equal, true);
  const again = draftDocument.parse(json(await acervus('draft', folder, '--json')));
  assert.deepEqual(again.styles, []);
  const undone = undoDocument.parse(json(await acervus('undo', folder, '--json')));
  assert.deepEqual([undone.undone, undone.removed], [true, []]);
  rmSync(path.join(folder, 'acervus-draft.yaml'));
  assert.deepEqual(snapshot(folder), before);
  assert.match((await acervus('undo', folder)).stdout, /nothing to take back/);
});

test('prove tells page, element, property, before, after and the rules that decide', async () => {
  const folder = smallSite();
  const copy = makeSite({});
  cpSync(folder, copy, { recursive: true });
  addFiles(folder, { 'theme/line.css': 'p { margin: 0; }\n#x, p { width: 20px !important; }\n' });
  const run = await acervus('prove', folder, '--against', copy);
  assert.equal(run.code, 1);
  assert.match(run.stdout, /p {2}width\s+index\.html:10:1/);
  assert.match(run.stdout, /before {2}37% {2}style attribute/);
  assert.match(run.stdout, /after {3}20px !important {2}p\s+theme\/line\.css:2:9/);
});

test('prove compares with a commit', async () => {
  const folder = smallSite();
  const git = (...args: string[]): void =>
    void execFileSync('git', ['-c', 'user.name=Ragna', '-c', 'user.email=ragna@skerrin.invalid', ...args], {
      cwd: folder,
    });
  git('init', '-q');
  git('add', '-A');
  git('commit', '-qm', 'as it was');
  await acervus('draft', folder);
  await acervus('adopt', folder);
  assert.equal((await acervus('prove', folder, '--against', 'HEAD')).code, 0);
  addFiles(folder, { 'theme/line.css': 'p { margin: 0; }\n.text-navy { color: red }' });
  assert.equal((await acervus('prove', folder, '--against', 'HEAD')).code, 1);
  const unknown = await acervus('prove', folder, '--against', 'no-such-thing');
  assert.deepEqual([unknown.code, unknown.stderr.split('\n').length], [2, 2]);
});

test('a patch is what git apply takes, and writes nothing', async () => {
  const folder = smallSite();
  addFiles(folder, { 'old.html': htmlPage(row('Caf\u00e9'), link).replaceAll('\n', '\r\n') });
  await acervus('draft', folder);
  const before = snapshot(folder);
  const patch = await acervus('adopt', folder, '--patch');
  assert.equal(patch.code, 0);
  assert.deepEqual(snapshot(folder), before);
  const copy = makeSite({ 'change.patch': patch.stdout });
  cpSync(folder, copy, { recursive: true });
  execFileSync('git', ['init', '-q'], { cwd: copy });
  execFileSync('git', ['-c', 'core.autocrlf=false', 'apply', 'change.patch'], { cwd: copy });
  rmSync(path.join(copy, '.git'), { recursive: true });
  rmSync(path.join(copy, '.acervus'), { recursive: true });
  rmSync(path.join(copy, 'change.patch'));
  await acervus('adopt', folder);
  rmSync(path.join(folder, '.acervus'), { recursive: true });
  assert.deepEqual(snapshot(copy), snapshot(folder));
});

test('a person renames, refuses and merges in the draft; comments and names survive a second draft', async () => {
  const folder = makeSite({
    'index.html': htmlPage(
      '<p style="top: 0; left: 0">a<p style="top: 0; left: 0">b<b style="color: red">c</b><b style="color: red">d</b><i style="top: 0">e</i><i style="top: 0">f</i><p>g<b>h</b><i>i</i>',
    ),
  });
  await acervus('draft', folder);
  const file = 'acervus-draft.yaml';
  const original = read(folder, file);
  const names = [...original.matchAll(/name: (\S+)/g)].map(([, name]) => name!);
  assert.equal(names.length, 3);
  const styleOf = (text: string): string =>
    names.find((name) => original.split(`name: ${name}`)[1]!.split('- id')[0]!.includes(text))!;
  const [both, red, top] = [
    styleOf('left'),
    styleOf('color'),
    names.find((name) => ![styleOf('left'), styleOf('color')].includes(name))!,
  ];
  const edited = original
    .replace(`name: ${both}\n`, `name: ${both}\n    into: flush\n`)
    .replace(`name: ${red}\n    take: yes`, `name: ${red}\n    # ask Marit\n    take: no`)
    .replace(`name: ${top}\n`, 'name: flush\n');
  addFiles(folder, { [file]: edited });
  await acervus('draft', folder);
  const second = read(folder, file);
  assert.match(second, /# ask Marit\n {4}take: no/);
  assert.match(second, /name: flush/);
  const adopted = adoptDocument.parse(json(await acervus('adopt', folder, '--json')));
  assert.deepEqual(
    adopted.styles.map(({ name, elements }) => [name, elements]),
    [['flush', 4]],
  );
  assert.ok(adopted.kept.some(({ reason }) => reason === 'refused in the draft'));
  assert.match(read(folder, 'index.html'), /<p class="flush" style="left: 0">a/);
  assert.match(read(folder, 'index.html'), /<b style="color: red">c/);
});

test('places that a person excepts stay as they are, and declarations may be left out', async () => {
  const folder = smallSite();
  await acervus('draft', folder);
  const draft = read(folder, 'acervus-draft.yaml');
  addFiles(folder, {
    'acervus-draft.yaml': draft
      .replace('take: yes', 'take: yes\n    except: ["index.html:9:1"]')
      .replace('      padding: 4px;\n', ''),
  });
  assert.equal((await acervus('adopt', folder)).code, 0);
  assert.match(read(folder, 'index.html'), /<p style="padding: 4px; color: #1f3a56">Tarbek/);
  assert.match(read(folder, 'index.html'), /<p class="text-navy" style="padding: 4px">Ulvay/);
  await acervus('undo', folder);
  addFiles(folder, { 'acervus-draft.yaml': draft.replace('padding: 4px', 'padding: 5px') });
  const changed = await acervus('adopt', folder);
  assert.equal(changed.code, 2);
  assert.match(changed.stderr, /padding: 5px» is not what its elements say/);
});

test('a site that changed since the draft: what still holds is used, what is gone is named', async () => {
  const folder = smallSite();
  await acervus('draft', folder);
  addFiles(folder, { 'index.html': htmlPage(`<h1>New</h1>\n${row('Tarbek')}\n<p>no style now</p>`, link) });
  const adopted = adoptDocument.parse(json(await acervus('adopt', folder, '--json')));
  assert.equal(adopted.styles[0]?.elements, 2);
  assert.deepEqual(adopted.gone, []);
  assert.match(read(folder, 'index.html'), /<p class="text-navy">Tarbek/);
  await acervus('undo', folder);
  addFiles(folder, { 'index.html': htmlPage('<p>x', link) });
  const later = adoptDocument.parse(json(await acervus('adopt', folder, '--json')));
  assert.deepEqual([later.written, later.gone.length], [false, 1]);
});

test('a near miss changes only when a person says so, and is the only change', async () => {
  const folder = smallSite();
  addFiles(folder, {
    'theme/line.css': 'p { margin: 0; }\nb { color: #1f3a57; }\n',
    'b.html': htmlPage('<b>x</b>', link),
  });
  await acervus('draft', folder);
  const draft = read(folder, 'acervus-draft.yaml');
  assert.match(draft, /from: "#1f3a57"\n {4}to: "#1f3a56"\n {4}change: no/);
  addFiles(folder, { 'acervus-draft.yaml': draft.replace('change: no', 'change: yes') });
  const adopted = adoptDocument.parse(json(await acervus('adopt', folder, '--json')));
  assert.deepEqual(adopted.changed, { elements: 1, pages: 1 });
  assert.doesNotMatch(read(folder, 'theme/line.css'), /1f3a57/);
  assert.equal((await acervus('undo', folder)).code, 0);
  assert.match(read(folder, 'theme/line.css'), /1f3a57/);
});

test('undo touches nothing when a file was changed since', async () => {
  const folder = smallSite();
  await acervus('draft', folder);
  await acervus('adopt', folder);
  addFiles(folder, { 'index.html': `${read(folder, 'index.html')}<!-- mine -->` });
  const before = snapshot(folder);
  const run = await acervus('undo', folder);
  assert.equal(run.code, 2);
  assert.match(run.stderr, /^acervus: index\.html: changed since adopt wrote it; nothing was touched/);
  assert.deepEqual(snapshot(folder), before);
});

test('a change that was cut short is put right by undo, and nothing else goes on before', async () => {
  const folder = smallSite();
  const before = snapshot(folder);
  await acervus('draft', folder);
  await acervus('adopt', folder);
  // As a killed process leaves it: the record says writing, one file is still the old one.
  const record = path.join('.acervus', 'ledger', '0001.json');
  addFiles(folder, {
    [record]: read(folder, record).replace('"state": "done"', '"state": "writing"'),
    'index.html': Buffer.from(before.get('index.html')!, 'base64'),
  });
  assert.match((await acervus('adopt', folder)).stderr, /cut short while writing; run "acervus undo" first/);
  assert.equal((await acervus('undo', folder)).code, 0);
  rmSync(path.join(folder, 'acervus-draft.yaml'));
  assert.deepEqual(snapshot(folder), before);
});

test('adopting the demo leaves a quarter of its upkeep at most; a second run is idle', async () => {
  const folder = makeSite({});
  cpSync(DEMO, folder, { recursive: true });
  const stock = surveyDocument.parse(json(await acervus('survey', folder, '--json')));
  assert.ok(stock.pages >= 24 && stock.components >= 3 && stock.inline.written >= 400);
  const drafted = draftDocument.parse(json(await acervus('draft', folder, '--json')));
  const homes = new Set(drafted.styles.map(({ home }) => home));
  assert.deepEqual([...homes].sort(), [
    'already given',
    'existing class',
    'existing selector',
    'from style blocks',
    'grouped rule',
    'new class',
    'position',
    'wider rule',
  ]);
  assert.ok(drafted.tokens.length >= 1 && drafted.nearMisses.length >= 2);
  const adopted = adoptDocument.parse(json(await acervus('adopt', folder, '--json')));
  assert.equal(adopted.upkeep.now, stock.upkeep.now);
  assert.ok(adopted.upkeep.after <= 0.25 * adopted.upkeep.now, `${adopted.upkeep.after} left`);
  const after = surveyDocument.parse(json(await acervus('survey', folder, '--json')));
  assert.equal(after.upkeep.now, adopted.upkeep.after);
  for (const { name } of adopted.styles) assert.doesNotMatch(name ?? '', /^kw-|-\d+-[a-z]$/);
  for (const file of ['platform/3.1/kelpwork.css', 'platform/4.0/kelpwork.css'])
    assert.equal(read(folder, file), readFileSync(path.join(DEMO, file), 'utf8'));
  const again = draftDocument.parse(json(await acervus('draft', folder, '--json')));
  assert.deepEqual([again.styles, again.tokens], [[], []]);
});
