// Drafts that somebody went over by hand, on random sites: whatever is refused, excepted, renamed, merged or left out, what is
// adopted looks as before, what cannot be is refused with nothing written, and all of it is taken back byte for byte.

import assert from 'node:assert/strict';
import { cpSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { parseDocument, type YAMLMap, type YAMLSeq } from 'yaml';
import { lookDifferent, POINTED_AT, withBrowser } from '../support/chromium.js';
import { Random, site } from '../support/generate.js';
import { Seeds } from '../support/seeds.js';
import { acervus, makeSite, snapshot } from '../support/site.js';

const SEEDS = new Seeds('browser/edited-drafts', 2, 6000);

type Entry = YAMLMap<string, unknown>;

/** Goes over each style as a person might who has not thought about it long. */
function goOver(text: string, random: Random): string {
  const draft = parseDocument(text);
  const styles = (draft.get('styles') as YAMLSeq<Entry> | undefined)?.items ?? [];
  const names = styles.flatMap((one) => {
    const name = one.get('name');
    return typeof name === 'string' ? [name] : [];
  });
  for (const [at, style] of styles.entries()) {
    const name = style.get('name');
    if (random.chance(15)) style.set('take', 'no');
    if (name !== undefined && random.chance(20)) style.set('name', `tide-${at}`);
    if (name !== undefined && names.length > 1 && random.chance(15)) style.set('into', random.pick(names));
    const [place] = (style.get('such as') as YAMLSeq<string> | undefined)?.items ?? [];
    if (place !== undefined && random.chance(25)) style.set('except', [String(place)]);
    const lines = String(style.get('declarations') ?? '')
      .trim()
      .split('\n');
    if (lines.length > 1 && random.chance(20))
      style.set('declarations', `${lines.filter((_, i) => i !== 1).join('\n')}\n`);
  }
  return String(draft);
}

test(`${SEEDS.many} drafts that were edited by hand: adopted, they look as before; undone, they are as before`, async (context) => {
  await withBrowser(context, async (tab) => {
    const counts = { adopted: 0, refused: 0 };
    for (const seed of SEEDS) {
      const random = new Random(seed * 19);
      const folder = makeSite(site(seed));
      const before = makeSite({});
      cpSync(folder, before, { recursive: true });
      const options = [
        '--taste',
        random.pick(['balanced', 'whole looks', 'small pieces']),
        '--scope',
        random.pick(['site', 'page']),
      ];
      const drafted = await acervus('draft', folder, '--at-least', '2', ...options);
      assert.ok(drafted.code === 0, `${SEEDS.name(seed)} ${drafted.stderr}`);
      const file = path.join(folder, 'acervus-draft.yaml');
      writeFileSync(file, goOver(readFileSync(file, 'utf8'), random));
      const untouched = snapshot(folder);
      const adopted = await acervus('adopt', folder);
      const told = `${SEEDS.name(seed)}\n${readFileSync(file, 'utf8')}\n${adopted.stdout}${adopted.stderr}`;
      assert.ok(adopted.code === 0 || adopted.code === 2, told);
      if (adopted.code === 2) {
        counts.refused++;
        assert.match(adopted.stderr, /^acervus: [^\n]+\n$/, told);
        assert.deepEqual(snapshot(folder), untouched, told);
        continue;
      }
      counts.adopted++;
      for (const page of ['index.html', 'other.html'].filter((one) => one in site(seed)))
        for (const state of [undefined, POINTED_AT]) {
          const different = await lookDifferent(tab, path.join(before, page), path.join(folder, page), state);
          assert.deepEqual(different.slice(0, 3), [], `${page} ${told}`);
        }
      await acervus('undo', folder);
      const after = snapshot(folder);
      for (const [name, bytes] of snapshot(before))
        assert.deepEqual(after.get(name), bytes, `${name} ${told}`);
    }
    context.diagnostic(JSON.stringify(counts));
    assert.ok(!SEEDS.areMany || counts.adopted > SEEDS.many / 4, JSON.stringify(counts));
  });
});
