import assert from 'node:assert/strict';
import { test } from 'node:test';
import { eachMoment, excludes, implies, readMedia, TruthTable } from '../../../src/core/cascade/index.js';

const truths = new TruthTable();
const media = (text: string) => truths.literal(`@media ${text}`);

/** Whether one query holds wherever the other does, and whether they ever meet: `<`, `>`, `=`, `&` or `|`. */
function compare(one: string, other: string): string {
  const [a, b] = [media(one), media(other)];
  if (excludes(a, b, truths)) return '|';
  const [within, around] = [implies(a, b, truths), implies(b, a, truths)];
  return within && around ? '=' : within ? '<' : around ? '>' : '&';
}

test('media queries are compared as ranges and choices', () => {
  for (const [one, sign, other] of [
    ['(max-width: 600px)', '<', '(max-width: 800px)'],
    ['(max-width: 600px)', '=', '(width <= 600px)'],
    ['(max-width: 600px)', '=', 'not all and (width > 600px)'],
    ['(max-width: 600px)', '|', '(min-width: 600.5px)'],
    ['(max-width: 600px)', '&', '(min-width: 500px)'],
    ['(400px <= width < 500px)', '<', '(min-width: 400px) and (max-width: 500px)'],
    ['print', '|', 'screen'],
    ['print, screen', '>', 'screen and (hover)'],
    ['(prefers-color-scheme: dark)', '=', 'not (prefers-color-scheme: light)'],
    ['(hover: none)', '|', '(hover)'],
    ['(orientation: portrait)', '&', '(max-width: 600px)'],
    ['(min-aspect-ratio: 16/9)', '<', '(min-aspect-ratio: 1/1)'],
    // What an em is, no file tells.
    ['(max-width: 10em)', '&', '(min-width: 900px)'],
    ['only screen', '=', 'screen'],
  ] as const)
    assert.equal(compare(one, other), sign, `${one} ${other}`);
});

test('what no browser understands is no query that can be compared', () => {
  for (const text of ['garbage garbage', '(foo(3))', '(min-width: calc(3px + 4px))', '(a) and (b) or (c)'])
    assert.equal(readMedia(text), undefined, text);
  assert.equal(compare('garbage garbage', '(max-width: 600px)'), '&');
});

test('moments are told apart only as far as is asked, and too many are no answer', () => {
  const states = Array.from({ length: 16 }, (_, at) => truths.literal(`state ${at}`));
  const asked = eachMoment(truths, states, (holds) => holds(states[0]!) && holds(states[1]!));
  assert.deepEqual(asked, [true, false, false]);
  assert.equal(
    eachMoment(truths, states, (holds) => states.filter(holds).length),
    undefined,
  );
  const [always] =
    eachMoment(
      truths,
      states,
      (holds) => holds(states[3]!),
      () => true,
    ) ?? [];
  assert.equal(always, true);
});
