import assert from 'node:assert/strict';
import { test } from 'node:test';
import { OutcomeTable, TruthTable } from '../../../src/core/cascade/index.js';
import { elementsIn, prove, proveIntent } from '../../../src/core/proof/index.js';
import { modelOf } from '../../support/model.js';

const page = (body: string): string =>
  `<!DOCTYPE html><html><head><link rel="stylesheet" href="line.css"></head><body>${body}</body></html>`;

/** Two states that differ in the sheet alone. */
function states(pages: Readonly<Record<string, string>>, before: string, after: string) {
  const table = new OutcomeTable(new TruthTable());
  const bodies = Object.fromEntries(Object.entries(pages).map(([path, body]) => [path, page(body)]));
  return [
    modelOf({ ...bodies, 'line.css': before }, table),
    modelOf({ ...bodies, 'line.css': after }, table),
  ] as const;
}

const asks = (longhand: string) => ({
  isMeant: () => true,
  isAsked: (name: string) => name === longhand,
});

test('what was asked on what was meant is moved; everything else is a stray', () => {
  const [before, after] = states(
    { 'a.html': '<p>1</p><b>2</b><i>3</i>' },
    'p, b { color: red; top: 0 }',
    'p, b { color: teal; top: 0 } b { left: 0 } i { color: red }',
  );
  const meant = new Set(['p', 'b']);
  const { moved, strays } = proveIntent(before, after, {
    isMeant: (path, index) => meant.has(after.page(path)!.elements[index]!.name),
    isAsked: (name) => name === 'color',
  });
  const told = (list: typeof strays): string[] =>
    list.map((one) => (one.kind === 'style' ? `${one.shown} ${one.property}` : one.what));
  assert.deepEqual(told(moved), ['p color', 'b color']);
  assert.deepEqual(told(strays), ['b left', 'i color']);
});

test('elements that differ alike are all told, each with its own page and place', () => {
  const body = '<p>1</p>\n<p>2</p>\n<p class="x">3</p>';
  const [before, after] = states({ 'a.html': body, 'b.html': body }, 'p { color: red }', 'p { color: teal }');
  const { moved } = proveIntent(before, after, asks('color'));
  assert.deepEqual(
    moved.map(({ page: path, place, shown }) => `${path}:${place?.line} ${shown}`),
    ['a.html:1 p', 'a.html:2 p', 'a.html:3 p.x', 'b.html:1 p', 'b.html:2 p', 'b.html:3 p.x'],
  );
  assert.deepEqual(elementsIn(moved), {
    elements: 6,
    pages: [
      { path: 'a.html', elements: 3 },
      { path: 'b.html', elements: 3 },
    ],
  });
  // The proof that only wants to know whether anything differs describes a few of each page.
  assert.equal(prove(before, after, { perPage: 1 }).differences.length, 2);
});

test('what custom properties come to is asked on every page anew', () => {
  const css = (value: string): string => `:root { --tide: teal } .b { --tide: navy } p { color: ${value} }`;
  const [before, after] = states(
    { 'a.html': '<p>1</p>', 'b.html': '<div class="b"><p>2</p></div>' },
    css('teal'),
    css('var(--tide)'),
  );
  const { moved } = proveIntent(before, after, asks('color'));
  assert.deepEqual(
    moved.map(({ page: path }) => path),
    ['b.html'],
  );
});
