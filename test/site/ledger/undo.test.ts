// What `undo` and a change refuse to do: each guard of the ledger, by its name.

import assert from 'node:assert/strict';
import { chmodSync, existsSync, mkdirSync, readdirSync, utimesSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { type FileChange, refuseUnfinished, writeChange } from '../../../src/site/ledger/change.js';
import { lastRecord, saveRecord } from '../../../src/site/ledger/record.js';
import { undoLast } from '../../../src/site/ledger/undo.js';
import { addFiles, makeSite, read } from '../../support/site.js';

const UTF_8 = { name: 'utf-8', mark: false };
const change = (file: string, text: string, to: string): FileChange => ({
  ...{ path: file, text, encoding: UTF_8 },
  edits: [{ start: 0, end: text.length, text: to }],
});

/** Two pages that a change wrote, and a sheet in a folder that it made. */
function changed(more: Readonly<Record<string, string>> = {}): string {
  const root = makeSite({ 'a.html': 'one', 'b.html': 'two', ...more });
  writeChange(root, 'adopt', [
    change('a.html', 'one', 'ONE'),
    change('b.html', 'two', 'TWO'),
    change('styles/line/shared.css', '', 'p {}'),
  ]);
  return root;
}

const code = (expected: string) => (error: unknown) => (error as { code?: string }).code === expected;

test('undo gives back every byte and takes away the files and folders that the change made', () => {
  const root = changed();
  const undone = undoLast(root);
  assert.deepEqual(undone?.restored, ['a.html', 'b.html']);
  assert.deepEqual(undone.removed, ['styles/line/shared.css']);
  assert.equal(undone.unfinished, false);
  assert.deepEqual(readdirSync(root).sort(), ['a.html', 'b.html']);
  assert.equal(read(root, 'a.html') + read(root, 'b.html'), 'onetwo');
  assert.equal(undoLast(root), undefined);
});

test('a folder in which somebody put a file stays', () => {
  const root = changed();
  addFiles(root, { 'styles/line/own.css': 'b {}' });
  undoLast(root);
  assert.deepEqual(readdirSync(path.join(root, 'styles/line')), ['own.css']);
});

test('undo writes nothing where one of the files was changed since', () => {
  const root = changed();
  addFiles(root, { 'b.html': 'three' });
  assert.throws(() => undoLast(root), code('changed-since'));
  assert.equal(read(root, 'a.html') + read(root, 'b.html'), 'ONEthree');
  // A file that is as it was before the change is no obstacle.
  addFiles(root, { 'b.html': 'two' });
  assert.deepEqual(undoLast(root)?.restored, ['a.html', 'b.html']);
  assert.equal(read(root, 'a.html') + read(root, 'b.html'), 'onetwo');
});

test('a file that is gone was changed, unless the change made it', () => {
  const root = changed();
  const { record, file } = lastRecord(root)!;
  const without = record.files.filter(({ path: one }) => one !== 'b.html');
  const gone = { ...record.files[1]!, path: 'gone.html' };
  saveRecord(root, { ...record, files: [...without, gone] }, file);
  assert.throws(() => undoLast(root), code('changed-since'));
  assert.equal(read(root, 'a.html'), 'ONE');
  saveRecord(root, { ...record, files: [...without, { ...gone, before: null }] }, file);
  undoLast(root);
  assert.equal(read(root, 'a.html'), 'one');
});

test('a record whose edits do not lead back to the bytes before is broken, and nothing is written', () => {
  const root = changed();
  const { record, file } = lastRecord(root)!;
  const [first, ...rest] = record.files;
  saveRecord(root, { ...record, files: [...rest, { ...first!, back: [] }] }, file);
  assert.throws(() => undoLast(root), code('record-broken'));
  assert.equal(read(root, 'a.html') + read(root, 'b.html'), 'ONETWO');
});

test('a record that names a sheet of the platform was made by somebody else', () => {
  const root = changed();
  addFiles(root, { 'acervus.json': '{ "platform": ["styles/**"] }' });
  assert.throws(() => undoLast(root), code('not-a-record'));
  assert.equal(existsSync(path.join(root, 'styles/line/shared.css')), true);
});

test('a record that is none, or of a path outside of the site, is refused', () => {
  const root = changed();
  const { record, file } = lastRecord(root)!;
  for (const text of [
    '{}',
    'no json',
    JSON.stringify({ ...record, files: [{ ...record.files[0], path: '../a.html' }] }),
    JSON.stringify({ ...record, folders: ['/tmp'] }),
  ]) {
    writeFileSync(file, text);
    assert.throws(() => undoLast(root), code('not-a-record'), text);
  }
});

test('no change begins while one is unfinished, and undo puts that right', () => {
  for (const [state, expected] of [
    ['writing', 'change-unfinished'],
    ['undoing', 'undo-unfinished'],
  ] as const) {
    const root = changed();
    const { record, file } = lastRecord(root)!;
    saveRecord(root, { ...record, state }, file);
    assert.throws(() => refuseUnfinished(root), code(expected));
    assert.throws(() => writeChange(root, 'adopt', [change('a.html', 'ONE', '1')]), code(expected));
    assert.equal(undoLast(root)?.unfinished, true);
    assert.equal(read(root, 'a.html'), 'one');
  }
});

test('what a change that was cut short began goes; a file of such a name that was there before stays', () => {
  const root = changed();
  const { record, file } = lastRecord(root)!;
  addFiles(root, { 'a.html.123456': 'begun', 'b.html.123456': 'older', 'notes.txt.123456': 'another file' });
  utimesSync(path.join(root, 'b.html.123456'), new Date(0), new Date(0));
  saveRecord(root, { ...record, state: 'writing' }, file);
  undoLast(root);
  assert.deepEqual(readdirSync(root).sort(), ['a.html', 'b.html', 'b.html.123456', 'notes.txt.123456']);
});

test('a change whose text is not that of the file is refused before anything is written', () => {
  const root = makeSite({ 'a.html': 'one', 'b.html': 'other' });
  const both = [change('a.html', 'one', 'ONE'), change('b.html', 'two', 'TWO')];
  assert.throws(() => writeChange(root, 'adopt', both), code('file-changed'));
  assert.deepEqual(readdirSync(root).sort(), ['a.html', 'b.html']);
  assert.equal(read(root, 'a.html'), 'one');
});

test('a file that is read only is not written, even where the user might', () => {
  const root = makeSite({ 'a.html': 'one' });
  chmodSync(path.join(root, 'a.html'), 0o444);
  assert.throws(() => writeChange(root, 'adopt', [change('a.html', 'one', 'ONE')]), code('read-only'));
  assert.equal(read(root, 'a.html'), 'one');
});

test('a change that fails on the way is taken back whole', () => {
  const root = makeSite({ 'a.html': 'one' });
  // A folder stands where the last file would go.
  mkdirSync(path.join(root, 'z.css'));
  assert.throws(() =>
    writeChange(root, 'adopt', [change('a.html', 'one', 'ONE'), change('z.css', '', 'p {}')]),
  );
  assert.equal(read(root, 'a.html'), 'one');
  assert.equal(existsSync(path.join(root, '.acervus')), false);
});
