import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { addressFrom, fileAt, isAbove, resolveAddress } from '../../../src/core/base/addresses.js';
import { LineIndex, showPlace } from '../../../src/core/base/source.js';

const path = (address: string, holder: string): string => {
  const resolved = resolveAddress(address, holder);
  return resolved.kind === 'site' ? resolved.path + resolved.suffix : `${resolved.kind} ${resolved.address}`;
};

test('addresses resolve against the folder of the file that holds them', () => {
  assert.equal(path('a.css', 'index.html'), 'a.css');
  assert.equal(path('../theme/./a.css?v=2#x', 'fares/adult/index.html'), 'fares/theme/a.css?v=2#x');
  assert.equal(path('/theme/a.css', 'fares/index.html'), 'theme/a.css');
  assert.equal(path('caf%C3%A9%20au.css', 'x/y.html'), 'x/café au.css');
  assert.equal(path('bad%zz.css', 'y.html'), 'bad%zz.css');
});

test('what leads out of the site, to another host or into the own page is told apart', () => {
  assert.equal(path('/../a.css', 'fares/index.html'), 'elsewhere /../a.css');
  assert.equal(path('//kit.invalid/a.css', 'index.html'), 'elsewhere //kit.invalid/a.css');
  assert.equal(path('data:text/css,a{}', 'index.html'), 'elsewhere data:text/css,a{}');
  assert.equal(path(' #tide ', 'index.html'), 'fragment #tide');
});

test('what lies above the site has a path of its own, from wherever it is named', () => {
  const above = (address: string, holder: string): string | undefined =>
    fileAt(address, holder, () => undefined);
  assert.equal(above('../../kit/a.css', 'fares/index.html'), '../kit/a.css');
  assert.equal(above('more.css', '../kit/a.css'), '../kit/more.css');
  assert.equal(above('../../b.css', '../kit/a.css'), '../../b.css');
  assert.equal(above('../site.css', '../kit/a.css'), '../site.css');
  assert.deepEqual([isAbove('../a.css'), isAbove('..a.css'), isAbove('a/../b.css')], [true, false, false]);
  assert.equal(addressFrom('css/line.css', '../kit/a.png'), '../../kit/a.png');
});

test('an address means what the URL standard says: backslashes, line breaks in it, a query alone', () => {
  assert.equal(path('css\\more.css', 'fares/index.html'), 'fares/css/more.css');
  assert.equal(path('cs\ns/a.css', 'index.html'), 'css/a.css');
  assert.equal(path('\\\\kit.invalid\\a.css', 'index.html'), 'elsewhere \\\\kit.invalid\\a.css');
  assert.equal(path('a.css?b\\c', 'index.html'), 'a.css?b\\c');
  assert.equal(path('?a=1', 'fares/index.html'), 'fares/index.html?a=1');
});

test('an address written from one file to another leads there, whatever the names', () => {
  const name = fc
    .stringMatching(/^[a-zA-Z0-9 é'()#?%._-]{1,8}$/)
    .filter((text) => !/^\.+$/.test(text) && !/%[0-9a-f]{2}/i.test(text));
  const file = fc.array(name, { minLength: 1, maxLength: 4 }).map((parts) => parts.join('/'));
  fc.assert(
    fc.property(file, file, (holder, target) => {
      const resolved = resolveAddress(addressFrom(holder, target), holder);
      assert.deepEqual(resolved, { kind: 'site', path: target, suffix: '' });
    }),
  );
});

test('places count lines by every kind of line end', () => {
  const index = new LineIndex('a.html', 'ab\r\nc\rd\ne');
  assert.deepEqual(
    [0, 4, 6, 8].map((offset) => showPlace(index.placeAt(offset))),
    ['a.html:1:1', 'a.html:2:1', 'a.html:3:1', 'a.html:4:1'],
  );
  assert.equal(showPlace(index.placeAt(1)), 'a.html:1:2');
});
