// Components: what frameworks render of them looks as before.

import assert from 'node:assert/strict';
import path from 'node:path';
import { test } from 'node:test';
import { adopt, draft, prove } from '../../src/index.js';
import { type Framework, type Props, randomComponents, renderComponents } from '../support/components.js';
import { Random } from '../support/generate.js';
import { Seeds } from '../support/seeds.js';
import { makeSite } from '../support/site.js';

const SHOWN: readonly Props[] = [true, false].flatMap((shut) =>
  [true, false].flatMap((late) => [[], ['a', 'b', 'c']].map((list) => ({ shut, late, list }))),
);

async function pagesOf(site: string, framework: Framework): Promise<Record<string, string>> {
  const pages = await renderComponents(site, framework, SHOWN);
  return Object.fromEntries(pages.map((text, at) => [`page-${at}.html`, text]));
}

for (const framework of ['react', 'vue', 'svelte'] as const)
  test(`what ${framework} renders of random components looks the same once styles have moved`, async () => {
    const seeds = new Seeds(`cli/components`, 12);
    let moved = 0;
    for (const seed of seeds) {
      const site = makeSite(randomComponents(new Random(seed), framework));
      const before = makeSite(await pagesOf(site, framework));
      await draft(site);
      const { upkeep, written } = await adopt(site);
      if (!written) continue;
      moved += upkeep.now - upkeep.after;
      const after = makeSite(await pagesOf(site, framework));
      const { differences } = await prove(after, before);
      assert.deepEqual(
        differences.slice(0, 2),
        [],
        `${framework}, ${seeds.name(seed)}, ${path.basename(site)}`,
      );
    }
    if (seeds.areMany) assert.ok(moved > 20, `only ${moved} places`);
  });
