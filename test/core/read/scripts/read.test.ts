import assert from 'node:assert/strict';
import { test } from 'node:test';
import { readScript, scriptForm } from '../../../../src/core/read/scripts/index.js';

const touched = (script: string): string[] => readScript(script).touches.map(({ property }) => property);

test('reading or clearing a property touches it, writing a fixed value does not', () => {
  assert.deepEqual(touched(`e.style.display = ''; if (e.style.paddingLeft) {}`), ['display', 'padding-left']);
  assert.deepEqual(touched(`e.style.width = '40px'; e.style.height = h + 'px';`), []);
  assert.deepEqual(touched('e.style.width = wide;'), ['width']);
  assert.deepEqual(touched(`e.style.removeProperty('color'); e.style.webkitTransform`), [
    'color',
    '-webkit-transform',
  ]);
});

test('access by a name that is not written out touches everything', () => {
  assert.deepEqual(touched('e.style[name] = value'), ['*']);
  assert.deepEqual(touched(`e.style.cssText += 'x'`), ['*']);
  assert.deepEqual(touched(`e.setAttribute('style', x)`), ['*']);
});

test('library calls that show, hide and set are read too', () => {
  assert.deepEqual(touched(`$(e).slideUp(); $(e).css('top'); $(e).css({ left: '', width: '4px' })`), [
    'display',
    'top',
    'left',
  ]);
});

test('a class attribute written anew loses what is in it', () => {
  assert.deepEqual(touched(`e.className = 'open'`), ['(class)']);
  assert.deepEqual(touched(`e.className += ' open'; e.className = e.className.replace('a', 'b')`), []);
});

test('words in strings are kept; a script that does not parse touches everything', () => {
  assert.ok(readScript(`document.querySelector('#tide .kw-note')`).words.has('kw-note'));
  const broken = readScript(`var x = {{ data }} 'tide'`);
  assert.equal(broken.readable, false);
  assert.ok(broken.words.has('tide'));
});

test('a script that differs in texts and numbers alone has the same form; in what it means or does, another', () => {
  const names = new Set(['fare', 'span']);
  const form = (script: string): string => scriptForm(readScript(script), (word) => names.has(word));
  assert.equal(form('const data = { i0: 10, note: "Fares of the line" };'), '');
  assert.equal(form('pick("fare", 1)'), form('pick("fare of the pier", 2)'));
  const different = [
    'pick("fare")',
    'pick("crew")',
    'pick("span")',
    'e.style.color = ""',
    'e.className = "late"',
    'e.className = "late" + n',
    'e.append(other)',
    'document.createElement("b")',
    'e.getAttribute("align")',
    'oh no (',
  ].map(form);
  assert.equal(new Set(different).size, different.length, different.join('\n'));
});
