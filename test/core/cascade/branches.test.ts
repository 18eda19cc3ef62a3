// What a template leaves open of the tree: which rule matches in any case, which only where a branch is taken.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { ALWAYS, compileSelectorList, NEVER, type StyleReader } from '../../../src/core/cascade/index.js';
import { modelOf } from '../../support/model.js';

/** By selector: whether the last <b> of a page matches: always, never, or perhaps. */
function matchesOf(body: string, selectors: readonly string[], file = 'a.html'): Record<string, string> {
  const model = modelOf({ [file]: `<!doctype html><body>${body}</body>` });
  const page = model.page(file)!;
  const reader = model.readersOf(page)[0] as StyleReader;
  const { index } = page.elements.findLast(({ name }) => name === 'b')!;
  return Object.fromEntries(
    selectors.map((text) => {
      const list = compileSelectorList(text);
      assert.equal(list.kind, 'list');
      const truth = list.kind === 'list' ? reader.matches(list.selectors[0]!, index) : NEVER;
      return [text, truth === ALWAYS ? 'always' : truth === NEVER ? 'never' : 'perhaps'];
    }),
  );
}

test('of a closed list of classes an element has those, and no other', () => {
  const body = `<b class="fare {% if x %}late{% endif %} {{ 'due' if y else '' }}" {% if z %}id="main"{% endif %}>`;
  assert.deepEqual(
    matchesOf(body, ['.fare', '.late', '.due', '.crew', '.fare.late', '#main', '#other', '[id]']),
    {
      '.fare': 'always',
      '.late': 'perhaps',
      '.due': 'perhaps',
      '.crew': 'never',
      '.fare.late': 'perhaps',
      '#main': 'perhaps',
      '#other': 'perhaps',
      '[id]': 'perhaps',
    },
  );
});

test('what an engine prints into a class could be any, into another attribute none', () => {
  assert.deepEqual(matchesOf('<b class="fare {{ kind }}">', ['.fare', '.crew']), {
    '.fare': 'always',
    '.crew': 'perhaps',
  });
  assert.deepEqual(matchesOf('<b class="fare" title="{{ kind }}">', ['.crew', '[title]', '[title=x]']), {
    '.crew': 'never',
    '[title]': 'perhaps',
    '[title=x]': 'perhaps',
  });
  assert.deepEqual(matchesOf('<b class="fare" {{ more }}>', ['.fare', '.crew', '[hidden]']), {
    '.fare': 'always',
    '.crew': 'perhaps',
    '[hidden]': 'perhaps',
  });
});

test('a neighbour that a branch may leave out is none for certain', () => {
  const selectors = ['i + b', 'i ~ b', 'b:first-child', 'div > b', 'u + b'];
  assert.deepEqual(matchesOf('<div>{% if x %}<i></i>{% endif %}<b>', selectors), {
    'i + b': 'perhaps',
    'i ~ b': 'perhaps',
    'b:first-child': 'perhaps',
    'div > b': 'always',
    'u + b': 'perhaps',
  });
  assert.deepEqual(matchesOf('<div><i></i><b>', selectors)['i + b'], 'always');
});

test('at the top of a part that an engine fills too', () => {
  const model = modelOf({ 'a.tpl': '{% if x %}<i></i>{% endif %}<b></b>', 'b.html': '<!doctype html>' });
  const page = model.page('a.tpl')!;
  const list = compileSelectorList('i + b');
  const truth = model
    .readersOf(page)[0]!
    .matches(list.kind === 'list' ? list.selectors[0]! : (undefined as never), 1);
  assert.notEqual(truth, ALWAYS);
});

test('what stands inside may be left out: of :has() nothing is sure', () => {
  const model = modelOf({ 'a.html': '<!doctype html><div>{% if x %}<b></b>{% endif %}</div><p><b></b></p>' });
  const page = model.page('a.html')!;
  const truthOf = (name: string) => {
    const list = compileSelectorList(`${name}:has(b)`);
    const { index } = page.elements.find((one) => one.name === name)!;
    return model
      .readersOf(page)[0]!
      .matches(list.kind === 'list' ? list.selectors[0]! : (undefined as never), index);
  };
  assert.ok(truthOf('div') !== ALWAYS && truthOf('div') !== NEVER);
  assert.equal(truthOf('p'), ALWAYS);
});

test('a tag that a branch opens is around what stands behind the branch, or not', () => {
  const body =
    '<div class="crew">{% if x %}<div class="late">{% endif %}<b></b>{% if x %}</div>{% endif %}</div>';
  assert.deepEqual(matchesOf(body, ['.late b', '.late > b', '.crew b', '.crew > b']), {
    '.late b': 'perhaps',
    '.late > b': 'perhaps',
    '.crew b': 'always',
    '.crew > b': 'perhaps',
  });
});

test('one of two tags is around: each perhaps, and neither moves what ends behind it', () => {
  const body =
    '<p class="crew">{% if x %}<span class="late">{% else %}<span class="due">{% endif %}</span></p><b></b>';
  assert.deepEqual(matchesOf(body, ['.late b', '.due b', '.crew b', 'p + b', 'body > b']), {
    '.late b': 'perhaps',
    '.due b': 'perhaps',
    '.crew b': 'perhaps',
    'p + b': 'always',
    'body > b': 'always',
  });
  const inside = '<p>{% if x %}<span class="late">{% else %}<span class="due">{% endif %}<b></b></span></p>';
  assert.deepEqual(matchesOf(inside, ['.late > b', '.due > b', '.other > b', 'p b']), {
    '.late > b': 'perhaps',
    '.due > b': 'perhaps',
    '.other > b': 'perhaps',
    'p b': 'always',
  });
});

test('where branches open tags of different names, nothing is taken from the tree behind them', () => {
  const body =
    '<div class="crew">{% if x %}<section>{% else %}<div>{% endif %}<b></b>{% if x %}</section>{% else %}</div>{% endif %}</div>';
  assert.deepEqual(matchesOf(body, ['section b', '.crew b', '.fare b', 'section > b']), {
    'section b': 'perhaps',
    '.crew b': 'perhaps',
    '.fare b': 'perhaps',
    'section > b': 'perhaps',
  });
});

test('the style of a tag in another branch is not taken for that of the first', () => {
  const model = modelOf({
    'a.html':
      '<!doctype html>{% if x %}<div class="late" style="top: 0">{% else %}<div class="due">{% endif %}</div>',
  });
  const page = model.page('a.html')!;
  const div = page.elements.find(({ name }) => name === 'div')!;
  assert.deepEqual([div.classes, div.engine?.mayHave], [[], ['late', 'due']]);
  assert.equal(page.elements.filter(({ name }) => name === 'div').length, 1);
  const reader = model.readersOf(page)[0]!;
  assert.equal(reader.outcomes(div.index).get(''), undefined, 'it may not be there');
});
