import assert from 'node:assert/strict';
import { test } from 'node:test';
import { parsePage } from '../../../src/core/markup/index.js';
import { adoptAll } from '../../support/model.js';

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
