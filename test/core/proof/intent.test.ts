import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  ALWAYS,
  compileSelectorList,
  OutcomeTable,
  type Truth,
  TruthTable,
} from '../../../src/core/cascade/index.js';
import { wishOf } from '../../../src/core/change/wish.js';
import {
  type Difference,
  elementsIn,
  isAsWished,
  prove,
  proveWishes,
  type Wish,
} from '../../../src/core/proof/index.js';
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

/** The wish that elements get a declaration. */
function wish(
  selector: string,
  declaration: string,
  more: { medium?: Truth; everywhere?: boolean; othersStay?: true } = {},
): Wish {
  const list = compileSelectorList(selector);
  const [property = '', value = ''] = declaration.split(/:\s*/);
  return wishOf({
    selectors: list.kind === 'list' ? list.selectors : [],
    changes: [{ property, value: value === '' ? undefined : value, important: false }],
    medium: ALWAYS,
    ...more,
  });
}

const told = (list: readonly Difference[]): string[] =>
  list.map((one) => (one.kind === 'style' ? `${one.shown} ${one.property}` : one.what));

test('what was wished for on what was meant is moved; everything else is a stray', () => {
  const [before, after] = states(
    { 'a.html': '<p>1</p><b>2</b><i>3</i>' },
    'p, b { color: red; top: 0 }',
    'p, b { color: teal; top: 0 } b { left: 0 } i { color: red }',
  );
  const proof = proveWishes(before, after, [wish('p, b', 'color: teal')]);
  assert.deepEqual([proof.meant, proof.moved.length, proof.kept, proof.wrong], [2, 2, [], []]);
  assert.deepEqual(told(proof.strays), ['b left', 'i color']);
  assert.equal(isAsWished(proof), false);
});

test('elements are counted each on its page; the proof that only wants to know describes a few', () => {
  const body = '<p>1</p>\n<p>2</p>\n<p class="x">3</p>';
  const [before, after] = states({ 'a.html': body, 'b.html': body }, 'p { color: red }', 'p { color: teal }');
  const { moved } = proveWishes(before, after, [wish('p', 'color: teal')]);
  assert.deepEqual(elementsIn(moved), {
    elements: 6,
    pages: [
      { path: 'a.html', elements: 3 },
      { path: 'b.html', elements: 3 },
    ],
  });
  assert.equal(prove(before, after, { perPage: 1 }).differences.length, 2);
});

/** What became of `p { color: teal }`, in short. */
function became(before: string, after: string, more: Parameters<typeof wish>[2] = {}): string {
  const [a, b] = states({ 'a.html': '<p>1</p>' }, before, after);
  const { moved, kept, wrong, strays } = proveWishes(a, b, [wish('p', 'color: teal', more)]);
  return [
    ...(moved.length > 0 ? ['moved'] : []),
    ...kept.map(({ winner }) => `kept ${winner?.value ?? 'nothing'}`),
    ...wrong.map((text) => text.replace(/^a.html: color of p /, '')),
    ...strays.map(({ kind }) => `stray ${kind}`),
  ].join(', ');
}

test('a value is looked at in each state and medium, not only that something moved', () => {
  assert.equal(became('p { color: red }', 'p { color: teal }'), 'moved');
  assert.equal(became('p { color: red }', 'p { color: navy }'), 'would be color: #000080');
  assert.equal(
    became('p { color: red !important }', 'p { color: teal } html p { color: red }'),
    'kept #ff0000',
  );
  // What holds in a state stays, unless it is meant to go everywhere.
  const hover = 'p { color: red } p:hover { color: blue }';
  const other = 'p { color: teal } p:hover { color: blue }';
  const all = 'p, p:hover { color: teal }';
  assert.equal(became(hover, all), 'moved');
  assert.equal(became(hover, all, { othersStay: true }), 'moved, would no longer be #0000ff when :hover');
  assert.equal(became(hover, other, { othersStay: true }), 'moved');
  assert.equal(became(hover, other), 'moved');
  assert.equal(became(hover, other, { everywhere: true }), 'moved, kept #0000ff');
  assert.equal(became(hover, 'p { color: teal } p:hover { color: lime }'), 'moved, would be color: #00ff00');
});

test('a wish for a medium is met in it, whatever other ranges say there, and changes nothing beyond', () => {
  const table = (text: string): Truth => SHARED.truths.literal(`@media ${text}`);
  const SHARED = new OutcomeTable(new TruthTable());
  const look = (before: string, after: string): string => {
    const a = modelOf({ 'a.html': page('<p>1</p>'), 'line.css': before }, SHARED);
    const b = modelOf({ 'a.html': page('<p>1</p>'), 'line.css': after }, SHARED);
    const medium = table('(max-width: 600px)');
    const { moved, kept, wrong } = proveWishes(a, b, [wish('p', 'color: teal', { medium })]);
    return `${moved.length} ${kept.map(({ winner }) => winner?.value)} ${wrong.map((text) => text.slice(8))}`;
  };
  const wide = '@media (width <= 800px) { p { color: navy } }';
  const mine = '@media (max-width: 600px) { p { color: teal } }';
  assert.equal(look(wide, `${mine} ${wide}`), '0 #000080 ');
  assert.equal(look(wide, `${wide} ${mine}`), '1  ');
  const narrow = '@media (max-width: 300px) { p { color: red } }';
  assert.equal(look(narrow, `${mine} ${narrow}`), '1 #ff0000 ');
  assert.match(look(wide, `${wide} p { color: teal }`), /would change in another medium/);
  // Print is another thing than width: what it says of its own stays.
  const print = '@media print { p { color: black } }';
  assert.equal(look(print, `${mine} ${print}`), '1  ');
});

test('a value that comes by a custom property is what that comes to where the element stands', () => {
  const css = (value: string): string =>
    `:root { --tide: ${value} } .b { --tide: navy } p { color: var(--tide) }`;
  const [before, after] = states(
    { 'a.html': '<p>1</p><div class="b"><p>2</p></div>' },
    css('red'),
    css('teal'),
  );
  const { moved, kept } = proveWishes(before, after, [
    { ...wish('p', 'color: teal'), token: '--tide' },
    { ...wish(':root', '--tide: teal'), serves: true },
  ]);
  assert.deepEqual(
    [moved.map(({ element }) => after.page('a.html')!.elements[element]!.parent > 0), kept.length],
    [[true], 1],
  );
});
