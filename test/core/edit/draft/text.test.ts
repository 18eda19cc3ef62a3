import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Draft } from '../../../../src/core/edit/draft/index.js';
import { parseDraft, renderDraft } from '../../../../src/core/edit/draft/text.js';

const draft: Draft = {
  format: 2,
  shared: 'theme/shared.css',
  taste: 'balanced',
  scope: 'site',
  'at-least': 2,
  upkeep: { now: 12, after: 4 },
  styles: [
    {
      id: '0a1b2c3d',
      home: 'new class',
      name: 'heading-navy',
      take: true,
      elements: 4,
      pages: 2,
      'such as': ['index.html:3:1'],
      saves: { places: 6, bytes: 90 },
      declarations: 'color: #1f3a56;\nmargin: 0;\n',
    },
    {
      id: '4e5f6a7b',
      home: 'existing selector',
      take: true,
      selector: 'tr.odd',
      declarations: 'background: #f6efe0;\n',
    },
  ],
  mixins: [],
  'code blocks': [],
  tokens: [{ name: '--navy', take: true, value: '#1f3a56', kind: 'colour', form: '#1f3a56', uses: 4 }],
  'near misses': [
    {
      from: '#1e3a56',
      to: '#1f3a56',
      change: false,
      apart: 'a colour distance of 0.26',
      'such as': ['a.css:1:2'],
    },
  ],
  kept: [
    {
      reason: 'written once: a one-off is no reason for a class',
      declarations: 1,
      'such as': ['index.html:7:1'],
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

test('what a person decided and wrote beside it is kept where styles are found again', () => {
  const edited = renderDraft(draft, undefined).replace(
    'home: new class\n',
    'home: new class # ask Marit\n    # not before the regatta\n',
  );
  const fresh: Draft = {
    ...draft,
    styles: [
      { ...draft.styles[1]!, take: false },
      { ...draft.styles[0]!, name: 'lead', elements: 5 },
      { id: 'ffffffff', home: 'new class', name: 'new-one', take: true, declarations: 'top: 0;\n' },
    ],
  };
  const text = renderDraft(fresh, edited);
  assert.match(text, /# not before the regatta/);
  assert.deepEqual(parseDraft(text), fresh);
});

test('styles that are gone leave the draft, and a draft that cannot be read is written anew', () => {
  const text = renderDraft({ ...draft, styles: draft.styles.slice(1) }, renderDraft(draft, undefined));
  assert.deepEqual(
    parseDraft(text).styles.map(({ id }) => id),
    ['4e5f6a7b'],
  );
  assert.deepEqual(parseDraft(renderDraft(draft, 'styles: [')), draft);
});

test('a draft of an earlier version says so', () => {
  assert.throws(() => parseDraft('format: 1\nstyles: []\n'), /earlier version; delete it and draft again/);
});
