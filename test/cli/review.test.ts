import assert from 'node:assert/strict';
import { spawn } from 'node:child_process';
import path from 'node:path';
import { test } from 'node:test';
import { adoptDocument } from '../../src/commands/adopt/document.js';
import { surveyDocument } from '../../src/commands/survey/document.js';
import { acervus, addFiles, DEMO, htmlPage, makeSite, PROJECT, read } from '../support/site.js';

const some = (tag: string, style: string): string =>
  `<${tag} style="${style}">x</${tag}><${tag}>y</${tag}><${tag} style="${style}">x</${tag}><${tag}>y</${tag}><${tag}>y</${tag}>`;

/** The program in a terminal of its own, with an answer for every question. Out: what the terminal showed. */
function inTerminal(folder: string, answers: readonly string[]): Promise<string> {
  const program = path.join(PROJECT, 'dist', 'cli', 'main.js');
  const child = spawn('script', [
    '-qec',
    `"${process.execPath}" "${program}" draft --review "${folder}"`,
    '/dev/null',
  ]);
  let shown = '';
  let asked = 0;
  return new Promise((resolve) => {
    child.stdout.on('data', (data: Buffer) => {
      shown += data.toString();
      // A question is complete when its hint stands below its heading.
      const questions = shown.match(/\d+ of \d+/g)?.length ?? 0;
      const last = shown.slice(shown.search(/\d+ of \d+(?![\s\S]*\d+ of \d+)/));
      if (questions > asked && /select/.test(last)) {
        asked = questions;
        // Who has no answer left stops, as one does in a terminal.
        const answer = answers[questions - 1] ?? CTRL_C;
        setTimeout(() => child.stdin.write(answer), 200);
      }
    });
    const tooLong = setTimeout(() => child.kill(), 60_000);
    child.on('close', () => {
      clearTimeout(tooLong);
      resolve(shown);
    });
  });
}

const CTRL_C = '\u0003';
const ENTER = '\r';
const DOWN = '\u001b[B';

test('a review asks style by style, writes each answer at once, and goes on where it stopped', async () => {
  const folder = makeSite({
    'index.html': htmlPage(`${some('p', 'top: 0')}${some('b', 'left: 0')}${some('i', 'right: 0')}`),
  });
  const first = await inTerminal(folder, [ENTER, `${DOWN}${DOWN}${ENTER}`]);
  assert.match(first, /1 of 3/);
  assert.match(first, /now {3}<p style="top: 0">|now {3}<b style="left: 0">|now {3}<i style="right: 0">/);
  const draft = read(folder, 'acervus-draft.yaml');
  assert.equal(draft.match(/reviewed: yes/g)?.length, 1 + Number(/take: no/.test(draft)));
  const answered = draft.match(/reviewed: yes/g)!.length;
  const second = await inTerminal(folder, []);
  assert.match(second, new RegExp(`1 of ${3 - answered}`));
  assert.match(second, /goes on where you stopped/);
});

test('a review in no terminal says so', async () => {
  const folder = makeSite({ 'index.html': htmlPage(some('p', 'top: 0')) });
  const run = await acervus('draft', '--review', folder);
  assert.equal(run.code, 2);
  assert.match(run.stderr, /run it in a terminal/);
});

test('survey shows the upkeep now, after the draft, and the least possible', async () => {
  const folder = makeSite({ 'index.html': htmlPage(some('p', 'top: 0; left: 0').repeat(3)) });
  assert.doesNotMatch((await acervus('survey', folder)).stdout, /once the draft/);
  await acervus('draft', folder);
  const { upkeep } = surveyDocument.parse(JSON.parse((await acervus('survey', folder, '--json')).stdout));
  assert.deepEqual(upkeep, { now: 12, drafted: 2, least: 2 });
  await acervus('adopt', folder);
  // The draft is of a site that is no more.
  assert.doesNotMatch((await acervus('survey', folder)).stdout, /once the draft/);
});

test('the change that a draft was proven with is carried out as it is, and only on the site as it was', async () => {
  const folder = makeSite({ 'index.html': htmlPage(some('p', 'top: 0')), 'b.html': htmlPage('<p>x') });
  await acervus('draft', folder);
  const plan = path.join('.acervus', 'plan.json');
  assert.match(read(folder, plan), /"edits"/);
  const patch = (await acervus('adopt', folder, '--patch')).stdout;
  addFiles(folder, { [plan]: '{' });
  assert.equal(
    (await acervus('adopt', folder, '--patch')).stdout,
    patch,
    'planned anew, the change is the same',
  );
  await acervus('draft', folder);
  addFiles(folder, { 'b.html': htmlPage('<p style="top: 0">new') });
  const adopted = adoptDocument.parse(JSON.parse((await acervus('adopt', folder, '--json')).stdout));
  assert.equal(adopted.styles[0]?.elements, 3);
  assert.equal((await acervus('adopt', folder)).code, 0);
});

test('tastes and scopes are taken from the command line and the configuration, and wrong ones refused', async () => {
  const folder = makeSite({
    'index.html': htmlPage(some('p', 'top: 0')),
    'acervus.json':
      '{ "taste": "small pieces", "scope": "page", "naming": { "prefix": "sk-" }, "parts": { "layout": "places" } }',
  });
  await acervus('draft', folder);
  assert.match(read(folder, 'acervus-draft.yaml'), /taste: small pieces\nscope: page\n/);
  await acervus('adopt', folder);
  assert.match(read(folder, 'index.html'), /<style>\n {4}\.sk-[\w-]+ \{/);
  for (const [option, value] of [
    ['--taste', 'sweet'],
    ['--scope', 'planet'],
    ['--at-least', '0'],
  ] as const) {
    const run = await acervus('draft', DEMO, option, value);
    assert.equal(run.code, 2);
    assert.match(run.stderr, new RegExp(`${option} ${value}: expected`));
  }
});

test('a tag is shown as it is and as it would be, and one key takes all that are alike', async () => {
  const folder = makeSite({
    'index.html': htmlPage(`${some('p', 'top: 0')}${some('b', 'left: 0')}${some('i', 'right: 0')}`),
  });
  const shown = await inTerminal(folder, [`${DOWN.repeat(4)}${ENTER}`]);
  assert.match(shown, /now {3}<(p|b|i) style="/);
  assert.match(shown, /then {2}<(p|b|i) class="/);
  assert.match(shown, /take this and 2 more by a new class/);
  assert.equal(read(folder, 'acervus-draft.yaml').match(/reviewed: yes/g)?.length, 3);
  assert.match(shown, /3 \+ taken/);
});
