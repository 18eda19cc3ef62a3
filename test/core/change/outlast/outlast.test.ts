import assert from 'node:assert/strict';
import { test } from 'node:test';
import { laterModel, lookChanges, outlast, planMends } from '../../../../src/core/change/outlast/index.js';
import { findSuccessors } from '../../../../src/core/change/outlast/successors.js';
import { allRules } from '../../../../src/core/change/restyle/index.js';
import { modelOf } from '../../../support/model.js';

const PAGE = (body: string): string =>
  `<!DOCTYPE html><html><head><link rel="stylesheet" href="kit.css"><link rel="stylesheet" href="line.css"></head><body>${body}</body></html>`;

function fates(body: string, line: string, old: string, fresh: string, markup?: string): string[] {
  const model = modelOf({ 'index.html': PAGE(body), 'kit.css': old, 'line.css': line });
  const rules = allRules(model, ['line.css']);
  const pages = new Map<string, string>(markup === undefined ? [] : [['index.html', PAGE(markup)]]);
  const found = outlast({
    model,
    sheets: new Map([['kit.css', fresh]]),
    pages,
    rules,
    isPlatform: (path) => path === 'kit.css',
  });
  return found.rules.map(({ written, fate }) => {
    const likely = 'likely' in fate ? fate.likely : 'fix' in fate ? fate.fix?.selector : undefined;
    return `${written.rule.selector} ${fate.kind}${likely === undefined ? '' : ` ${likely}`}`;
  });
}

test('a class that is gone is followed to what is styled most like it', () => {
  const old =
    '.kw-badge { padding: 1px; color: red } .kw-badge.kw-full { top: 0 } .kw-old { left: 3px } .kw-same { top: 1px }';
  const fresh =
    '.kw-tag { padding: 1px; color: red } .kw-tag.kw-full { top: 0 } .kw-new { bottom: 9px } .kw-same { top: 1px }';
  assert.deepEqual(findSuccessors([old], [fresh]), [
    { old: 'kw-badge', likely: 'kw-tag' },
    { old: 'kw-old', likely: undefined },
  ]);
});

test('every fate of a rule that leans on the platform', () => {
  const body = '<p class="kw-a">1</p><p class="kw-b">2</p><p class="kw-c">3</p><p class="mine">4</p>';
  const line =
    '.kw-a { color: teal } .kw-b { color: teal } .kw-c { color: teal } .mine { top: 0 } p.kw-a { left: 0 }';
  const old = '.kw-a, .kw-b { color: red } .kw-c { color: red }';
  const fresh = '.kw-a { color: red } body .kw-b { color: red } .kw-c { color: teal }';
  assert.deepEqual(fates(body, line, old, fresh), [
    '.kw-a holds',
    '.kw-b beaten body .kw-b',
    '.kw-c not needed',
    'p.kw-a holds',
  ]);
  assert.deepEqual(fates(body, '.kw-b { color: teal }', old, '.kw-z { color: red }'), [
    '.kw-b name gone .kw-z',
  ]);
});

test('with the new markup a child that came to stand deeper is found again', () => {
  const [one] = fates(
    '<div class="kw-a"><p>x</p></div>',
    '.kw-a > p { color: teal }',
    '.kw-a { top: 0 }',
    '.kw-a { top: 1px } .kw-in { left: 0 }',
    '<div class="kw-a"><div class="kw-in"><p>x</p></div></div>',
  );
  assert.equal(one, '.kw-a > p matches nothing .kw-a p');
});

test('mends are not seen before the update; what would be is left to a person', () => {
  const line = '.kw-b { color: teal }\n.x .kw-b { color: navy }\n';
  const model = modelOf({
    'index.html': PAGE('<div class="x"><p class="kw-b">1</p></div><p class="kw-b">2</p>'),
    'kit.css': '.kw-b { color: red }',
    'line.css': line,
  });
  const sheets = new Map([['kit.css', '.kw-b.kw-b.kw-b { color: red }']]);
  const { rules } = outlast({
    model,
    sheets,
    pages: new Map(),
    rules: allRules(model, ['line.css']),
    isPlatform: (path) => path === 'kit.css',
  });
  const { mended, left } = planMends(model, rules, {
    sheets,
    pages: new Map(),
    isPlatform: (path) => path === 'kit.css',
  });
  // Alone the first would beat the second; together they keep their order.
  assert.deepEqual(
    mended.map(({ selector }) => selector),
    ['.kw-b.kw-b.kw-b', '.x .kw-b.kw-b'],
  );
  assert.deepEqual(left.length, 0);
});

test('a mend that would come to stand before `all` is seen', () => {
  const model = modelOf({
    'index.html': PAGE('<div class="kw-b">1</div><p class="kw-b">2</p>'),
    'kit.css': 'p.kw-b { all: unset }',
    'line.css': '.kw-b { opacity: 0.5 }',
  });
  const update = {
    sheets: new Map([['kit.css', 'p.kw-b { all: unset } .kw-b.kw-b { opacity: 1 }']]),
    pages: new Map<string, string>(),
    isPlatform: (path: string) => path === 'kit.css',
  };
  const { rules } = outlast({ model, rules: allRules(model, ['line.css']), ...update });
  const { mended, left } = planMends(model, rules, update);
  assert.deepEqual(mended, []);
  assert.equal(left.length, 1);
});

test('looks that change are those of elements that are the same before and after', () => {
  const model = modelOf({
    'index.html': PAGE('<h2>a</h2><p class="kw-a">x</p>'),
    'kit.css': '.kw-a { top: 0 }',
    'line.css': '',
  });
  const sheets = new Map([['kit.css', '.kw-in p { top: 1px }']]);
  const pages = new Map([['index.html', PAGE('<h2>a</h2><div class="kw-in"><p class="kw-a">x</p></div>')]]);
  const changes = lookChanges(model, laterModel(model, { sheets, pages }), pages);
  assert.deepEqual(
    changes.map((one) => (one.kind === 'style' ? [one.shown, one.property] : one.kind)),
    [['p.kw-a', 'top']],
  );
});
