// What every command that changes something promises alike: a patch that git takes, bytes that come back, text from a
// site that is only data, and files of any spelling.

import assert from 'node:assert/strict';
import { execFileSync } from 'node:child_process';
import { chmodSync, cpSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { schemas } from '../../src/commands/schemas.js';
import { acervus, addFiles, htmlPage, makeSite, PROJECT, read, snapshot } from '../support/site.js';

const SHEETS =
  '  <link rel="stylesheet" href="platform/kit.css">\n  <link rel="stylesheet" href="theme/line.css">\n';
const TABLE =
  "format: 1\nfamily: sea\ninto: theme/line.css\neach: state\nwhere: .is-{row}\nrows: { calm: { ink: teal }, rough: { ink: navy } }\nrules: { '&': { color: '{ink}' } }\n";

function site(): string {
  return makeSite({
    'index.html': htmlPage('<p class="kw-go notice">A</p>\n<p class="kw-go is-calm">B</p>', SHEETS),
    'crew.html': htmlPage('<p class="notice is-rough">C</p>', SHEETS),
    'platform/kit.css': '.kw-go { color: gray; }\n',
    'next/kit.css': '.kw-main .kw-go, p.kw-go { color: black; }\n',
    'theme/line.css': '.notice { padding: 4px; }\n.kw-go { color: teal; }\n',
    'sea.family.yaml': TABLE,
  });
}

const CHANGES: readonly (readonly string[])[] = [
  ['restyle', '.notice', 'padding: 6px', 'margin: 0'],
  ['override', '.kw-go', 'letter-spacing: 1px'],
  ['override', '.notice', 'top: 0', '--within', 'crew.html'],
  ['rename', '.notice', '.news'],
  ['family', 'sea.family.yaml'],
  ['outlast', '--platform', 'platform=next', '--mend'],
];

/** The folder of the site is the last word that is no option. */
function onSite(args: readonly string[], folder: string): string[] {
  const options = args.findIndex((word) => word.startsWith('--'));
  const at = options < 0 ? args.length : options;
  return [...args.slice(0, at), folder, ...args.slice(at)];
}

test('each change: --patch is what git applies to the same bytes, undo gives every byte back', async () => {
  for (const args of CHANGES) {
    const folder = site();
    const before = snapshot(folder);
    const copy = makeSite({});
    cpSync(folder, copy, { recursive: true });
    const patch = await acervus(...onSite(args, folder), '--patch');
    assert.match(patch.stdout, /^diff --git /, args.join(' '));
    assert.deepEqual(snapshot(folder), before, args.join(' '));
    execFileSync('git', ['apply', '--whitespace=nowarn', '-'], { cwd: copy, input: patch.stdout });
    const done = await acervus(...onSite(args, folder));
    assert.match(done.stdout, /\nnext {2}acervus /, args.join(' '));
    const after = [...snapshot(folder)].filter(([file]) => !file.startsWith('.acervus'));
    assert.deepEqual(after, [...snapshot(copy)], args.join(' '));
    assert.equal(read(folder, 'platform/kit.css'), read(copy, 'platform/kit.css'));
    assert.equal((await acervus('undo', folder)).code, 0);
    assert.deepEqual(snapshot(folder), before, args.join(' '));
  }
});

test('line ends, byte order marks and encodings stay as they are', async () => {
  const folder = site();
  const crlf = '\uFEFF.notice {\r\n\tpadding: 4px;\r\n}\r\n';
  addFiles(folder, {
    'theme/line.css': crlf,
    'crew.html': Buffer.from(
      htmlPage('<p class="notice">Fähre</p>', SHEETS).replace('utf-8', 'iso-8859-1'),
      'latin1',
    ),
  });
  assert.equal((await acervus('restyle', '.notice', 'padding: 6px', 'top: 0', folder)).code, 0);
  assert.equal(read(folder, 'theme/line.css'), crlf.replace('4px;', '6px;\r\n\ttop: 0;'));
  assert.equal((await acervus('rename', '.notice', '.news', folder)).code, 0);
  assert.match(readFileSync(path.join(folder, 'crew.html'), 'latin1'), /<p class="news">Fähre<\/p>/);
});

test('a site without sheets of its own gets one; a file that may not be written stops all', async () => {
  const folder = makeSite({
    'index.html': htmlPage('<p class="kw-go">A</p>', '  <link rel="stylesheet" href="platform/kit.css">\n'),
    'platform/kit.css': '.kw-go { color: gray; }\n',
  });
  assert.equal((await acervus('override', '.kw-go', 'color: teal', folder)).code, 0);
  assert.equal(read(folder, 'shared.css'), '/* part: overrides */\n\n.kw-go {\n  color: teal;\n}\n');
  assert.match(read(folder, 'index.html'), /kit\.css">\n {2}<link rel="stylesheet" href="shared\.css">\n/);
  const before = read(folder, 'shared.css');
  chmodSync(path.join(folder, 'shared.css'), 0o444);
  const stopped = await acervus('override', '.kw-go', 'color: navy', folder);
  assert.equal(stopped.code, 2);
  assert.match(stopped.stderr, /shared\.css: is read-only/);
  assert.equal(read(folder, 'shared.css'), before);
});

test('text from a site is data: nothing in it reaches the terminal as it is', async () => {
  const code = '\u001b[31m\u0007';
  const folder = makeSite({
    'index.html': htmlPage(
      `<p class="a${code}" id="it" style="color: red${code}; --x: '${code}'">A</p>`,
      SHEETS,
    ),
    'platform/kit.css': '',
    'theme/line.css': `p { content: "${code}"; color: blue }\n.x\u202e { top: 0 }\n`,
  });
  for (const args of [
    ['explain', 'index.html', '#it', folder],
    ['reach', 'p', folder],
    ['restyle', 'p', 'color: teal', folder],
    ['override', 'p', 'top: 0', folder],
    ['override', '--list', folder],
  ]) {
    const { stdout, stderr } = await acervus(...args);
    assert.doesNotMatch(stdout + stderr, /[\u0000-\u0008\u000b-\u001f\u007f-\u009f\u202e]/, args.join(' '));
  }
});

test('every command names an example in its help, and its document has a schema', async () => {
  for (const name of ['explain', 'reach', 'restyle', 'rename', 'override', 'outlast', 'family']) {
    const { code, stdout } = await acervus(name, '--help');
    assert.equal(code, 0);
    assert.match(stdout, new RegExp(`Example:\\n  acervus ${name} `));
    const schema = JSON.parse(read(PROJECT, `docs/schemas/${name}.schema.json`)) as {
      properties: { command: { const: string } };
    };
    assert.equal(schema.properties.command.const, name);
    assert.ok(`${name}.schema.json` in schemas);
  }
  const away = await acervus('reach', '.a', '/nowhere-at-all');
  assert.equal(away.code, 2);
  assert.match(away.stderr, /there is no such folder/);
});
