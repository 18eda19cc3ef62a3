import assert from 'node:assert/strict';
import { readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { adoptDocument } from '../../src/commands/adopt/document.js';
import { acervus, type Files, htmlPage, makeSite, read, snapshot } from '../support/site.js';

const two = '<p style="top: 0; color: red">caf\u00e9</p>\n<p style="top: 0; color: red">b</p><p>c</p>';

/** Draft, adopt, check, undo: the bytes come back. Out: the adopted bytes of a file. */
async function cycle(files: Files, file = 'index.html'): Promise<{ bytes: Buffer; elements: number }> {
  const folder = makeSite(files);
  const before = snapshot(folder);
  const drafted = await acervus('draft', folder);
  assert.equal(drafted.code, 0, drafted.stderr);
  const run = await acervus('adopt', folder, '--json');
  assert.equal(run.code, 0, run.stderr);
  const { styles } = adoptDocument.parse(JSON.parse(run.stdout));
  const bytes = readFileSync(path.join(folder, file));
  assert.equal((await acervus('undo', folder)).code, 0);
  rmSync(path.join(folder, 'acervus-draft.yaml'));
  assert.deepEqual(snapshot(folder), before);
  return { bytes, elements: styles.reduce((sum, style) => sum + (style.elements ?? 0), 0) };
}

test('a UTF-8 page with a byte order mark and CR LF keeps both', async () => {
  const { bytes, elements } = await cycle({
    'index.html': Buffer.from(`\uFEFF${htmlPage(two).replaceAll('\n', '\r\n')}`),
  });
  assert.equal(elements, 2);
  const text = bytes.toString('utf8');
  assert.ok(text.startsWith('\uFEFF<!DOCTYPE'));
  assert.equal(text.replaceAll('\r\n', '').includes('\n'), false);
});

test('a windows-1252 page and a UTF-16 page are edited in their encoding', async () => {
  const western = await cycle({
    'index.html': Buffer.from(htmlPage(two).replace('utf-8', 'windows-1252'), 'latin1'),
  });
  assert.ok(western.bytes.includes(0xe9));
  assert.equal(western.elements, 2);
  const wide = await cycle({ 'index.html': Buffer.from(`\uFEFF${htmlPage(two)}`, 'utf16le') });
  assert.ok(wide.bytes.toString('utf16le').includes('class='));
  assert.equal(wide.bytes[0], 0xff);
});

test('every byte of a western page comes back, and so do letters of two bytes', async () => {
  const low = String.fromCharCode(...Array.from({ length: 95 }, (_, at) => 161 + at));
  const western = Buffer.concat([
    Buffer.from(htmlPage(two).replace('utf-8', 'iso-8859-1').replace('</body>', ''), 'latin1'),
    Buffer.from(low, 'latin1'),
    Buffer.from([0x80, 0x81]),
  ]);
  const { bytes } = await cycle({ 'index.html': western });
  assert.ok(bytes.subarray(-97).equals(western.subarray(-97)));
  const [lead, trail] = [0x83, 0x41];
  const page = htmlPage(two).replace('utf-8', 'shift_jis').replaceAll('\u00e9', '').replace('</body>', '');
  const japanese = Buffer.concat([Buffer.from(page, 'latin1'), Buffer.from([lead, trail])]);
  const edited = (await cycle({ 'index.html': japanese })).bytes;
  assert.deepEqual([...edited.subarray(-2)], [lead, trail]);
});

test('names with spaces and letters of any alphabet are paths like others', async () => {
  const files = {
    'h\u00e4fen/nord \u00f8st/index.html': htmlPage(
      two,
      '<link rel="stylesheet" href="../../th%20eme/a%20b.css">',
    ),
    'th eme/a b.css': 'p { top: 1px }\n',
  };
  // A page that links no sheet is no place for the one that the others link.
  const { bytes, elements } = await cycle(
    { ...files, 'bare.html': htmlPage('<p>x</p>') },
    'h\u00e4fen/nord \u00f8st/index.html',
  );
  assert.equal(elements, 2);
  assert.match(bytes.toString(), /href="\.\.\/\.\.\/th%20eme\/shared\.css"/);
});

test('pages without a head, a body or closing tags are linked where the head would be', async () => {
  const { bytes } = await cycle({ 'index.html': `<!doctype html><title>x</title>\n${two}` });
  assert.match(bytes.toString(), /^<!doctype html>\n<link rel="stylesheet" href="shared\.css"><title>/);
});

test('a fragment that nothing marks as a page or a component is left alone, with the reason', async () => {
  const folder = makeSite({ 'index.html': htmlPage('x'), 'part.html': two });
  await acervus('draft', folder);
  assert.match(read(folder, 'acervus-draft.yaml'), /nothing marks it as a whole page/);
  const declared = makeSite({
    'index.html': htmlPage('x'),
    'part.html': two,
    'acervus.json': '{ "components": ["part.html"] }',
  });
  await acervus('draft', declared);
  await acervus('adopt', declared);
  assert.match(read(declared, 'part.html'), /^<p class="/);
  assert.match(read(declared, 'index.html'), /shared\.css/);
});

test('configuration names the shared sheet, and what is excluded is not read', async () => {
  const folder = makeSite({
    'index.html': htmlPage(two),
    'old/index.html': Buffer.from([0, 1, 2]),
    'acervus.json': '{ "shared": "css/own/all.css", "exclude": ["old"] }',
  });
  assert.equal((await acervus('draft', folder)).code, 0);
  assert.equal((await acervus('adopt', folder)).code, 0);
  assert.match(read(folder, 'css/own/all.css'), /color: red;/);
  assert.match(read(folder, 'index.html'), /href="css\/own\/all\.css"/);
});

test('a page in a declared many-byte encoding is edited in it', async () => {
  // 0x83 0x5C is one letter there, whose second byte is a backslash here.
  const body = Buffer.concat([
    Buffer.from(htmlPage(two).replace('utf-8', 'shift_jis').replaceAll('\u00e9', '')),
    Buffer.from([0x83, 0x5c]),
  ]);
  const { bytes, elements } = await cycle({ 'index.html': body });
  assert.equal(elements, 2);
  assert.ok(bytes.subarray(-2).equals(Buffer.from([0x83, 0x5c])));
});
