import assert from 'node:assert/strict';
import { test } from 'node:test';
import { explainDocument } from '../../src/commands/explain/document.js';
import { acervus, DEMO, htmlPage, makeSite, read } from '../support/site.js';

const SHEETS =
  '  <link rel="stylesheet" href="platform/kit.css">\n  <link rel="stylesheet" href="theme/line.css">\n';

function site(): string {
  return makeSite({
    'index.html': htmlPage(
      '<div class="kw-box" id="top">\n  <a class="kw-go" href="#x" style="top: 2px">Go</a>\n  <a class="kw-go ab3c4d" href="#y">On</a>\n</div>',
      SHEETS,
    ),
    'crew.html': htmlPage('<a class="kw-go" href="#z">Crew</a>', SHEETS),
    'platform/kit.css':
      '.kw-box { color: navy; --tide: teal; }\n.kw-box .kw-go { color: var(--tide); padding: 4px 8px; }\n.kw-go:hover { color: red; }\n@media (max-width: 700px) { .kw-box .kw-go.kw-go { padding: 2px; } }\n',
    'theme/line.css': '.kw-go { color: green; text-transform: uppercase; }\n',
  });
}

const explained = async (...args: readonly string[]) =>
  explainDocument.parse(JSON.parse((await acervus('explain', ...args, '--json')).stdout));

test('each property is told with its winner, what it beat, and why', async () => {
  const told = await explained('index.html', '.kw-go', site());
  assert.equal(told.matching, 2);
  assert.equal(told.shown, 'a.kw-go');
  const [own] = told.targets;
  const colour = own?.properties.find(({ name }) => name === 'color')?.declarations;
  assert.deepEqual(
    colour?.map(({ value, selector, whose, specificity, when, beaten }) => [
      ...[value, selector, whose, specificity?.join(), when, beaten?.why],
    ]),
    [
      ['red', '.kw-go:hover', 'platform', '0,2,0', ':hover', undefined],
      ['var(--tide)', '.kw-box .kw-go', 'platform', '0,2,0', '', undefined],
      ['green', '.kw-go', 'theme', '0,1,0', '', '0,1,0 is less than 0,2,0'],
    ],
  );
  assert.deepEqual(
    told.customProperties.map(({ name, from }) => [name, from]),
    [['--tide', 'div#top.kw-box']],
  );
  assert.deepEqual(
    told.idle.map(({ declaration, why }) => [declaration.property, declaration.whose, why]),
    [['top', 'style attribute', 'the element is not positioned']],
  );
  assert.equal(told.site.selector, '.kw-go');
  assert.deepEqual([told.site.pages, told.site.of], [2, 2]);
});

test('a state and a width settle what is open', async () => {
  const folder = site();
  assert.equal((await explained('index.html', '12:3', folder)).shown, 'a.kw-go.ab3c4d');
  const at = async (...options: readonly string[]): Promise<(string | undefined)[]> => {
    const own = (await explained('index.html', '.kw-go', folder, ...options)).targets[0]!;
    return ['color', 'padding'].map((name) =>
      own.properties
        .find((one) => one.name === name)
        ?.declarations.filter(({ beaten }) => beaten === undefined)
        .map(({ value, when }) => `${value}${when}`)
        .join(' then '),
    );
  };
  assert.deepEqual(await at('--state', 'hover', '--width', '600'), ['red', '2px']);
  assert.deepEqual(await at('--state', 'focus', '--width', '900'), ['var(--tide)', '4px 8px']);
});

test('selectors pick out what they say, and a name made by a program is warned of', async () => {
  const folder = site();
  const told = await explained('index.html', 'a.ab3c4d', folder);
  assert.deepEqual(told.selectors.generated, ['ab3c4d']);
  assert.equal(told.selectors.alone?.elements, 1);
  assert.doesNotMatch(told.selectors.alone?.selector ?? '', /ab3c4d/);
  const [change] = (await explained('index.html', 'a.ab3c4d', folder, '--property', 'color')).toChange;
  assert.match(change?.beat ?? '', /color: red of \.kw-go:hover \(0,2,0\)/);
  assert.equal(change?.important, false);
});

test('the demo reads well, and mistakes get one line', async () => {
  const run = await acervus('explain', 'harbours/west/holm.html', '.kw-num', DEMO);
  assert.equal(run.code, 0);
  assert.match(run.stdout, / {2}style = padding: 6px 10px/);
  assert.match(run.stdout, /a style attribute is stronger than any/);
  assert.match(run.stdout, /next {2}acervus reach '\.kw-num'/);
  for (const [args, message] of [
    [['nowhere.html', 'p', DEMO], /nowhere\.html: is no page of .*; name one of its 34 pages/],
    [['index.html', '.nobody', DEMO], /\.nobody: picks out nothing on index\.html/],
    [['index.html', '..', DEMO], /\.\.: is no selector/],
    [['index.html', 'p', DEMO, '--width', 'wide'], /--width wide: is no width/],
  ] as const) {
    const wrong = await acervus('explain', ...args);
    assert.equal(wrong.code, 2);
    assert.match(wrong.stderr, message);
    assert.equal(wrong.stderr.trim().split('\n').length, 1);
  }
});

test('what holds only where something stronger does is beaten, as the proof says', async () => {
  const folder = makeSite({
    'index.html': htmlPage('<p id="x">Tide</p>', '  <link rel="stylesheet" href="line.css">\n'),
    'line.css': '@media print { #x { color: red } p:hover { color: blue } }\n',
  });
  const [own] = (await explained('index.html', '#x', folder)).targets;
  const colour = own?.properties.find(({ name }) => name === 'color')?.declarations;
  assert.deepEqual(
    colour?.map(({ value, beaten }) => [value, beaten?.why]),
    [
      ['red', undefined],
      ['blue', '0,1,1 is less than 1,0,0'],
    ],
  );
  const before = makeSite({
    'index.html': read(folder, 'index.html'),
    'line.css': '@media print { #x { color: red } p:hover { } }\n',
  });
  assert.equal((await acervus('prove', folder, '--against', before)).code, 0);
});
