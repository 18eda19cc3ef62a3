// A site shared out to several machines: what the parts come to is what one machine finds, byte for byte.

import assert from 'node:assert/strict';
import { cpSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { acervus, DEMO, makeSite, read } from '../support/site.js';

function demo(): string {
  const site = makeSite({});
  cpSync(DEMO, site, { recursive: true });
  return site;
}

/** Runs a command for each of so many parts. Out: their files. */
async function parts(many: number, ...args: string[]): Promise<string[]> {
  const folder = makeSite({});
  const files: string[] = [];
  for (let part = 1; part <= many; part++) {
    const { code, stdout, stderr } = await acervus(...args, '--part', `${part}/${many}`);
    assert.equal(code, 0, stderr);
    const file = path.join(folder, `part-${part}.json`);
    writeFileSync(file, stdout);
    files.push(file);
  }
  return files;
}

test('the survey of eight parts is the survey of the whole', async () => {
  const site = demo();
  const whole = await acervus('survey', site, '--json');
  const files = await parts(8, 'survey', site);
  const joined = await acervus('survey', site, '--json', '--join', ...files.reverse());
  assert.equal(joined.stdout, whole.stdout);
  assert.equal(joined.code, whole.code);
  // Twenty machines for a site are no harm, and neither is a person who reads.
  const shown = await acervus('survey', site, '--join', ...(await parts(60, 'survey', site)));
  assert.equal(shown.stdout, (await acervus('survey', site)).stdout);
});

test('the proof of eight parts is the proof of the whole, with every difference', async () => {
  const [before, after] = [demo(), demo()];
  const sheet = path.join(after, 'theme', 'skerrin.css');
  writeFileSync(
    sheet,
    `${readFileSync(sheet, 'utf8')}\nh2 { letter-spacing: 1px }\n.berth-plan { margin: 0 }\n`,
  );
  const page = path.join(after, 'index.html');
  writeFileSync(page, read(after, 'index.html').replace('<h1', '<h1 style="color: teal"'));
  const whole = await acervus('prove', after, '--against', before, '--json');
  assert.equal(whole.code, 1);
  assert.ok(JSON.parse(whole.stdout).differences.length > 20);
  const files = await parts(8, 'prove', after, '--against', before);
  const joined = await acervus('prove', after, '--against', before, '--json', '--join', ...files);
  assert.equal(joined.stdout, whole.stdout);
  assert.equal(joined.code, 1);
});

test('what does not come to a whole is refused in one line', async () => {
  const site = demo();
  const refused = async (pattern: RegExp, ...args: string[]): Promise<void> => {
    const { code, stdout, stderr } = await acervus('survey', site, ...args);
    assert.deepEqual([code, stdout], [2, '']);
    assert.match(stderr, pattern);
    assert.equal(stderr.trim().split('\n').length, 1);
  };
  const files = await parts(3, 'survey', site);
  for (const given of ['4/3', '0/3', '3', 'x/y', '1/9999999'])
    await refused(/--part: .* is no part; write it as 3\/8/, '--part', given);
  await refused(/--part: .*at once/, '--part', '1/3', '--join', ...files);
  await refused(/missing of 3: part 2/, '--join', files[0]!, files[2]!);
  await refused(/part 1 of 3 is there already/, '--join', files[0]!, ...files);
  const broken = path.join(path.dirname(files[0]!), 'broken.json');
  for (const text of ['', '{}', readFileSync(files[0]!, 'utf8').replace('pages', 'Pages')]) {
    writeFileSync(broken, text);
    await refused(/broken\.json: is no part/, '--join', broken, ...files.slice(1));
  }
  const proof = await parts(1, 'prove', site, '--against', site);
  await refused(/is no part that "acervus survey --part" has written/, '--join', ...proof);
  writeFileSync(path.join(site, 'index.html'), `${read(site, 'index.html')}<p>More</p>\n`);
  await refused(/part-\d\.json: was made of files that have changed since/, '--join', ...files);
});
