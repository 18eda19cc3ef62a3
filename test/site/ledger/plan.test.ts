import assert from 'node:assert/strict';
import path from 'node:path';
import { test } from 'node:test';
import type { AdoptionReport } from '../../../src/core/edit/draft/index.js';
import { openFolder } from '../../../src/site/files/files.js';
import { findPlan, noteReadings, savePlan } from '../../../src/site/ledger/plan.js';
import { addFiles, makeSite, read } from '../../support/site.js';

const report: AdoptionReport = {
  shared: 'shared.css',
  upkeep: { now: 2, after: 1 },
  held: { tags: { now: 2, after: 0 }, blocks: { now: 0, after: 0 }, sheets: { now: 0, after: 1 } },
  stylesFromSelf: { now: 0, after: 1 },
  size: { now: 20, after: 10 },
  styles: [],
  mixins: [],
  codeBlocks: [],
  tokens: [],
  changed: { elements: 0, pages: 0 },
  gone: [],
  kept: [],
  proof: { pages: 1, components: 0, elements: 3, assumptions: [] },
};
const plain = { name: 'utf-8', mark: false };

/** A site with a plan for its only page and a new sheet. */
function planned(): string {
  const root = makeSite({ 'index.html': 'abc', 'acervus-draft.yaml': 'draft' });
  const files = noteReadings(openFolder(root));
  files.read('index.html');
  files.read('shared.css');
  savePlan(
    root,
    'draft',
    files,
    [
      { path: 'index.html', text: 'abc', encoding: plain, edits: [{ start: 1, end: 2, text: 'X' }] },
      { path: 'shared.css', text: '', encoding: plain, edits: [{ start: 0, end: 0, text: 'p {}' }] },
    ],
    report,
  );
  return root;
}

const found = (root: string, draft = 'draft'): ReturnType<typeof findPlan> =>
  findPlan(root, draft, openFolder(root));

test('a plan is found again while the draft and everything that was read are as they were', () => {
  const plan = found(planned());
  assert.deepEqual(plan?.report, report);
  assert.deepEqual(
    plan?.changes.map(({ path: file, text, edits }) => [file, text, edits[0]?.text]),
    [
      ['index.html', 'abc', 'X'],
      ['shared.css', '', 'p {}'],
    ],
  );
});

test('any change makes it void: the draft, a file that was read, one that was not there, a new file', () => {
  assert.equal(found(planned(), 'another draft'), undefined);
  for (const files of [{ 'index.html': 'abd' }, { 'shared.css': '' }, { 'new.html': 'x' }]) {
    const root = planned();
    addFiles(root, files);
    assert.equal(found(root), undefined, Object.keys(files)[0]);
  }
  // The draft's own file stands among the files, and is compared by its text.
  const root = planned();
  addFiles(root, { 'acervus-draft.yaml': 'respelt' });
  assert.notEqual(found(root), undefined);
});

test('a plan that was tampered with, or is of another version, is none', () => {
  const file = path.join('.acervus', 'plan.json');
  const edit = (change: (text: string) => string): string => {
    const root = planned();
    addFiles(root, { [file]: change(read(root, file)) });
    return root;
  };
  assert.notEqual(found(edit((text) => text)), undefined);
  for (const change of [
    (text: string) => text.slice(1),
    (text: string) => text.replace(/"planner":"[^"]+"/, '"planner":"0.0.0"'),
    (text: string) => text.replace('"start":1', '"start":-1'),
    (text: string) => text.replace('"path":"shared.css"', '"path":"../shared.css"'),
    (text: string) => text.replace('"planner":', '"more":true,"planner":'),
  ])
    assert.equal(found(edit(change)), undefined);
});

test('without changes there is no plan', () => {
  const root = makeSite({ 'index.html': 'abc' });
  savePlan(root, 'draft', noteReadings(openFolder(root)), [], report);
  assert.equal(found(root), undefined);
});
