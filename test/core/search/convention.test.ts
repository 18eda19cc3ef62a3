import assert from 'node:assert/strict';
import { test } from 'node:test';
import { nameStyles, nameValue, readConvention, USUAL, unnamed } from '../../../src/core/search/index.js';
import { adoptAll } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

function namesOf(body: string, extra: Partial<Parameters<typeof nameStyles>[1]> = {}): string[] {
  const { styles } = adoptAll({ 'index.html': htmlPage(body) });
  return nameStyles(styles.filter(({ home }) => home.kind === 'new class').map(unnamed), {
    platform: new Set(),
    taken: new Set(),
    sensitive: [],
    convention: USUAL,
    ...extra,
  });
}

/** Three that say it, none at a place of its own, and others of the kind that do not. */
const mixed = (tag: string, style: string): string => {
  const yes = `<${tag} style="${style}">x</${tag}>`;
  const no = `<${tag}>y</${tag}>`;
  return `${yes}${no}${yes}${no}${no}${yes}${no}`;
};

test('names say what the elements are and what the style does', () => {
  assert.deepEqual(namesOf(mixed('p', 'opacity: .5')), ['text-faded']);
  assert.deepEqual(namesOf(`<div class="fares">${mixed('p', 'opacity: .5')}</div>`), ['fares-text-faded']);
});

test('the prefix of platform classes does not lead a name of ours', () => {
  const body = `<div class="kw-fares">${mixed('p', 'opacity: .5')}</div>`;
  assert.deepEqual(namesOf(body, { platform: new Set(['kw-fares', 'kw-row']) }), ['fares-text-faded']);
});

test('names are free, and match no attribute selector on class', () => {
  const [name] = namesOf(mixed('p', 'opacity: .5'), {
    taken: new Set(['text-faded']),
    sensitive: [{ operator: '^=', value: 'text-' }],
  });
  assert.ok(name !== undefined && name !== 'text-faded' && !name.startsWith('text-'), name);
});

test('a house convention is read off the classes there are', () => {
  assert.deepEqual(readConvention(new Set(['sk-strip', 'sk-box', 'sk-lead', 'odd'])), {
    prefix: 'sk-',
    separator: '-',
  });
  assert.deepEqual(readConvention(new Set(['fare_table', 'crew_list', 'note'])), {
    prefix: '',
    separator: '_',
  });
  assert.deepEqual(readConvention(new Set()), { prefix: '', separator: '-' });
});

test('names follow the convention: prefix, separator, suffix', () => {
  const convention = { ...USUAL, prefix: 'sk-', separator: '_' as const, suffix: '-style' };
  assert.deepEqual(namesOf(mixed('p', 'opacity: .5'), { convention }), ['sk-text_faded-style']);
});

test('values are named by what they are, each once', () => {
  const used = new Set<string>();
  assert.equal(nameValue('colour', '#1f3a56', USUAL, used), '--navy');
  assert.equal(nameValue('colour', '#1f3a57', USUAL, used), '--navy-2');
  assert.equal(nameValue('space', '6px 10px', USUAL, used), '--space-6-10');
  assert.equal(nameValue('font', 'lato,sans-serif', USUAL, used), '--font-lato');
  const house = { ...USUAL, prefix: 'sk-', stems: { ...USUAL.stems, colour: 'ink' } };
  assert.equal(nameValue('colour', '#1f3a56', house, used), '--sk-ink-navy');
});
