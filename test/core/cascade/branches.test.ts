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

const WITHIN: readonly (readonly [text: string, path?: string])[] = [
  ["<%= content_tag :div, class: 'box' do %><b>a</b><% end %>"],
  ['<%= form_for @crossing do |f| %><b>a</b><% end %>'],
  ['{{#panel "Fares"}}<b>a</b>{{/panel}}'],
  ['{{#link-to "fares"}}<b>a</b>{{/link-to}}'],
  ['{% panel title %}<b>a</b>{% endpanel %}'],
  ["{% form 'crew' %}<b>a</b>{% endform %}"],
  ['{{ form_start(form) }}<b>a</b>{{ form_end(form) }}'],
  ["<?php echo form_open('fares') ?><b>a</b><?php echo form_close() ?>"],
  ["<?php echo '<div class=\"box\">' ?><b>a</b><?php echo '</div>' ?>"],
  ['<?php Pjax::begin(); ?><b>a</b><?php Pjax::end(); ?>'],
  ['@using (Html.BeginForm()) {\n<b>a</b>\n}', 'a.cshtml'],
];

const ELSEWHERE: readonly (readonly [text: string, path?: string])[] = [
  ['<% content_for :aside do %><b>a</b><% end %>'],
  ['{% macro fare(one) %}<b>a</b>{% endmacro %}'],
  ['{% call box() %}<b>a</b>{% endcall %}'],
  ['{% set note %}<b>a</b>{% endset %}'],
  ['{% capture note %}<b>a</b>{% endcapture %}'],
  ["{% embed 'box.twig' %}<b>a</b>{% endembed %}"],
  ['{{#> box}}<b>a</b>{{/box}}'],
  ['{{#*inline "aside"}}<b>a</b>{{/inline}}'],
  ['{{ define "aside" }}<b>a</b>{{ end }}'],
  ['<?php function fare($one) { ?><b>a</b><?php } ?>'],
  ["<?php if (!function_exists('fare')) { function fare() { ?><b>a</b><?php } } ?>"],
  ['<?php ob_start(); ?><b>a</b><?php $note = ob_get_clean(); ?>'],
  ["@push('aside')<b>a</b>@endpush", 'a.blade.php'],
  ["@component('box')<b>a</b>@endcomponent", 'a.blade.php'],
  ['@if ($x)@endif<x-box><b>a</b></x-box>', 'a.blade.php'],
  ['<c:if test="a">x</c:if><f:form><b>a</b></f:form>'],
];

const IN_PLACE: readonly (readonly [text: string, path?: string])[] = [
  ['<% crew.each do |one| %><b>a</b><% end %>'],
  ['<% if late %><b>a</b><% end %>'],
  ['<% cache do %><b>a</b><% end %>'],
  ['<% crew.forEach(function (one) { %><b>a</b><% }) %>'],
  ['<% for (let i = 0; i < 3; i++) { %><b>a</b><% } %>'],
  ['{{#each crew}}<b>a</b>{{/each}}'],
  ['{{#crew}}<b>a</b>{{/crew}}'],
  ['{{#if (eq a b)}}<b>a</b>{{/if}}'],
  ['{{ range .Crew }}<b>a</b>{{ end }}'],
  ['{% for one in crew %}<b>a</b>{% endfor %}'],
  ['{% block main %}<b>a</b>{% endblock %}'],
  ['<?php $n = 1; foreach ($crew as $one) { ?><b>a</b><?php } ?>'],
  ['<?php if (have_posts()) : while (have_posts()) : the_post(); ?><b>a</b><?php endwhile; endif; ?>'],
  ['<?php wp_body_open(); ?><b>a</b>'],
  ["<?php echo '<i>x</i>' ?><b>a</b>"],
  ['@foreach ($crew as $one)<b>a</b>@endforeach', 'a.blade.php'],
  ['@if (late) {\n<b>a</b>\n}', 'a.cshtml'],
  ['<c:forEach items="crew"><b>a</b></c:forEach>'],
];

test('what a helper prints around something may bring it under any rule, and between it and its parent', () => {
  for (const [text, file] of WITHIN)
    assert.deepEqual(
      matchesOf(`<div class="deck">${text}</div>`, ['.box b', '.deck b', '.deck > b'], file),
      { '.box b': 'perhaps', '.deck b': 'always', '.deck > b': 'perhaps' },
      text,
    );
});

test('what is kept for another place stands surely in nothing that is written around it', () => {
  for (const [text, file] of ELSEWHERE)
    assert.deepEqual(
      matchesOf(`<div class="deck">${text}</div>`, ['.box b', '.deck b', 'b'], file),
      { '.box b': 'perhaps', '.deck b': 'perhaps', b: 'always' },
      text,
    );
});

test('what is repeated or comes at times stands where it is written', () => {
  for (const [text, file] of IN_PLACE)
    assert.deepEqual(
      matchesOf(`<div class="deck">${text}</div>`, ['.box b', '.deck > b'], file),
      { '.box b': 'never', '.deck > b': 'always' },
      text,
    );
});

test('a choice in a loop counts once for what the loop leaves open', () => {
  const choice = '{% if x %}<div class="late">{% else %}<div class="due">{% endif %}</div>';
  const body = `{% for one in rows %}<i>{% if y %}<div id="main">{% endif %}${choice}<p><b></b></p>{% if y %}</div>{% endif %}</i>{% endfor %}`;
  assert.deepEqual(matchesOf(body, ['#main b', 'i b', 'p > b']), {
    '#main b': 'perhaps',
    'i b': 'always',
    'p > b': 'always',
  });
});

test('a sibling that no file shows stands in what the element stands in', () => {
  assert.deepEqual(matchesOf('<p>{{ more }}<b></b></p>', ['p i + b', 'p > i + b', 'li i + b', 'i + b']), {
    'p i + b': 'perhaps',
    'p > i + b': 'perhaps',
    'li i + b': 'never',
    'i + b': 'perhaps',
  });
});

test('a sheet that is linked at times, and behind that in any case, counts there', () => {
  const model = modelOf({
    'a.html': `<!doctype html>{% if x %}<link rel="stylesheet" href="a.css">{% endif %}<link rel="stylesheet" href="b.css"><link rel="stylesheet" href="a.css"><p>`,
    'a.css': 'p { top: 0 }',
    'b.css': 'p { top: 1px }',
  });
  const { uses } = model.sheetOrderOf(model.page('a.html')!);
  assert.deepEqual(
    uses.map(({ source, condition }) => [source.path, condition === ALWAYS]),
    [
      ['b.css', true],
      ['a.css', true],
    ],
  );
});
