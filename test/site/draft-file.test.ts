import assert from 'node:assert/strict';
import { test } from 'node:test';
import { type Draft, parseDraft, renderDraft, styleKey } from '../../src/site/draft-file.js';

const draft: Draft = {
  format: 1,
  shared: 'theme/shared.css',
  'at-least': 2,
  sources: { 'index.html': '0123456789ab' },
  styles: [
    {
      name: 'heading-navy',
      take: true,
      on: '4 elements on 2 pages',
      saves: 6,
      declarations: 'color: #1f3a56;\nmargin: 0;\n',
      where: { 'index.html': '3:1 4:1' },
    },
    {
      name: 'row-cream',
      take: true,
      on: '2 elements on 1 page',
      saves: 1,
      declarations: 'background: #f6efe0;\n',
      where: { 'fares/index.html': '9:3 10:3' },
    },
  ],
  kept: [
    {
      reason: 'written once: a one-off is no reason for a class',
      declarations: 1,
      where: { 'index.html': ['7:1 width: 37%'] },
    },
  ],
};

test('a draft that is written reads back as it was, with the edits a person may make explained on top', () => {
  const text = renderDraft(draft, undefined);
  assert.deepEqual(parseDraft(text), draft);
  assert.match(text, /^# Acervus draft/);
  assert.match(text, /# {3}refuse {3}take: no/);
  assert.match(text, /declarations: \|\n {6}color: #1f3a56;\n {6}margin: 0;\n/);
});

test('names, refusals, merges and comments of styles that are found again are kept', () => {
  const edited = renderDraft(draft, undefined)
    .replace('name: heading-navy', 'name: lead # house name')
    .replace('name: row-cream\n    take: yes', 'name: row-cream\n    # not before the regatta\n    take: no');
  const fresh: Draft = {
    ...draft,
    sources: { 'index.html': 'ffffffffffff' },
    styles: [
      ...draft.styles.map((style) => ({ ...style, on: 'changed', where: { 'new.html': '1:1' } })),
      { name: 'new-one', take: true, declarations: 'top: 0;\n', where: {} },
    ],
  };
  const text = renderDraft(fresh, edited);
  assert.match(text, /name: lead # house name/);
  assert.match(text, /# not before the regatta/);
  const read = parseDraft(text);
  assert.deepEqual(
    read.styles.map(({ name, take, on }) => [name, take, on]),
    [
      ['lead', true, 'changed'],
      ['row-cream', false, 'changed'],
      ['new-one', true, undefined],
    ],
  );
  assert.deepEqual(read.sources, fresh.sources);
});

test('styles that are gone leave the draft, and a draft that cannot be read is written anew', () => {
  const text = renderDraft({ ...draft, styles: draft.styles.slice(1) }, renderDraft(draft, undefined));
  assert.deepEqual(
    parseDraft(text).styles.map(({ name }) => name),
    ['row-cream'],
  );
  assert.deepEqual(parseDraft(renderDraft(draft, 'styles: [')), draft);
});

test('a style is known by its declarations, however they are spaced and ordered', () => {
  assert.equal(styleKey('color: red;\ntop:0;\n'), styleKey(' top: 0; color:red'));
  assert.notEqual(styleKey('color: red'), styleKey('color: blue'));
});
