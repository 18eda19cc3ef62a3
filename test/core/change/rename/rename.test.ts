import assert from 'node:assert/strict';
import { test } from 'node:test';
import { rangesOfClass } from '../../../../src/core/cascade/index.js';
import { type RenameInput, rename } from '../../../../src/core/change/rename/index.js';
import { markupTokens } from '../../../../src/core/change/rename/markup-tokens.js';
import { applyEdits } from '../../../../src/core/edit/text/index.js';
import { parsePage } from '../../../../src/core/read/markup/index.js';
import { site } from '../../../support/generate.js';
import { modelOf } from '../../../support/model.js';
import { Seeds } from '../../../support/seeds.js';

test('a selector names a class by a dot or by ~=, and by nothing else', () => {
  const renamed = (text: string): string =>
    applyEdits(
      text,
      rangesOfClass(text, 'a').map((range) => ({ ...range, text: 'z' })),
    );
  for (const [text, expected] of [
    ['.a', '.z'],
    ['p.a:hover > .b.a::before', 'p.z:hover > .b.z::before'],
    [':is(.a, .aa):not(.a)', ':is(.z, .aa):not(.z)'],
    ['[class~=a], [class~="a"]', '[class~=z], [class~="z"]'],
    ['#a, a, .b-a, .a-b, [title="a"], [class*="a"]', '#a, a, .b-a, .a-b, [title="a"], [class*="a"]'],
    ['/* .a */ .a', '/* .a */ .z'],
    [':nth-child(2 of .a)', ':nth-child(2 of .z)'],
  ] as const)
    assert.equal(renamed(text), expected);
});

test('markup carries it in class attributes of any spelling; in template text nobody is sure', () => {
  const text = `<p class="a">1</p><p CLASS='b a  c'>2</p><p class=a>3</p><p class="a z">4</p><p class="{{ x ? 'a' : 'b' }} a">5</p><p data-kind="a">6</p><p title="a" class="aa a-b">7</p><template><i class="a"></i></template>\n`;
  const page = parsePage('x.tpl', text, true);
  const { edits, inert, taken, unsure } = markupTokens(page, 'a', 'z');
  assert.equal(
    applyEdits(text, [...edits, ...inert]),
    text
      .replace('class="a">1', 'class="z">1')
      .replace("'b a  c'", "'b z  c'")
      .replace('class=a>3', 'class=z>3')
      .replace('"a z"', '" z"')
      .replace('}} a">5', '}} z">5')
      .replace('<i class="a">', '<i class="z">'),
  );
  assert.deepEqual(
    taken.map((at) => text[at]),
    ['z'],
  );
  assert.deepEqual(unsure.map(({ start, end }) => text.slice(start - 1, end + 1)).sort(), ['"a"', "'a'"]);
});

test('on random sites a class under another name changes nothing, and --merge only what is equal', () => {
  let renamed = 0;
  const seeds = new Seeds('core/change/rename/rename', 60);
  for (const seed of seeds) {
    const files = site(seed);
    const model = modelOf(files);
    const input: RenameInput = {
      model,
      themes: ['kit.css', 'more.css'].filter((path) => model.sources.sheets.has(path)),
      scripts: new Map(),
      isLibrary: () => false,
      others: new Map(),
      from: 'a',
      to: 'tide',
      merge: false,
      unsure: false,
    };
    const { differences, counts, taken } = rename(input);
    // Only selectors that read the attribute as text, and quirks mode's case, tell the names apart.
    if (!/\[class[*^$|]|\[class=|\[class\]/.test(JSON.stringify(files)))
      assert.deepEqual(
        differences.filter(({ kind }) => kind !== 'page').slice(0, 2),
        [],
        `${seeds.name(seed)}`,
      );
    assert.deepEqual(taken, []);
    renamed += counts.markup;
    const merged = rename({ ...input, to: 'b', merge: true });
    if (merged.differences.length === 0 && merged.counts.markup > 0) assert.ok(merged.edits.size > 0);
  }
  assert.ok(!seeds.areMany || renamed > 60);
});
