import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { UsageError } from '../../src/core/base/usage-error.js';
import { parseDraft } from '../../src/core/edit/draft/text.js';
import { applyEdits } from '../../src/core/edit/text/index.js';
import { parseConfig } from '../../src/site/config.js';
import { decodeAs, decodeFile, encodeFile } from '../../src/site/files/encoding.js';
import { openFolder } from '../../src/site/files/files.js';
import { loadSite } from '../../src/site/rendering/load.js';
import { htmlPage, makeSite } from '../support/site.js';

test('every file that is decoded comes back byte for byte', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 60 }), (bytes) => {
      const decoded = decodeFile(Buffer.from(bytes));
      if (decoded !== undefined)
        assert.ok(encodeFile(decoded.text, decoded.encoding).equals(Buffer.from(bytes)));
    }),
    { numRuns: 2000 },
  );
});

test('encodings are found as a browser finds them', () => {
  const name = (...bytes: Buffer[]): string | undefined => decodeFile(Buffer.concat(bytes))?.encoding.name;
  assert.equal(name(Buffer.from('\uFEFFquay')), 'utf-8');
  assert.equal(name(Buffer.from('\uFEFFquay', 'utf16le')), 'utf-16le');
  assert.equal(name(Buffer.from('<meta charset="iso-8859-1">caf'), Buffer.from([0xe9])), 'windows-1252');
  assert.equal(name(Buffer.from('caf'), Buffer.from([0xe9])), 'windows-1252');
  const declaring = (label: string, ...bytes: number[]): string | undefined =>
    name(Buffer.from(`<meta charset="${label}">`), Buffer.from(bytes));
  assert.equal(declaring('koi8-r', 0xd0, 0xd2), 'koi8-r');
  assert.equal(declaring('x-sjis', 0x83, 0x5c, 0x41), 'shift_jis');
  assert.equal(declaring('big5', 0xa4, 0x40), 'big5');
  // Declared, and not what the bytes are: every byte is kept all the same.
  assert.equal(declaring('shift_jis', 0xff, 0xe9), 'windows-1252');
  assert.equal(declaring('utf-16', 0x41), 'utf-8');
  assert.equal(declaring('no-such-set', 0xe9), 'windows-1252');
  assert.equal(name(Buffer.from([0, 1, 2, 0])), undefined);
  assert.equal(decodeAs(Buffer.from([0xe9]), { name: 'utf-8', mark: false }), undefined);
});

test('an edit in the middle leaves an old encoding and its line ends alone', () => {
  const bytes = Buffer.from('<meta charset=windows-1252>\r\ncaf\xe9 \x80\r\n', 'latin1');
  const { text, encoding } = decodeFile(bytes)!;
  const after = encodeFile(applyEdits(text, [{ start: 0, end: 5, text: '<META' }]), encoding);
  assert.equal(after.toString('latin1'), '<META charset=windows-1252>\r\ncaf\xe9 \x80\r\n');
});

const message = (run: () => unknown): string => {
  try {
    run();
  } catch (error) {
    assert.ok(error instanceof UsageError);
    assert.doesNotMatch(error.message, /\n/);
    return error.message;
  }
  return 'no error';
};

test('a broken configuration names the key and what was expected', () => {
  assert.match(
    message(() => parseConfig('{ "platform": "kit" }')),
    /^acervus\.json: platform: expected array/,
  );
  assert.match(
    message(() => parseConfig('{ "platfrom": [] }')),
    /"platfrom" is no key here/,
  );
  assert.match(
    message(() => parseConfig('{ "shared": "../x.css" }')),
    /shared: .*leads out of the site/,
  );
  assert.match(
    message(() => parseConfig('{')),
    /is not valid JSON/,
  );
});

const draft = (styles: string): string =>
  `format: 2\nshared: s.css\ntaste: balanced\nscope: site\nat-least: 2\nupkeep: { now: 1, after: 1 }\nstyles:\n${styles}\ntokens: []\nnear misses: []\nkept: []\n`;
const style = (name: string, more = ''): string =>
  `  - name: ${name}\n    id: "1"\n    home: new class\n    take: yes\n    declarations: "top: 0"\n${more}`;

test('a broken draft names the line, the key and what was expected', () => {
  assert.match(
    message(() => parseDraft(draft(style('a b')))),
    /^acervus-draft\.yaml:8: styles\[0\]\.name: "a b" is no class name/,
  );
  assert.match(
    message(() => parseDraft(draft(style('quay') + style('Quay')))),
    /^acervus-draft\.yaml:13: .*names the style on line 8 too/,
  );
  assert.match(
    message(() => parseDraft(draft(style('a', '    into: b\n')))),
    /"b" is no new class of the draft/,
  );
  assert.match(
    message(() => parseDraft(draft('  - name: a'))),
    /styles\[0\]/,
  );
  assert.match(
    message(() => parseDraft('a: [')),
    /^acervus-draft\.yaml:1: is not valid YAML/,
  );
});

test('platform and theme sheets are told apart, and configuration has the last word', () => {
  const sheets = ['platform/kit.css', 'vendor/x/y.css', 'theme/a.css', 'theme/b.min.css', 'long.css'];
  const files = {
    'index.html': htmlPage('<p>x', sheets.map((path) => `<link rel="stylesheet" href="${path}">`).join('\n')),
    'long.css': `${'p { top: 0 } '.repeat(400)}\n`,
    ...Object.fromEntries(sheets.slice(0, 4).map((path) => [path, 'p { top: 0 }'])),
  };
  const owners = (config: string): string =>
    loadSite(openFolder(makeSite({ ...files, 'acervus.json': config })))
      .sheets.map(({ path, owner }) => `${path} ${owner}`)
      .sort()
      .join(', ');
  assert.equal(
    owners('{}'),
    'long.css platform, platform/kit.css platform, theme/a.css theme, theme/b.min.css platform, vendor/x/y.css platform',
  );
  assert.match(
    owners('{ "platform": ["theme/a.css"], "theme": ["long.css"] }'),
    /long\.css theme.*theme\/a\.css platform/,
  );
});

test('sheets are followed through imports, and local copies stand for addresses elsewhere', () => {
  const folder = makeSite({
    'fares/index.html': htmlPage(
      '<p>x',
      '<link rel="stylesheet" href="/theme/a.css?v=2"><link rel="stylesheet" href="https://kit.invalid/k.css">',
    ),
    'theme/a.css': '@import "b.css"; p { top: 0 }',
    'theme/b.css': '@import url(a.css); p { left: 0 }',
    'copies/k.css': 'p { right: 0 }',
    'acervus.json': '{ "copies": { "https://kit.invalid/k.css": "copies/k.css" } }',
    'node_modules/x/index.html': '<p>not a page of the site',
    '.hidden/index.html': '<p>nor this',
  });
  const site = loadSite(openFolder(folder));
  assert.deepEqual(
    site.model.pages.map(({ path }) => path),
    ['fares/index.html'],
  );
  assert.deepEqual(
    site.model.sheetOrderOf(site.model.pages[0]!).uses.map(({ source }) => source.path),
    ['theme/b.css', 'theme/a.css', 'copies/k.css'],
  );
  assert.deepEqual(site.model.sheetOrderOf(site.model.pages[0]!).unread, []);
});
