import assert from 'node:assert/strict';
import { test } from 'node:test';
import { ALWAYS, compileSelectorList, Matcher, NEVER, TruthTable } from '../../src/core/cascade/index.js';
import { parsePage } from '../../src/core/read/markup/index.js';
import { withBrowser } from '../support/chromium.js';
import { body, Random, selector } from '../support/generate.js';
import { Seeds } from '../support/seeds.js';
import { htmlPage } from '../support/site.js';

const SEEDS = new Seeds('browser/selectors', 70);

test('selectors match what Chromium finds, on random pages', async (context) => {
  await withBrowser(context, async (tab) => {
    for (const seed of SEEDS) {
      const random = new Random(seed);
      const doctype = seed % 4 === 0 ? '<html>' : '<!DOCTYPE html>';
      const html = htmlPage(body(random)).replace('<!DOCTYPE html>', doctype);
      const page = parsePage('index.html', html);
      const matcher = new Matcher(page, new TruthTable());
      const selectors = Array.from({ length: 40 }, () => selector(random, 0, true));
      await tab.setContent(html);
      const found = await tab.evaluate((texts) => {
        const all = [...document.querySelectorAll('*')];
        return texts.map((text) => {
          try {
            return [...document.querySelectorAll(text)].map((element) => all.indexOf(element));
          } catch {
            return undefined;
          }
        });
      }, selectors);
      selectors.forEach((text, at) => {
        const list = compileSelectorList(text);
        const expected = found[at];
        if (list.kind === 'list' && list.unsure && expected === undefined) return;
        assert.equal(list.kind === 'invalid', expected === undefined, `${SEEDS.name(seed)}: ${text}`);
        if (list.kind === 'invalid') return;
        const truths = page.elements.map(({ index }) =>
          list.selectors.map((one) => matcher.match(one, index)),
        );
        for (const one of truths.flat())
          assert.ok(one === ALWAYS || one === NEVER, `${SEEDS.name(seed)}: ${text} is left open`);
        const matched = truths.flatMap((one, index) => (one.includes(ALWAYS) ? [index] : []));
        assert.deepEqual(matched, expected, `${SEEDS.name(seed)}: ${text}\n${html}`);
      });
    }
  });
});
