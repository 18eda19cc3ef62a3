// Changes that mean to change something, on random sites, as Chromium sees them: what was meant has the asked value, or what
// it had where that is told, and nothing else changes at all.

import assert from 'node:assert/strict';
import { type TestContext, test } from 'node:test';
import type { Page as Tab } from 'playwright-core';
import { compileSelectorList, NEVER, type SiteModel } from '../../src/core/cascade/index.js';
import { override } from '../../src/core/change/override/index.js';
import { allRules, restyle } from '../../src/core/change/restyle/index.js';
import { applyToSources, type Edit } from '../../src/core/edit/text/index.js';
import { differenceText, type IntentProof, isAsWished } from '../../src/core/proof/index.js';
import { withBrowser } from '../support/chromium.js';
import { Random, site } from '../support/generate.js';
import { asked, contested, type Judged, judge, MEDIA } from '../support/intent.js';
import { modelOf } from '../support/model.js';
import { Seeds } from '../support/seeds.js';
import { addFiles, makeSite } from '../support/site.js';

const SEEDS = new Seeds('browser/changes', 3);

function matches(model: SiteModel, file: string, selector: string): boolean {
  const list = compileSelectorList(selector);
  const page = model.page(file)!;
  const [reader] = model.readersOf(page);
  return (
    list.kind === 'list' &&
    page.elements.some(({ index }) => list.selectors.some((one) => reader!.matches(one, index) !== NEVER))
  );
}

/** Out: how many elements moved in Chromium. */
async function check(
  tab: Tab,
  files: Record<string, string>,
  model: SiteModel,
  edits: ReadonlyMap<string, readonly Edit[]>,
  asks: Judged,
): Promise<number> {
  const { pages, sheets } = applyToSources(model.sources, edits);
  const [before, after] = [makeSite(files), makeSite(files)];
  addFiles(after, Object.fromEntries([...pages, ...sheets]));
  let moved = 0;
  for (const file of pages.keys()) {
    const seen = await judge(tab, [before, after], file, asks);
    moved += seen.moved;
    assert.deepEqual(
      seen.wrong.slice(0, 3),
      [],
      `${file} ${JSON.stringify(asks)}\n${pages.get(file)}\n${sheets.get('kit.css')}\n${sheets.get('shared.css')}`,
    );
  }
  return moved;
}

/** Counts a refusal. A page that cannot be decided at all, as one whose layers hang on a condition, is counted apart. */
function note(
  context: TestContext,
  counts: { refused: number; undecided: number },
  seed: number,
  { strays: [stray] }: IntentProof,
  [unmet]: readonly string[],
): void {
  const isUndecided = stray?.kind === 'page';
  if (isUndecided) counts.undecided++;
  else counts.refused++;
  if (process.env.ACERVUS_SEED !== undefined && !isUndecided)
    context.diagnostic(`${seed} refused: ${unmet ?? (stray && differenceText(stray))}`);
}

/** The site that a seed makes, with a sheet that has much to say of what is asked. */
function fightingSite(seed: number, random: Random): Record<string, string> {
  const files = site(seed);
  return { ...files, 'kit.css': contested(files['kit.css'] ?? '', random) };
}

test(`${SEEDS.many} overrides on random sites do what they say, and no more`, async (context) => {
  await withBrowser(context, async (tab) => {
    const counts = { moved: 0, refused: 0, undecided: 0, impossible: 0, planned: 0 };
    for (const seed of SEEDS) {
      const random = new Random(seed * 7);
      const files = fightingSite(seed, random);
      const model = modelOf(files);
      const selector = random.pick(['.a', '.b', 'p', 'div .a', '.Quay, li', 'section > *', 'b', '.c.d']);
      const change = asked(random);
      const everywhere = random.chance(30);
      const medium = random.chance(50) ? random.pick(MEDIA) : undefined;
      const result = override({
        model,
        shared: 'shared.css',
        partNames: {},
        selector,
        changes: [change],
        within: { kind: 'site' },
        medium,
        everywhere,
        unreadDocuments: [],
      });
      if (result.kind !== 'planned') {
        if (result.kind === 'impossible') counts.impossible++;
        continue;
      }
      counts.planned++;
      if (!isAsWished(result.proof) || result.unmet.length > 0) {
        note(context, counts, seed, result.proof, result.unmet);
        continue;
      }
      const asks = { selector, medium, everywhere, property: change.property, values: [change.value ?? ''] };
      counts.moved += await check(tab, files, model, result.edits, asks);
    }
    context.diagnostic(JSON.stringify(counts));
    assert.ok(
      !SEEDS.areMany || (counts.moved > SEEDS.many / 2 && counts.refused <= counts.planned / 8),
      JSON.stringify(counts),
    );
  });
});

test(`${SEEDS.many} restyled rules on random sites change their own elements only`, async (context) => {
  await withBrowser(context, async (tab) => {
    const counts = { moved: 0, refused: 0, undecided: 0, planned: 0 };
    for (const seed of SEEDS) {
      const random = new Random(seed * 13);
      const files = fightingSite(seed + 500, random);
      const model = modelOf(files);
      const rules = allRules(model, ['kit.css']).filter(({ rule: { selector, nesting, conditions } }) => {
        const only = nesting.length === 1 && conditions.length < 2 ? selector : '';
        return only !== '' && !only.includes('::') && matches(model, 'index.html', only);
      });
      if (rules.length === 0) continue;
      const { rule } = random.pick(rules);
      const [selector = ''] = compiled(rule.selector);
      const [condition] = rule.conditions;
      if (selector === '' || (condition !== undefined && condition.kind !== 'media')) continue;
      const change = asked(random);
      const result = restyle(
        {
          model,
          themes: ['kit.css'],
          selector,
          changes: [change],
          medium: condition?.text,
          token: random.chance(20),
        },
        () => false,
      );
      if ('kind' in result) continue;
      counts.planned++;
      if (!isAsWished(result.proof)) {
        note(context, counts, seed, result.proof, result.proof.wrong);
        continue;
      }
      const asks = {
        selector,
        medium: condition?.text,
        property: change.property,
        values: [change.value ?? ''],
      };
      counts.moved += await check(tab, files, model, result.edits, asks);
    }
    context.diagnostic(JSON.stringify(counts));
    assert.ok(
      !SEEDS.areMany || (counts.moved > SEEDS.many / 4 && counts.refused < counts.planned / 5),
      JSON.stringify(counts),
    );
  });
});

function compiled(text: string): string[] {
  const list = compileSelectorList(text);
  return list.kind === 'list' ? list.selectors.map((one) => one.text) : [];
}
