// Changes that mean to change something, on random sites, as Chromium sees them: what was meant has the asked value, and
// nothing else looks different.

import assert from 'node:assert/strict';
import path from 'node:path';
import { test } from 'node:test';
import type { Page as Tab } from 'playwright-core';
import { compileSelectorList, NEVER, type SiteModel } from '../../src/core/cascade/index.js';
import { override } from '../../src/core/change/override/index.js';
import { allRules, restyle } from '../../src/core/change/restyle/index.js';
import { applyToSources, type DeclarationChange, type Edit } from '../../src/core/edits/index.js';
import { withBrowser } from '../support/chromium.js';
import { Random, site } from '../support/generate.js';
import { modelOf } from '../support/model.js';
import { Seeds } from '../support/seeds.js';
import { addFiles, makeSite } from '../support/site.js';

const SEEDS = new Seeds('browser/changes', 24);

/** Not inherited, and computed as written wherever they stand. */
const ASKED: readonly (readonly [property: string, value: string])[] = [
  ['opacity', '0.25'],
  ['border-top-left-radius', '5px'],
  ['z-index', '41'],
];

/** The property of every element in the body, in document order. */
async function valuesOf(tab: Tab, file: string, property: string): Promise<string[]> {
  await tab.goto(`file://${file}`);
  return tab.evaluate(
    (name) =>
      [...document.querySelectorAll('body, body *:not(style):not(link)')].map((one) =>
        getComputedStyle(one).getPropertyValue(name),
      ),
    property,
  );
}

/** Indexes among the body's elements, as `valuesOf` counts them. */
function inBody(model: SiteModel, file: string): number[] {
  const { elements } = model.page(file)!;
  const body = elements.findIndex(({ name }) => name === 'body');
  return elements
    .slice(body)
    .filter(({ name }) => name !== 'style' && name !== 'link')
    .map(({ index }) => index);
}

function matching(model: SiteModel, file: string, selector: string): Set<number> {
  const list = compileSelectorList(selector);
  const page = model.page(file)!;
  const [reader] = model.readersOf(page);
  return new Set(
    page.elements
      .map(({ index }) => index)
      .filter(
        (index) =>
          list.kind === 'list' && list.selectors.some((one) => reader!.matches(one, index) !== NEVER),
      ),
  );
}

async function check(
  tab: Tab,
  files: Record<string, string>,
  model: SiteModel,
  edits: ReadonlyMap<string, readonly Edit[]>,
  selector: string,
  { property, value }: DeclarationChange,
  everyMeant: boolean,
): Promise<number> {
  const { pages, sheets } = applyToSources(model.sources, edits);
  const [before, after] = [makeSite(files), makeSite(files)];
  addFiles(after, Object.fromEntries([...pages, ...sheets]));
  let moved = 0;
  for (const file of pages.keys()) {
    const [was, is] = [
      await valuesOf(tab, path.join(before, file), property),
      await valuesOf(tab, path.join(after, file), property),
    ];
    const meant = matching(model, file, selector);
    for (const [at, index] of inBody(model, file).entries()) {
      const told = `${file} ${index} ${selector} { ${property}: ${value} }\n${files[file]}\n${sheets.get('kit.css')}\n${sheets.get('shared.css')}`;
      if (!meant.has(index)) assert.equal(is[at], was[at], told);
      else if (everyMeant) assert.equal(is[at], value, told);
      else assert.ok(is[at] === value || is[at] === was[at], told);
      if (is[at] !== was[at]) moved++;
    }
  }
  return moved;
}

function asked(random: Random): DeclarationChange {
  const [property, value] = random.pick(ASKED);
  return { property, value, important: false };
}

test(`${SEEDS.many} overrides on random sites do what they say, and no more`, async (context) => {
  await withBrowser(context, async (tab) => {
    let [moved, refused] = [0, 0];
    for (const seed of SEEDS) {
      const files = site(seed);
      const model = modelOf(files);
      const random = new Random(seed * 7);
      const selector = random.pick(['.a', '.b', 'p', 'div .a', '.Quay, li', 'section > *', 'b', '.c.d']);
      const change = asked(random);
      const everywhere = random.chance(50);
      const result = override({
        model,
        shared: 'shared.css',
        partNames: {},
        selector,
        changes: [change],
        within: { kind: 'site' },
        medium: undefined,
        everywhere,
        strangers: [],
      });
      if (result.kind !== 'planned' || result.proof.strays.length + result.unmet.length > 0) {
        refused++;
        continue;
      }
      moved += await check(tab, files, model, result.edits, selector, change, everywhere);
    }
    assert.ok(
      !SEEDS.areMany || (moved > SEEDS.many / 2 && refused < SEEDS.many / 2),
      `${moved} moved, ${refused} refused`,
    );
  });
});

test(`${SEEDS.many} restyled rules on random sites change their own elements only`, async (context) => {
  await withBrowser(context, async (tab) => {
    let moved = 0;
    for (const seed of SEEDS) {
      const files = site(seed + 500);
      const model = modelOf(files);
      const random = new Random(seed * 13);
      const rules = allRules(model, ['kit.css']).filter(({ rule: { selectors, conditions } }) => {
        const [only = ''] = selectors.length === 1 && conditions.length === 0 ? selectors : [];
        return only !== '' && !only.includes('::') && matching(model, 'index.html', only).size > 0;
      });
      if (rules.length === 0) continue;
      const selector = random.pick(rules).rule.selectors[0]!;
      const one = selector.split(/,(?![^(]*\))/)[0]!.trim();
      const change = asked(random);
      const input = {
        model,
        themes: ['kit.css'],
        selector: one,
        changes: [change],
        medium: undefined,
        token: false,
      };
      const result = restyle(input, () => false);
      if ('kind' in result || result.proof.strays.length > 0) continue;
      moved += await check(tab, files, model, result.edits, one, change, false);
    }
    assert.ok(!SEEDS.areMany || moved > SEEDS.many / 4, `${moved} moved`);
  });
});
