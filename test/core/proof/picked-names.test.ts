import assert from 'node:assert/strict';
import { test } from 'node:test';
import { OutcomeTable, TruthTable } from '../../../src/core/cascade/index.js';
import { prove } from '../../../src/core/proof/index.js';
import { modelOf } from '../../support/model.js';

const page = (name: string, script: string): string =>
  `<!DOCTYPE html><html><head><script>${script}</script></head><body><${name} class="a">x</${name}></body></html>`;

/** What the proof says of `<font>` that became `<span>`, beside a script. */
function found(script: string): string[] {
  const table = new OutcomeTable(new TruthTable());
  const before = modelOf({ 'a.html': page('font', script) }, table);
  const after = modelOf({ 'a.html': page('span', script) }, table);
  return prove(before, after).differences.map((one) => (one.kind === 'style' ? one.property : one.what));
}

test('an outdated element keeps its name where a script picks it out by it, or picks out what it would become', () => {
  assert.deepEqual(found(''), []);
  assert.deepEqual(found(`document.querySelector('.a').lang = 'fr'`), []);
  for (const name of ['font', 'span'])
    assert.deepEqual(found(`document.querySelector('${name}').lang = 'fr'`), [
      `a script names <${name}>, and the <font> was renamed`,
    ]);
});
