// Values by name: listed, out to design tokens, and in from them.

import assert from 'node:assert/strict';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { valuesDocument } from '../../src/commands/values/document.js';
import { acervus, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const LINK = '<link rel="stylesheet" href="line.css">';
const SHEET = `:root {
  --tide: #1f3a56; /* the sea at noon */
  --quay: var(--tide);
  --gap: 12px;
  --lead: 1.6;
  --face: "Tern Sans", Georgia, serif;
  --lift: 0 1px 3px rgba(0, 0, 0, 0.5);
  --slow: 250ms;
  --em: 2em;
}
@media (prefers-color-scheme: dark) { :root { --tide: #9fc3dd; } }
.night { --tide: #000000; }
h1 { color: var(--tide); font-size: 20px; line-height: var(--lead); }
p { color: #1F3A56; box-shadow: 0 0 2px red; transition-duration: 250ms; }
`;
const FILES = {
  'index.html': htmlPage('<h1 style="font-weight: 700">x</h1><p class="night">y</p>', LINK),
  'line.css': SHEET,
};

async function values(...words: readonly string[]) {
  const { code, stdout, stderr } = await acervus('values', ...words, '--json');
  assert.notEqual(stdout, '', stderr);
  return { code, document: valuesDocument.parse(JSON.parse(stdout)) };
}

test('values with a name and without, by kind, with their uses and sets', async () => {
  const { document } = await values(makeSite(FILES));
  assert.deepEqual(
    document.named.map(({ name, kind, uses }) => [name, kind, uses]),
    [
      ['--tide', 'color', 2],
      ['--quay', undefined, 0],
      ['--gap', 'dimension', 0],
      ['--lead', 'lineHeight', 1],
      ['--face', 'fontFamily', 0],
      ['--lift', 'shadow', 0],
      ['--slow', 'duration', 0],
      ['--em', 'dimension', 0],
    ],
  );
  assert.deepEqual(
    document.named[0]?.sets.map(({ where, value }) => [where, value]),
    [
      ['dark', '#9fc3dd'],
      ['.night', '#000000'],
    ],
  );
  const bare = document.unnamed.map(({ kind, value, times, named }) => [kind, value, times, named]);
  assert.deepEqual(bare.filter(([kind]) => kind === 'color')[0], ['color', '#1F3A56', 1, '--tide']);
  assert.deepEqual(bare.filter(([kind]) => kind === 'duration')[0], ['duration', '250ms', 1, '--slow']);
  assert.deepEqual(bare.filter(([kind]) => kind === 'fontWeight')[0], ['fontWeight', '700', 1, undefined]);
});

test('a value that is nearly another in much wider use is told beside it', async () => {
  const rows = Array.from({ length: 12 }, () => '<p style="color: #1f3a56; padding: 8px">x</p>').join('');
  const site = makeSite({
    'index.html': htmlPage(`${rows}<p style="color: #1f3a57; padding: 9px">y</p>`, LINK),
    'line.css': 'h1 { color: #ff0000; }',
  });
  const { document } = await values(site);
  assert.deepEqual(
    document.near.map(({ from, to, times, toTimes }) => [from, to, times, toTimes]),
    [
      ['#1f3a57', '#1f3a56', 1, 12],
      ['padding: 9px', 'padding: 8px', 1, 12],
    ],
  );
  const { stdout } = await acervus('values', site, '--pairs');
  assert.match(stdout, /1 \? {1,2}\S*#1f3a57 is nearly \S*#1f3a56 {2}written 12 times/);
  assert.doesNotMatch(stdout, /padding/);
});

test('out as design tokens and in again says the same; what the format cannot say is told', async () => {
  const site = makeSite(FILES);
  const file = path.join(makeSite({}), 'tokens.json');
  const { document } = await values(site, '--out', file);
  assert.deepEqual(document.out, { file, tokens: 7, left: ['--em'] });
  type Token = { $value: unknown; $extensions: { acervus: unknown } };
  const tokens = JSON.parse(readFileSync(file, 'utf8')) as Record<string, Record<string, Token>>;
  assert.equal(tokens.color?.$type as unknown, 'color');
  assert.deepEqual(tokens.color?.tide, {
    $value: { colorSpace: 'srgb', components: [0.1216, 0.2275, 0.3373], hex: '#1f3a56' },
    $description: 'the sea at noon',
    $extensions: {
      acervus: { property: '--tide', key: 'tide', sets: { dark: '#9fc3dd', '.night': '#000000' } },
    },
  });
  assert.equal(tokens.color?.quay?.$value, '{color.tide}');
  assert.deepEqual(tokens['font-family']?.face?.$value, ['Tern Sans', 'Georgia', 'serif']);
  assert.deepEqual(tokens.duration?.slow?.$value, { value: 250, unit: 'ms' });
  const before = snapshot(site);
  const back = await values(site, '--in', file);
  assert.equal(back.code, 0);
  const changed = back.document.in?.changes.map(({ property }) => property) ?? [];
  assert.deepEqual(
    changed.filter((name) => name !== '--lift' && name !== '--face'),
    [],
  );
  await acervus('undo', site);
  const after = snapshot(site);
  for (const [name, bytes] of before) assert.equal(after.get(name), bytes, name);
});

test('a value that changes tells its reach, a new one is written among the values, and undo puts all back', async () => {
  const site = makeSite(FILES);
  const file = path.join(makeSite({}), 'tokens.json');
  const tokens = {
    color: {
      $type: 'color',
      tide: { $value: '#204060', $extensions: { acervus: { property: '--tide' } } },
      sand: {
        pale: { $value: { colorSpace: 'srgb', components: [1, 1, 0], alpha: 0.5 } },
        dark: { $value: '{color.tide}' },
      },
    },
  };
  writeFileSync(file, JSON.stringify(tokens));
  const patch = await acervus('values', site, '--in', file, '--patch');
  assert.match(patch.stdout, /^\+ {2}--tide: #204060; \/\* the sea at noon \*\//m);
  assert.equal(read(site, 'line.css'), SHEET);
  const { code, document } = await values(site, '--in', file);
  assert.equal(code, 0);
  assert.deepEqual(
    document.in?.changes.map(({ property, before, after }) => [property, before, after]),
    [
      ['--tide', '#1f3a56', '#204060'],
      ['--color-sand-pale', undefined, 'rgba(255, 255, 0, 0.5)'],
      ['--color-sand-dark', undefined, 'var(--tide)'],
    ],
  );
  assert.ok((document.in?.changes[0]?.elements ?? 0) >= 2);
  assert.match(read(site, 'line.css'), /--color-sand-pale: rgba\(255, 255, 0, 0\.5\);/);
  assert.match(
    read(site, 'line.css'),
    /@media \(prefers-color-scheme: dark\) \{ :root \{ --tide: #9fc3dd; \} \}/,
  );
  await acervus('undo', site);
  assert.equal(read(site, 'line.css'), SHEET);
});

test('files that hold no tokens, or would be written over, are one line', async () => {
  const site = makeSite(FILES);
  const folder = makeSite({ 'mine.txt': 'mine' });
  const at = (name: string): string => path.join(folder, name);
  for (const [text, why] of [
    ['{', 'JSON'],
    ['[]', 'no group'],
    ['{"a": 3}', 'neither a token nor a group'],
    ['{"a;b": {"$type": "color", "$value": "#fff"}}', 'no name'],
    ['{"a": {"$type": "color", "$value": "url(x)"}}', 'is no color'],
    ['{"a": {"$type": "color", "$value": "{b}"}}', 'there is no b'],
    [
      '{"a": {"$type": "fontFamily", "$value": "x", "$extensions": {"acervus": {"property": "--a: 0} body{"}}}}',
      'property',
    ],
  ] as const) {
    writeFileSync(at('tokens.json'), text);
    const { code, stderr } = await acervus('values', site, '--in', at('tokens.json'));
    assert.equal(code, 2, text);
    assert.match(stderr, new RegExp(`is no file of design tokens \\(.*${why}`), text);
  }
  assert.equal((await acervus('values', site, '--out', at('mine.txt'))).code, 2);
  assert.equal(readFileSync(at('mine.txt'), 'utf8'), 'mine');
  assert.equal((await acervus('values', site, '--out', at('no/such.json'))).code, 2);
  assert.equal(existsSync(at('no')), false);
  assert.equal(read(site, 'line.css'), SHEET);
});

/** A token file with one colour. */
function tokenFile(folder: string, value: string, sets: Record<string, string>, property = '--tide'): string {
  const file = path.join(folder, 'tokens.json');
  const token = { $value: value, $extensions: { acervus: { property, sets } } };
  writeFileSync(file, JSON.stringify({ color: { $type: 'color', tide: token } }));
  return file;
}

test('a set that is there says something else where it stands, and a new one stands behind the rule it is of', async () => {
  const site = makeSite(FILES);
  const file = tokenFile(makeSite({}), '#1f3a56', {
    dark: '#abcdef',
    '.night': '#000000',
    '@media print': '#000',
    '.fog p': '#777777',
  });
  const { code, document } = await values(site, '--in', file);
  assert.equal(code, 0);
  assert.deepEqual(
    document.in?.changes.map(({ property, where, before, after }) => [property, where, before, after]),
    [
      ['--tide', 'dark', '#9fc3dd', '#abcdef'],
      ['--tide', '@media print', undefined, '#000'],
      ['--tide', '.fog p', undefined, '#777777'],
    ],
  );
  const sheet = read(site, 'line.css');
  assert.match(sheet, /@media \(prefers-color-scheme: dark\) \{ :root \{ --tide: #abcdef; \} \}/);
  assert.match(
    sheet,
    /--em: 2em;\n\}\n\n@media print \{\n {2}:root \{\n {4}--tide: #000;\n {2}\}\n\}\n\n\.fog p \{\n {2}--tide: #777777;\n\}\n@media/,
  );
  const again = await values(site, '--in', file);
  assert.deepEqual([again.document.in?.changes, again.document.written], [[], false]);
  const out = path.join(makeSite({}), 'out.json');
  await values(site, '--out', out);
  assert.deepEqual((await values(site, '--in', out)).document.in?.changes, []);
});

test('a new value brings its sets, and two schemes are one where the house says them so', async () => {
  const site = makeSite(FILES);
  const file = tokenFile(makeSite({}), '#101010', { dark: '#eeeeee', '.fog': '#777777' }, '--ink');
  assert.equal((await values(site, '--in', file)).code, 0);
  assert.match(
    read(site, 'line.css'),
    /--ink: #101010;.*prefers-color-scheme: dark\) \{\s*:root \{\s*--ink: #eeeeee;/s,
  );
  assert.match(read(site, 'line.css'), /\.fog \{\s*--ink: #777777;/);
  const house = makeSite({
    ...FILES,
    'line.css': ':root { --sand: light-dark(#fff, #222); --sea: #00f; }\n',
  });
  assert.equal(
    (await values(house, '--in', tokenFile(makeSite({}), '#00f', { dark: '#99f' }, '--sea'))).code,
    0,
  );
  assert.match(read(house, 'line.css'), /--sea: light-dark\(#00f, #99f\); \}\n$/);
});

/** A site whose tokens are written out, and the file with another key for one of them. */
async function renamedTokens(files: Record<string, string>, from: string, to: string) {
  const site = makeSite(files);
  const file = path.join(makeSite({}), 'tokens.json');
  await values(site, '--out', file);
  writeFileSync(
    file,
    readFileSync(file, 'utf8').replace(`"${from}": {`, `"${to}": {`).replaceAll(`.${from}}`, `.${to}}`),
  );
  return { site, file };
}

test('another key gives the property another name: in sheets, blocks, attributes and scripts, and nothing looks otherwise', async () => {
  const page = htmlPage(
    '<p style="--tide: red; color: var( --tide )">--tide</p><svg fill="var(--tide)"></svg><p style="color: var(--tide-dark)">x</p>',
    `${LINK}<style>.a { border-color: var(--tide, "--tide"); } @supports (color: var(--tide)) { p { top: 0 } }</style>
<script>el.style.setProperty('--tide', 'red'); el.style.color = "var(--tide)";</script>`,
  );
  const { site, file } = await renamedTokens({ ...FILES, 'index.html': page }, 'tide', 'ocean');
  const before = snapshot(site);
  const { code, document } = await values(site, '--in', file);
  assert.equal(code, 0, JSON.stringify(document.in));
  assert.deepEqual(document.in?.renamed, [{ from: '--tide', to: '--ocean', places: 12 }]);
  assert.deepEqual(
    document.in?.changes.filter(({ property }) => property === '--ocean' || property === '--quay'),
    [],
  );
  assert.equal(
    read(site, 'index.html'),
    page
      .replace('style="--tide: red; color: var( --tide )"', 'style="--ocean: red; color: var( --ocean )"')
      .replace('fill="var(--tide)"', 'fill="var(--ocean)"')
      .replace('var(--tide, "--tide")', 'var(--ocean, "--tide")')
      .replace('(color: var(--tide))', '(color: var(--ocean))')
      .replace("setProperty('--tide'", "setProperty('--ocean'")
      .replace('"var(--tide)"', '"var(--ocean)"'),
  );
  assert.match(read(site, 'line.css'), /--ocean: #1f3a56; \/\* the sea at noon.*--quay: var\(--ocean\);/s);
  // The file says what is there now.
  const again = await values(site, '--in', file);
  assert.deepEqual([again.code, again.document.in?.renamed, again.document.written], [0, [], false]);
  await acervus('undo', site);
  assert.deepEqual(snapshot(site), before);
});

test('a name and its value change in one step', async () => {
  const { site, file } = await renamedTokens(FILES, 'tide', 'ocean');
  writeFileSync(
    file,
    readFileSync(file, 'utf8')
      .replace('"hex": "#1f3a56"', '"hex": "#1f3a57"')
      .replace('"#9fc3dd"', '"var(--tide-light, #9fc3de)"'),
  );
  const { code, document } = await values(site, '--in', file);
  assert.equal(code, 0, JSON.stringify(document.in));
  assert.deepEqual(
    document.in?.changes.flatMap(({ property, where, after, elements }) =>
      property === '--ocean' ? [[where, after, elements > 0]] : [],
    ),
    [
      ['dark', 'var(--tide-light, #9fc3de)', true],
      [undefined, '#1f3a57', true],
    ],
  );
  assert.match(read(site, 'line.css'), /--ocean: #1f3a57; \/\* the sea at noon/);
});

test('a name that something else speaks of, or that is taken, stays, and the place is told', async () => {
  const cases: readonly (readonly [Record<string, string>, RegExp])[] = [
    [
      { ...FILES, 'index.html': htmlPage('<script>go("--tide")</script>', LINK) },
      /script at index\.html:\d|index\.html:\d+:\d+ speaks of it outside a style/,
    ],
    [
      { ...FILES, 'index.html': htmlPage('<p data-with="--tide">x</p>', LINK) },
      /index\.html:\d+:\d+ speaks of it outside a style/,
    ],
    [
      { ...FILES, 'index.html': htmlPage('<p style="--ocean: 1">x</p>', LINK) },
      /--ocean stands in index\.html:\d+:\d+ already/,
    ],
    [
      {
        ...FILES,
        'platform.min.css': 'a { color: var(--tide); }',
        'index.html': htmlPage('<p>x</p>', `<link rel="stylesheet" href="platform.min.css">${LINK}`),
      },
      /platform\.min\.css:1:\d+ speaks of it, and may not be written/,
    ],
    [{ ...FILES, 'more.json': '{"colour": "--tide"}' }, /more\.json:1:\d+ speaks of it, and is not read/],
  ];
  for (const [files, why] of cases) {
    const { site, file } = await renamedTokens(files, 'tide', 'ocean');
    const before = snapshot(site);
    const { code, document } = await values(site, '--in', file);
    assert.equal(code, 1, String(why));
    assert.match(document.in?.refused.map((one) => one.why).join('\n') ?? '', why);
    assert.deepEqual(document.in?.renamed, []);
    assert.deepEqual(snapshot(site), before);
  }
});

test('a set that is no value, or stands nowhere, is one line', async () => {
  const site = makeSite(FILES);
  const before = snapshot(site);
  for (const sets of [{ dark: 'red; } b {' }, { '} b {': 'red' }, { '@import "x"': 'red' }, { dark: '' }]) {
    const { code, stderr } = await acervus('values', site, '--in', tokenFile(makeSite({}), '#1f3a56', sets));
    assert.equal(code, 2, JSON.stringify(sets));
    assert.match(stderr, /^acervus: [^\n]*is no file of design tokens[^\n]*\n$/);
  }
  assert.deepEqual(snapshot(site), before);
});
