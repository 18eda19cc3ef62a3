// Every engine of the registry is held to the same questions; what is special to one stands beside it.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { holdsEngineMark, holdsEngineSpan } from '../../../../src/core/base/engine-marks.js';
import { ENGINES, engineOf, enginePieces, inclusionsIn } from '../../../../src/core/read/templates/index.js';

interface Sample {
  readonly file: string;
  readonly branch: readonly [open: string, otherwise: string, close: string];
  readonly prints: string;
  readonly note?: string;
  readonly include: string;
}

const SAMPLES: Readonly<Record<string, Sample>> = {
  handlebars: {
    file: 'a.hbs',
    branch: ['{{#if paid}}', '{{else}}', '{{/if}}'],
    prints: '{{fare}}',
    note: '{{!-- a }} note --}}',
    include: '{{> card}}',
  },
  jinja: {
    file: 'a.twig',
    branch: ['{% if paid %}', '{% else %}', '{% endif %}'],
    prints: '{{ fare }}',
    note: '{# a note #}',
    include: "{% include 'card' %}",
  },
  blade: {
    file: 'a.blade.php',
    branch: ['@if ($a && (b(c)))', '@else', '@endif'],
    prints: '{!! $fare !!}',
    note: '{{-- a }} note --}}',
    include: "@include('card')",
  },
  erb: {
    file: 'a.html.erb',
    branch: ['<% if paid %>', '<% else %>', '<% end %>'],
    prints: '<%= fare %>',
    note: '<%# a note %>',
    include: "<%= render 'card' %>",
  },
  jsp: {
    file: 'a.jsp',
    branch: ['<% if (paid) { %>', '<% } else { %>', '<% } %>'],
    prints: '<%= fare %>',
    note: '<%-- a %> note --%>',
    include: '<% include("card") %>',
  },
  php: {
    file: 'a.php',
    branch: ['<?php if ($a): ?>', '<?php else: ?>', '<?php endif ?>'],
    prints: '<?= "a ?> b" ?>',
    include: "<?php include 'card' ?>",
  },
  interpolation: { file: 'a.html', branch: ['', '', ''], prints: `\${fare}`, include: '' },
  smarty: {
    file: 'a.tpl',
    branch: ['{if $paid}', '{else}', '{/if}'],
    prints: '{$fare|escape}',
    include: '{include file="card"}',
  },
  razor: {
    file: 'a.cshtml',
    branch: ['@if (Paid) {', '\n} else {\n', '\n}\n'],
    prints: '@Model.Lines(1).Fare',
    note: '@* a @ note *@',
    include: '@Html.Partial("card")',
  },
  pandoc: { file: 'a.html', branch: ['$if(paid)$', '$else$', '$endif$'], prints: '$fare$', include: '' },
  'tag-library': {
    file: 'a.html',
    branch: ['<c:if test="a > b">', '<c:else/>', '</c:if>'],
    prints: '<c:out value="x"/>',
    include: '',
  },
};

test('every engine has a sample here, under its own name', () => {
  assert.deepEqual(ENGINES.map(({ name }) => name).sort(), Object.keys(SAMPLES).sort());
});

for (const [name, { file, branch, prints, note, include }] of Object.entries(SAMPLES)) {
  const piecesOf = (text: string) =>
    enginePieces(text, file).map((piece) => [
      text.slice(piece.start, piece.end).trim(),
      piece.role,
      piece.prints,
    ]);

  test(`${name}: what branches, what prints, what is a note`, () => {
    const [open, otherwise, close] = branch;
    const text = `<p>${open} a ${otherwise} b ${close}</p>`;
    assert.deepEqual(
      enginePieces(text, file).map(({ role }) => role),
      open === '' ? [] : ['open', 'else', 'close'],
    );
    const [printed] = piecesOf(`${open}${close}<i>${prints}</i>`).filter(([, role]) => role === 'none');
    assert.deepEqual(printed, [prints, 'none', true]);
    if (note !== undefined)
      assert.deepEqual(piecesOf(`<i>${open}${close}${note}</i>`).at(-1), [note, 'none', false]);
  });

  test(`${name}: the file that a piece names`, () => {
    if (include === '') return;
    assert.deepEqual(
      inclusionsIn(`<i>${include}</i>`, file).map(({ kind, names }) => [kind, ...names]),
      [['include', 'card']],
    );
  });
}

test('an ending tells its engine, the longest ending first', () => {
  for (const engine of ENGINES)
    for (const ending of engine.endings) assert.equal(engineOf(`a/b.${ending}`)?.name, engine.name, ending);
  assert.equal(engineOf('a/b.blade.php')?.name, 'blade');
  assert.equal(engineOf('a/b.html'), undefined);
});

test('what marks tell in any file is told wherever a value goes', () => {
  for (const { marks = [] } of ENGINES)
    for (const { open, close } of marks) {
      const text = `${open} fare ${close}`;
      assert.equal(holdsEngineSpan(text), open !== '{#' && open !== '{!!', text);
      if (!open.startsWith('$') && open !== '{#' && open !== '{!!')
        assert.ok(holdsEngineMark(`/theme/${text}`), text);
    }
  assert.equal(holdsEngineSpan('<?xml version="1.0"?>'), false);
});

test('a layout is named at the head of a file, unless it is none', () => {
  const namesOf = (line: string): string[] =>
    inclusionsIn(`---\n${line}\ntitle: Fares\n---\n<p>x</p>`, 'a.md').flatMap(({ names }) => names);
  assert.deepEqual(namesOf('layout: page'), ['page']);
  assert.deepEqual(namesOf('layout: "page"'), ['page']);
  for (const none of ['false', 'null', 'none', 'nil']) assert.deepEqual(namesOf(`layout: ${none}`), []);
  assert.deepEqual(inclusionsIn('<p>layout: page</p>', 'a.md'), []);
});
