// What is written for browsers that drop the rest of it moves with that, and a draft tells what it deletes.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { acervus, makeSite, read } from '../support/site.js';

const page = (body: string): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Fares</title><link rel="stylesheet" href="css/line.css"></head><body>\n${body}</body></html>\n`;

test('prefixes and fallbacks move together with what they stand before', async () => {
  const styles = {
    berth: '-webkit-user-select: none; user-select: none',
    pier: 'position: -webkit-sticky; position: sticky; top: 0',
    quay: 'width: 300px; width: min(300px, 100%)',
    tide: 'background: #333; background: linear-gradient(#333, #000)',
  };
  const tags = Object.entries(styles).map(([name, style]) => `<p class="${name}" style="${style}">x</p>\n`);
  const site = makeSite({
    'a.html': page(tags.join('').repeat(2)),
    'css/line.css': '.line { margin: 0 }\n',
  });
  assert.equal((await acervus('draft', site)).code, 0);
  assert.equal((await acervus('adopt', site)).code, 0);
  assert.doesNotMatch(read(site, 'a.html'), /style=/);
  const sheet = read(site, 'css/line.css');
  for (const style of Object.values(styles))
    for (const declaration of style.split('; ')) assert.ok(sheet.includes(`${declaration};`), declaration);
});

test('a draft names the declaration that it deletes from a rule, since a later one always beats it', async () => {
  const site = makeSite({
    'a.html': page('<p class="berth">x</p>\n'),
    'css/line.css': '.berth { color: red; color: blue }\n',
  });
  const { stdout } = await acervus('draft', site);
  assert.match(stdout.replace(/\s+/g, ' '), /\.berth without color: red, which a later one always beats/);
  assert.match(read(site, 'acervus-draft.yaml'), /drops: "color: red"/);
  assert.equal((await acervus('adopt', site)).code, 0);
  assert.match(read(site, 'css/line.css'), /^\.berth \{ ?color: blue;? ?\}/);
});

test('a set with prefixes that stands in three rules is one set; three plain lines are chance', async () => {
  const draftOf = async (set: string): Promise<string> => {
    const names = ['berth', 'tide', 'lamp'];
    const site = makeSite({
      'a.html': page(names.map((name) => `<p class="${name}">x</p>\n`).join('')),
      'css/line.css': names.map((name, at) => `.${name} { order: ${at}; ${set} }\n`).join('\n/* apart */\n'),
    });
    return (await acervus('draft', site)).stdout.replace(/\s+/g, ' ');
  };
  const corners = '-webkit-border-radius: 5px; -moz-border-radius: 5px; border-radius: 5px';
  assert.match(await draftOf(corners), /\.berth, \.tide, \.lamp .*-moz-border-radius: 5px/);
  assert.doesNotMatch(await draftOf('top: 5px; left: 5px; z-index: 5'), /\.berth, \.tide, \.lamp/);
});
