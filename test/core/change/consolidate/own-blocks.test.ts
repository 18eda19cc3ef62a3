import assert from 'node:assert/strict';
import { test } from 'node:test';
import { SiteModel } from '../../../../src/core/cascade/index.js';
import { consolidateMarkup } from '../../../../src/core/change/consolidate/markup.js';
import { type Difference, type Judge, TRUST } from '../../../../src/core/proof/index.js';
import { TASTES } from '../../../../src/core/search/index.js';
import { styledTagsOf } from '../../../../src/core/stock/index.js';
import { modelOf, scriptsOf } from '../../../support/model.js';

const FILES = {
  'site.css': '.card { top: 1px }\n',
  'a.vue':
    '<template><p style="color: navy; margin: 0">a</p><p style="color: navy; margin: 0">b</p></template>\n<style scoped>\nb { top: 1px }\n</style>\n',
  'b.vue':
    '<template><i style="color: teal; margin: 0">a</i><i style="color: teal; margin: 0">b</i></template>\n',
};

function textsAfter(judge: Judge): (path: string) => string | undefined {
  const [{ sources, table }, scripts] = [modelOf(FILES), scriptsOf(FILES)];
  const given = new Map(Object.keys(FILES).map((path) => [path, ['site.css']]));
  const model = new SiteModel({ ...sources, given }, table);
  const { after } = consolidateMarkup(
    model,
    scripts,
    styledTagsOf(model, scripts, { pictureSizes: 'keep' }),
    {
      themes: ['site.css'],
      shared: { path: 'site.css', partNames: {} },
      atLeast: 2,
      outdated: false,
      taste: TASTES.balanced,
      scope: 'site',
      unreadDocuments: [],
      decide: (styles) => ({
        styles: styles.map((style) => ({
          ...style,
          className: style.members[0]?.styledTag.element?.name === 'p' ? 'navy' : 'teal',
        })),
        kept: [],
      }),
      judge,
    },
  );
  return (path) => after.sources.pages.get(path) ?? after.sources.sheets.get(path);
}

test('each component of a house that writes blocks gets its own rules', () => {
  const textOf = textsAfter(TRUST);
  assert.match(textOf('a.vue')!, /b \{ top: 1px \}\n\.navy \{ color: navy; margin: 0; \}\n<\/style>/);
  assert.match(textOf('b.vue')!, /\n<style scoped>\n\.teal \{\n {2}color: teal;\n\}\n<\/style>\n$/);
  assert.equal(textOf('site.css'), FILES['site.css']);
});

test('where the proof refuses a rule in the block of a component, it goes to the shared sheet', () => {
  const textOf = textsAfter((before, after) => {
    const found: Difference[] = [];
    if (after.sources.pages.get('a.vue')!.includes('.navy'))
      found.push({ kind: 'page', page: 'a.vue', what: 'it looks different' });
    return { ...TRUST(before, after), differences: found };
  });
  assert.doesNotMatch(textOf('a.vue')!, /\.navy/);
  assert.match(textOf('a.vue')!, /<p class="navy">a<\/p><p class="navy">b<\/p>/);
  assert.match(textOf('site.css')!, /\.navy \{/);
  assert.doesNotMatch(textOf('site.css')!, /\.teal/);
});
