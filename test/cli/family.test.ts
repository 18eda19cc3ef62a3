import assert from 'node:assert/strict';
import { cpSync } from 'node:fs';
import { test } from 'node:test';
import { familyDocument } from '../../src/commands/family/document.js';
import { proveDocument } from '../../src/commands/prove/document.js';
import { acervus, addFiles, DEMO, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const LINK = '  <link rel="stylesheet" href="theme/line.css">\n';
const TABLE = `format: 1
family: harbour
into: theme/line.css
each: section
where: .sk-{row}
rows:
  tarbek: { ink: '#8a3b12', gap: 4px }
  ulvay: { ink: '#2e6b5e', gap: 6px }
rules:
  h3: { color: '{ink}' }
  '& > p': { border-left: '{gap} solid {ink}' }
off: '(max-width: 700px)'
`;

function site(table = TABLE): string {
  const page = (name: string): string =>
    htmlPage('<h3>A</h3>\n<p>B</p>\n<p>C</p>\n<p>D</p>', LINK).replace('<body>', `<body class="sk-${name}">`);
  return makeSite({
    'tarbek.html': page('tarbek'),
    'ulvay.html': page('ulvay'),
    'holm.html': page('holm'),
    'theme/line.css': 'h3 { margin: 0; }\n',
    'harbour.family.yaml': table,
  });
}

const run = async (folder: string, ...args: readonly string[]) => {
  const done = await acervus('family', ...args, folder, '--json');
  return { code: done.code, told: familyDocument.parse(JSON.parse(done.stdout)) };
};

test('a table becomes plain CSS: each row sets its values, every rule is written once', async () => {
  const folder = site();
  const { code, told } = await run(folder, 'harbour.family.yaml');
  assert.equal(code, 0);
  assert.equal(
    read(folder, 'theme/line.css').replace(/end of family harbour: [\da-f ]+(?= \*)/, 'end'),
    `h3 { margin: 0; }

/* family harbour: made from harbour.family.yaml; change that and run "acervus family harbour.family.yaml" */

.sk-tarbek {
  --harbour-ink: #8a3b12;
  --harbour-gap: 4px;
}

.sk-ulvay {
  --harbour-ink: #2e6b5e;
  --harbour-gap: 6px;
}

@media not all and (max-width: 700px) {
  :is(.sk-tarbek, .sk-ulvay) h3 {
    color: var(--harbour-ink);
  }
}

@media not all and (max-width: 700px) {
  :is(.sk-tarbek, .sk-ulvay) > p {
    border-left: var(--harbour-gap) solid var(--harbour-ink);
  }
}

/* end */
`,
  );
  assert.deepEqual(
    told.moved.pages.map(({ path }) => path),
    ['tarbek.html', 'ulvay.html'],
  );
  assert.equal(told.strays, 0);
});

test('a row more updates the generated rules only; what a hand changed is noticed and left', async () => {
  const folder = site(TABLE.replace(/off:.*\n/, ''));
  await run(folder, 'harbour.family.yaml');
  const first = read(folder, 'theme/line.css');
  assert.deepEqual((await run(folder, 'harbour.family.yaml')).told.files, []);
  assert.equal(read(folder, 'theme/line.css'), first);
  addFiles(folder, {
    'harbour.family.yaml': read(folder, 'harbour.family.yaml').replace(
      'rules:',
      "  holm: { ink: '#1f3a56', gap: 1px }\nrules:",
    ),
    'theme/line.css': first
      .replace('var(--harbour-gap) solid', 'var(--harbour-gap) dotted')
      .replace('/* end', '.mine { top: 0; }\n\n/* end'),
  });
  const { code, told } = await run(folder, 'harbour.family.yaml');
  assert.equal(code, 1);
  const [family] = told.families;
  assert.deepEqual(
    family?.byHand.map(({ what, selector }) => [what, selector]),
    [
      ['changed', ':is(.sk-tarbek, .sk-ulvay) > p'],
      ['added', '.mine'],
    ],
  );
  const text = read(folder, 'theme/line.css');
  assert.match(text, /:is\(\.sk-tarbek, \.sk-ulvay, \.sk-holm\) h3 \{/);
  assert.match(text, /:is\(\.sk-tarbek, \.sk-ulvay\) > p \{\n {2}border-left: var\(--harbour-gap\) dotted/);
  assert.match(text, /\.mine \{ top: 0; \}/);
  assert.deepEqual([family?.same, family?.rules.length], [2, 2]);
  assert.equal((await run(folder, 'harbour.family.yaml')).told.families[0]?.byHand.length, 2);
});

test('positions take turns or are named, and states are rows too', async () => {
  const folder = site(`format: 1
family: stripe
each: position
where: body > p
rows:
  odd: { ground: '#f6efe0' }
  last: { ground: '#ffffff' }
rules:
  '&': { background-color: '{ground}' }
into: theme/line.css
`);
  const { told } = await run(folder, 'harbour.family.yaml');
  assert.deepEqual(
    told.families[0]?.rules.map(({ selector }) => selector),
    ['body > p:nth-child(odd)', 'body > p:last-child', 'body > p:is(:nth-child(odd), :last-child)'],
  );
  const turns = site(
    TABLE.replace('section', 'position').replace('.sk-{row}', 'p').replace("  h3: { color: '{ink}' }\n", ''),
  );
  assert.deepEqual(
    (await run(turns, 'harbour.family.yaml')).told.families[0]?.rules.map(({ selector }) => selector),
    ['p:nth-child(2n+1)', 'p:nth-child(2n+2)', 'p:is(:nth-child(2n+1), :nth-child(2n+2)) > p'],
  );
  const states = site(TABLE.replace('section', 'state').replace('.sk-{row}', '.berth.is-{row}'));
  assert.deepEqual(
    (await run(states, 'harbour.family.yaml')).told.families[0]?.rules.at(-1)?.selector,
    '.berth:is(.is-tarbek, .is-ulvay) > p',
  );
  assert.deepEqual((await run(states, 'harbour.family.yaml')).told.families[0]?.empty, ['tarbek', 'ulvay']);
});

test('--find puts a table in the place of rules that were copied by hand, and nothing looks different', async () => {
  const folder = makeSite({});
  cpSync(DEMO, folder, { recursive: true });
  const { told } = await run(folder, '--find');
  assert.deepEqual(
    told.families.map(({ name, table, rows, places }) => [name, table, rows.length, places]),
    [['harbours', 'theme/harbours.family.yaml', 6, { before: 18, after: 9 }]],
  );
  const proof = proveDocument.parse(
    JSON.parse((await acervus('prove', folder, '--against', DEMO, '--json')).stdout),
  );
  assert.deepEqual(
    proof.differences.filter(({ page }) => page.endsWith('.html')),
    [],
  );
  assert.deepEqual((await run(folder, 'theme/harbours.family.yaml')).told.files, []);
  assert.deepEqual((await run(folder, '--find')).told.families, []);
  assert.equal((await acervus('undo', folder)).code, 0);
  assert.deepEqual([...snapshot(folder).keys()].sort(), [...snapshot(DEMO).keys()].sort());
});

test('a table with a slip gets one line that names the key', async () => {
  const folder = site();
  for (const [text, message] of [
    ['format: 2\n', /harbour\.family\.yaml: format: /],
    [TABLE.replace('each: section', 'each: page'), /harbour\.family\.yaml: each: /],
    [TABLE.replace('{ink}', '{inc}'), /rules: h3: color: \{inc\} is a value of no row/],
    [TABLE.replace('.sk-{row}', '.sk'), /where: "\.sk" has no \{row\} in it/],
    [TABLE.replace("'#8a3b12'", "'red; } body { x'"), /rows\.tarbek\.ink: expected one whole value of CSS/],
    [TABLE.replace('theme/line.css', '../x.css'), /into: leads out of the site/],
    ['a: [', /harbour\.family\.yaml: is neither YAML nor JSON/],
  ] as const) {
    addFiles(folder, { 'harbour.family.yaml': text });
    const wrong = await acervus('family', 'harbour.family.yaml', folder);
    assert.equal(wrong.code, 2, text);
    assert.match(wrong.stderr, message);
    assert.equal(wrong.stderr.trim().split('\n').length, 1);
  }
});
