import assert from 'node:assert/strict';
import { test } from 'node:test';
import { hasTemplateText, parsePage } from '../../../../src/core/read/markup/index.js';
import { parseSheet } from '../../../../src/core/read/sheets/index.js';
import { adoptAll } from '../../../support/model.js';

const TWICE = '<p style="color: red; top: 0">a</p>\n<p style="color: red; top: 0">b</p>';

test('template text in front of a page and in its head neither ends the head nor changes the mode', () => {
  const page = parsePage(
    'a.html',
    `<% if (a > b) { %>\n{% load x %}<!doctype html>\n<html {{ more }}>\n<head>{% include "meta" %}\n<title>{{ t }}</title>\n` +
      `<link rel="stylesheet" href="a.css">{% block head %}{% endblock %}</head>{% x %}\n<body class="k">{{ y }}${TWICE}</body></html>`,
  );
  assert.equal(page.quirks, false);
  assert.equal(page.bare, false);
  const body = page.elements.find(({ name }) => name === 'body')!;
  assert.deepEqual(body.classes, ['k']);
  const link = page.elements.find(({ name }) => name === 'link')!;
  assert.equal(page.elements[link.parent]!.name, 'head');
  assert.ok(
    page.texts.some(({ value }) => value === '{% include "meta" %}'),
    'and it is not forgotten',
  );
});

test('the link goes into the real head, whatever stands before it', () => {
  const fronts = ['<%- include("x") -%>\n', '{% extends "y" %}', '<?php get() ?>\n', '<!-- c -->{{#if a}}'];
  for (const front of fronts) {
    const adopted = adoptAll({
      'index.html': `${front}<!doctype html>\n<html><head>\n{% include "m" %}\n</head>\n<body>${TWICE}</body></html>`,
    });
    const text = adopted.text('index.html');
    assert.ok(text.startsWith(`${front}<!doctype html>\n<html><head>\n`), text);
    assert.match(text, /<link rel="stylesheet" href="shared.css">\s*<\/head>/);
  }
});

test('what template text puts together without a head of its own is no whole page', () => {
  const parts = [
    '{% extends "base" %}<link rel="stylesheet" href="a.css">',
    '<?php get_header(); ?>\n<meta>',
  ];
  for (const part of parts) assert.equal(parsePage('a.html', `${part}${TWICE}`).bare, true);
});

test('a component that no page could show keeps all that it says', () => {
  const { styles, text } = adoptAll({ 'a.tpl': `<style>p { color: red }</style>${TWICE}` });
  assert.deepEqual(styles, []);
  assert.match(text('a.tpl'), /style="color: red/);
});

test('a value that only the ending of a file tells to be engine text is none that could move', () => {
  const values: [file: string, value: string][] = [
    ['a.tpl', 'width: {$width}%'],
    ['a.cshtml', 'width: @Model.Width%'],
    ['a.blade.php', '@if($late) color: red @endif'],
    ['a.html', 'width: {# no #} 2px'],
    ['a.html', 'color: {!! $x !!}'],
  ];
  for (const [file, value] of values) {
    const page = parsePage(file, `<p style="${value}">a</p>`, true);
    assert.ok(hasTemplateText(page.elements[0]!.style!), value);
  }
});

test('elements know what an engine puts between their children, in tables too', () => {
  const held = (file: string, text: string): string[] =>
    parsePage(file, text, true)
      .elements.filter(({ hasTemplateText: has }) => has)
      .map(({ name }) => name);
  assert.deepEqual(held('a.tpl', '<div><p>{$x}</p><br>{if $y}<i></i>{/if}</div>'), ['div', 'p']);
  assert.deepEqual(held('a.html', '<ul><li>a<li>{{ b }}</ul><p>c'), ['li']);
  assert.deepEqual(held('a.tpl', '<table>{foreach $x as $y}<tr><td>a</td></tr>{/foreach}</table>'), [
    'table',
    'tbody',
  ]);
});

test('calls that link sheets and scripts are references like any, in order, at times or always', () => {
  const text = `<!doctype html><head>
<%= stylesheet_link_tag 'a', "b/c", :media => 'all' %>
<link rel="stylesheet" href="d.css">
<%= stylesheet_link_tag 'e' if rtl == 'f' %>
{% if g %}<link rel="stylesheet" href="h.css">{% endif %}
{% block i %}<link rel="stylesheet" href="j.css">{% endblock %}
{{ 'k.css' | asset_url | stylesheet_tag }}<%- css(base, 'l.css') %><%- css('//m.example/n.css') %>
<%= javascript_include_tag 'o' %>{{ 'p.js' | asset_url | script_tag }}</head>`;
  const { sheets, scripts } = parsePage('x.html', text);
  assert.deepEqual(
    sheets.map((one) => (one.kind === 'link' ? `${one.address} ${one.by ?? 'markup'}` : '')),
    [
      'engine:a.css engine',
      'engine:b/c.css engine',
      'd.css markup',
      'engine:e.css engine at times',
      'h.css engine at times',
      'j.css markup',
      'engine:k.css engine',
      'engine:l.css engine',
      '//m.example/n.css engine',
    ],
  );
  assert.deepEqual(
    scripts.map((one) => (one.kind === 'link' ? one.address : '')),
    ['engine:o.js', 'engine:p.js'],
  );
});

test('a style block that an engine writes into is read as far as it is written out', () => {
  const page = parsePage(
    'a.tpl',
    '<style>{customRules} p { top: 0; color: {ink}; } b { left: 0 }</style>',
    true,
  );
  const [block] = page.sheets;
  assert.ok(block?.kind === 'block' && block.isFilled === true);
  const { rules } = parseSheet(block.text);
  assert.deepEqual(
    rules.map(({ selector, declarations }) => `${selector} ${declarations.map(({ property }) => property)}`),
    ['p top,color', 'b left'],
  );
});

test('a manual that shows what an engine would read is not filled by one', () => {
  const filled = (body: string): boolean => parsePage('a.html', `<!doctype html><body>${body}`).isFilled;
  assert.equal(filled('<p>{{ main }}'), true);
  assert.equal(filled('<% if (x) { %><p>a</p><% } %>'), true);
  assert.equal(filled('<p>SELECT {{1,2},{3,4}}'), false);
  assert.equal(filled('<pre>{{ main }} {% if x %}{% endif %}</pre><code>{{ a }}</code>'), false);
  assert.equal(filled('<p class="{{ a }}">b'), false);
});
