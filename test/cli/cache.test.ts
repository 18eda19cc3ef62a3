// What was seen is remembered, and never believed when anything differs.

import assert from 'node:assert/strict';
import { cpSync, existsSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { Random, site as randomSite } from '../support/generate.js';
import { Seeds } from '../support/seeds.js';
import { acervus, acervusOn, DEMO, htmlPage, makeSite, type Run } from '../support/site.js';

const REMEMBER = { ACERVUS_LARGE_FROM: '0' };

function survey(site: string, ...args: string[]) {
  return acervusOn({ environment: REMEMBER }, ['survey', site, '--json', ...args]);
}

/** Something else in a file: a letter, a tag or a whole piece, put in or taken out. */
function edited(text: string, random: Random): string {
  const at = random.number(text.length + 1);
  const pieces = [
    '<p style="color: teal">x</p>',
    '<b class="late">',
    'a',
    '"',
    '<style>b { color: red }</style>',
  ];
  return random.chance(30)
    ? text.slice(0, at) + text.slice(Math.min(text.length, at + 12))
    : text.slice(0, at) + random.pick(pieces) + text.slice(at);
}

test('a survey says the same with what it remembers as without, however a site changes', async () => {
  const seeds = new Seeds('cli/cache', 2);
  for (const seed of seeds) {
    const random = new Random(seed);
    const files: Record<string, string> = { ...randomSite(seed) };
    const site = makeSite(files);
    for (let round = 0; round < 10; round++) {
      const known = await survey(site);
      const anew = await survey(site, '--no-cache');
      assert.deepEqual(
        [known.code, known.stdout, known.stderr],
        [anew.code, anew.stdout, anew.stderr],
        `${seeds.name(seed)}, round ${round}`,
      );
      const name = random.pick(Object.keys(files));
      files[name] = edited(files[name]!, random);
      writeFileSync(path.join(site, name), files[name]!);
    }
  }
});

/** A comment that makes a site one worth remembering. */
const LONG = `<!-- ${'x'.repeat(1_000_000)} -->`;

for (const [how, environment, more] of [
  ['by excerpts', REMEMBER, ''],
  ['of every page', {}, LONG],
] as const)
  test(`adopting says and does the same with what a draft has proven ${how} as without, however a site changes`, async () => {
    let remembered = 0;
    const seeds = new Seeds('cli/cache', 1);
    for (const seed of seeds) {
      const random = new Random(seed * 7);
      const files: Record<string, string> = { ...randomSite(seed) };
      const site = makeSite({ ...files, 'long.html': htmlPage(more) });
      for (let round = 0; round < 5; round++) {
        const run = (folder: string, command: string, ...args: string[]) =>
          acervusOn({ environment }, [command, folder, '--json', ...args]);
        // The draft that is there goes along, what is remembered does not.
        const other = makeSite({});
        cpSync(site, other, { recursive: true, filter: (from) => !from.endsWith('.acervus') });
        const told = `${seeds.name(seed)}, round ${round}`;
        const drafted = [await run(site, 'draft'), await run(other, 'draft', '--no-cache')] as const;
        assert.deepEqual(drafted[0].stdout, drafted[1].stdout, told);
        const hasProven = existsSync(path.join(site, '.acervus', 'cache', 'proof.json'));
        remembered += hasProven ? 1 : 0;
        // Between the draft and its adoption somebody edits.
        const name = random.pick(Object.keys(files));
        if (random.chance(60)) files[name] = edited(files[name]!, random);
        for (const folder of [site, other]) writeFileSync(path.join(folder, name), files[name]!);
        const [known, anew] = [await run(site, 'adopt'), await run(other, 'adopt', '--no-cache')];
        const said = (one: Run, folder: string): unknown[] => [
          one.code,
          one.stdout,
          one.stderr.replaceAll(folder, ''),
        ];
        assert.deepEqual(said(known, site), said(anew, other), told);
        const text = (folder: string): string[] =>
          Object.keys(files).map((file) => readFileSync(path.join(folder, file), 'utf8'));
        assert.deepEqual(text(site), text(other), told);
        if (known.code === 0) assert.equal((await run(site, 'undo')).code, 0);
      }
    }
    assert.ok(remembered > 0);
  });

test('what a draft has proven is not looked at again, and is proven anew where a sheet has changed', async () => {
  const page = htmlPage(
    '<p style="color: teal">Low</p><p style="color: teal">High</p>',
    '<link rel="stylesheet" href="theme.css">',
  );
  const site = makeSite({ 'a.html': page, 'b.html': page, 'theme.css': 'h1 { margin: 0 }' });
  const run = (...args: string[]) => acervusOn({ environment: REMEMBER }, args);
  await run('draft', site, '--json');
  const kept = readFileSync(path.join(site, '.acervus', 'cache', 'proof.json'), 'utf8');
  const other = makeSite({ 'a.html': page, 'b.html': page, 'theme.css': 'h1 { margin: 0 }' });
  cpSync(path.join(site, 'acervus-draft.yaml'), path.join(other, 'acervus-draft.yaml'));
  assert.match((await run('adopt', other, '--patch')).stdout, /^\+<p>Low/m);
  assert.ok(!existsSync(path.join(other, '.acervus')), 'a patch writes nothing');
  const adopted = JSON.parse((await run('adopt', site, '--json')).stdout);
  assert.equal(adopted.proof.pages, 2);
  assert.equal(readFileSync(path.join(site, '.acervus', 'cache', 'proof.json'), 'utf8'), kept);
  await run('undo', site);
  writeFileSync(path.join(site, 'theme.css'), 'p { color: red !important }');
  const again = JSON.parse((await run('draft', site, '--json')).stdout);
  assert.equal((await run('adopt', site, '--json')).code, 0);
  assert.match(readFileSync(path.join(site, 'a.html'), 'utf8'), /<p>Low/);
  assert.equal(again.upkeep.after, 1);
});

test('what is remembered may be broken, gone or of another site', async () => {
  const site = makeSite({});
  cpSync(DEMO, site, { recursive: true });
  const anew = await survey(site, '--no-cache');
  assert.ok(!existsSync(path.join(site, '.acervus')));
  await survey(site);
  const file = path.join(site, '.acervus', 'cache', 'survey.json');
  const kept = readFileSync(file, 'utf8');
  for (const text of ['', 'x', kept.slice(0, -40), kept.replace('pages', 'Pages'), `${kept}\n`]) {
    writeFileSync(file, text);
    assert.equal((await survey(site)).stdout, anew.stdout);
  }
  // Pages that are gone are forgotten.
  const size = statSync(file).size;
  rmSync(path.join(site, 'crew'), { recursive: true, force: true });
  rmSync(path.join(site, 'timetables'), { recursive: true, force: true });
  await survey(site);
  assert.ok(statSync(file).size < size);
});

test('a draft of files that are as they were is the one that is there', async () => {
  const page = htmlPage('<p style="color: teal">Low</p><p style="color: teal">High</p><h2>Tides</h2>');
  const site = makeSite({ 'a.html': page, 'b.html': page });
  const draft = path.join(site, 'acervus-draft.yaml');
  const first = await acervus('draft', site, '--json');
  const written = statSync(draft).mtimeMs;
  assert.equal((await acervus('draft', site, '--json')).stdout, first.stdout);
  assert.equal(statSync(draft).mtimeMs, written);
  assert.equal((await acervus('draft', site, '--json', '--no-cache')).stdout, first.stdout);
  assert.ok(statSync(draft).mtimeMs > written);
  // Asked in other words, or of other files, it is another.
  assert.notEqual((await acervus('draft', site, '--json', '--at-least', '5')).stdout, first.stdout);
  assert.equal((await acervus('draft', site, '--json')).stdout, first.stdout);
  writeFileSync(path.join(site, 'b.html'), page.replace('<h2', '<h2 style="color: teal"'));
  const changed = JSON.parse((await acervus('draft', site, '--json')).stdout);
  assert.equal(changed.upkeep.now, JSON.parse(first.stdout).upkeep.now + 1);
});

test('pages with template text in their tags, and components, are proven with all others each time', async () => {
  const link = '<link rel="stylesheet" href="theme.css">';
  const plain = htmlPage('<p style="color: teal">Low</p><p style="color: teal">High</p>', link);
  const templated = htmlPage('<p class="{{ kind }}" style="color: teal">Ebb</p>', link);
  const theme = 'h1 { margin: 0 }';
  for (const [name, more] of [
    ['late.html', templated],
    ['card.tpl', '<p style="color: teal">Tide</p>'],
  ] as const) {
    const site = makeSite({ 'a.html': plain, 'b.html': plain, [name]: more, 'theme.css': theme });
    const run = (...args: string[]) => acervusOn({ environment: REMEMBER }, args);
    const drafts = [];
    for (const flag of [[], ['--no-cache'], ['--at-least', '3'], []]) {
      const { code, stdout } = await run('draft', site, '--json', ...flag);
      assert.equal(code, 0, name);
      drafts.push(JSON.parse(stdout));
    }
    assert.deepEqual(drafts[1], drafts[0], name);
    const [known, anew] = [
      await run('adopt', site, '--patch'),
      await run('adopt', site, '--patch', '--no-cache'),
    ];
    assert.deepEqual([known.code, known.stdout], [anew.code, anew.stdout], name);
    const adopted = JSON.parse((await run('adopt', site, '--json')).stdout);
    assert.equal(adopted.proof.pages + adopted.proof.components, 3, name);
    assert.equal((await run('undo', site)).code, 0);
    assert.equal(readFileSync(path.join(site, name), 'utf8'), more);
  }
});
