import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  ALWAYS,
  compileBlock,
  compileSelectorList,
  OutcomeTable,
  type TrialRule,
  TruthTable,
} from '../../../src/core/cascade/index.js';
import { parseDeclarations } from '../../../src/core/read/sheets/index.js';
import { Random } from '../../support/generate.js';
import { modelOf } from '../../support/model.js';
import { Seeds } from '../../support/seeds.js';
import { htmlPage } from '../../support/site.js';

const table = (): OutcomeTable => new OutcomeTable(new TruthTable());

const RULES = [
  'p { color: red }',
  '.a { color: lime; margin: 0 }',
  'p:hover { color: blue }',
  '@media print { .a { margin: 1px } }',
  '#x { color: teal }',
  'p { margin: 2px !important }',
  '* { padding: 3px }',
  '.a.b { padding-left: 4px }',
  'p::before { color: red }',
  '.b { margin-inline-start: 5px }',
];
const SELECTORS = ['p', '.a', 'p.b', ':where(p)', '.a.a', '#x', 'body p'];
const DECLARATIONS = [
  'color: red',
  'margin: 0',
  'padding: 3px; color: blue',
  'margin-left: 2px',
  'color: teal !important',
];

test('a rule that is tried has the outcome of the rule that is written', () => {
  const seeds = new Seeds('core/cascade/trial', 150);
  for (const seed of seeds) {
    const random = new Random(seed);
    const css = random.times(1, 6, () => random.pick(RULES)).join('\n');
    const selector = random.pick(SELECTORS);
    const declarations = random.pick(DECLARATIONS);
    const own = random.chance(50) ? ' style="color: olive; padding: 1px"' : '';
    const body = `<p class="a b" id="x"${own}>x</p>`;
    const files = (sheet: string): Record<string, string> => ({
      'index.html': htmlPage(body, '<link rel="stylesheet" href="a.css">'),
      'a.css': sheet,
    });
    const shared = table();
    const before = modelOf(files(css), shared);
    const after = modelOf(files(`${css}\n${selector} { ${declarations} }`), shared);
    const index = before.page('index.html')!.elements.findIndex(({ name }) => name === 'p');
    const [reader] = before.readersOf(before.page('index.html')!);
    const [later] = after.readersOf(after.page('index.html')!);
    const list = compileSelectorList(selector);
    assert.equal(list.kind, 'list');
    const trial: TrialRule = {
      key: `${selector}{${declarations}}`,
      block: compileBlock(parseDeclarations(declarations).declarations, 'a.css', shared.truths),
      specificity: list.kind === 'list' ? list.selectors[0]!.specificity : 0,
      order: 1,
      writtenIn: { kind: 'trial rule' },
    };
    assert.equal(
      reader!.trialNumber(reader!.matchedSheets(index), reader!.ownStyling(index), [trial]),
      later!.outcomeNumber(index),
      `${seeds.name(seed)}: ${css}\n${trial.key}`,
    );
  }
});

test('an element without its style has the outcome of the element that has none', () => {
  const shared = table();
  const model = (body: string): ReturnType<typeof modelOf> =>
    modelOf({ 'index.html': htmlPage(body, '<style>p { color: red } p:hover { top: 0 }</style>') }, shared);
  const [before, after] = [model('<p style="color: blue">x'), model('<p>x')];
  const index = before.page('index.html')!.elements.findIndex(({ name }) => name === 'p');
  const [reader] = before.readersOf(before.page('index.html')!);
  const [later] = after.readersOf(after.page('index.html')!);
  const bare = reader!.trialNumber(reader!.matchedSheets(index), { style: undefined, hints: [] }, []);
  assert.equal(bare, later!.outcomeNumber(index));
  assert.notEqual(bare, reader!.outcomeNumber(index));
});

test('of two rules that are tried the stronger wins, then the later', () => {
  const shared = table();
  const model = modelOf({ 'index.html': htmlPage('<p>x') }, shared);
  const page = model.page('index.html')!;
  const index = page.elements.findIndex(({ name }) => name === 'p');
  const [reader] = model.readersOf(page);
  const rule = (css: string, specificity: number, order: number): TrialRule => ({
    key: `${css} ${specificity} ${order}`,
    block: compileBlock(parseDeclarations(css).declarations, 'a.css', shared.truths),
    specificity,
    order,
    writtenIn: { kind: 'trial rule' },
  });
  const number = (...rules: TrialRule[]): number =>
    reader!.trialNumber(reader!.matchedSheets(index), reader!.ownStyling(index), rules);
  const [red, blue] = [number(rule('color: red', 1, 1)), number(rule('color: blue', 1, 1))];
  assert.equal(number(rule('color: red', 1, 1), rule('color: blue', 1, 2)), blue);
  assert.equal(number(rule('color: red', 2, 1), rule('color: blue', 1, 2)), red);
  assert.equal(number(rule('color: red', 2, 2), rule('color: blue', 1, 1)), red);
});

test('a selector that no sheet holds can be asked', () => {
  const model = modelOf({ 'index.html': htmlPage('<div class="m"><p>a<p>b</div><p>c') });
  const page = model.page('index.html')!;
  const [reader] = model.readersOf(page);
  const matching = (text: string): number => {
    const list = compileSelectorList(text);
    if (list.kind === 'invalid') return -1;
    return page.elements.filter(({ index }) => reader!.matches(list.selectors[0]!, index) === ALWAYS).length;
  };
  assert.equal(matching('.m p'), 2);
  assert.equal(matching('p:first-child'), 1);
  assert.equal(matching('p'), 3);
});
