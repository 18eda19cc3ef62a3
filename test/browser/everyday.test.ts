// What renaming, families and mended overrides leave as it was, as Chromium sees it.

import assert from 'node:assert/strict';
import { cpSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import type { SiteModel } from '../../src/core/cascade/index.js';
import { partSelector } from '../../src/core/change/family/generate.js';
import { type FamilyTable, planFamily } from '../../src/core/change/family/index.js';
import { outlast, planMends } from '../../src/core/change/outlast/index.js';
import { rename } from '../../src/core/change/rename/index.js';
import { allRules } from '../../src/core/change/restyle/index.js';
import { applyEdits, type Edit } from '../../src/core/edit/text/index.js';
import { differenceText, isAsWished } from '../../src/core/proof/index.js';
import { AT_REST, lookDifferent, POINTED_AT, scriptRun, withBrowser } from '../support/chromium.js';
import { Random, scriptedSite, selector, site } from '../support/generate.js';
import { contested, judge, MEDIA, valuesAt } from '../support/intent.js';
import { modelOf } from '../support/model.js';
import { Seeds } from '../support/seeds.js';
import { acervus, addFiles, DEMO, demoPart, makeSite } from '../support/site.js';

const SEEDS = new Seeds('browser/everyday', 3, 900);

function written(files: Record<string, string>, edits: ReadonlyMap<string, readonly Edit[]>): string {
  const folder = makeSite(files);
  addFiles(
    folder,
    Object.fromEntries([...edits].map(([file, own]) => [file, applyEdits(files[file] ?? '', own)])),
  );
  return folder;
}

test(`${SEEDS.many} random sites look the same after a class was renamed, or merged with another`, async (context) => {
  await withBrowser(context, async (tab) => {
    const counts = { renamed: 0, refused: 0, planned: 0 };
    for (const seed of SEEDS) {
      const files = seed % 2 === 0 ? site(seed) : scriptedSite(seed);
      const model = modelOf(files);
      const merge = seed % 3 === 0;
      const {
        edits,
        differences,
        counts: own,
        unsure,
      } = rename({
        model,
        themes: ['kit.css', 'more.css'].filter((file) => model.sources.sheets.has(file)),
        scripts: new Map(),
        isLibrary: () => false,
        others: new Map(),
        from: 'a',
        to: merge ? 'c' : 'tide',
        merge,
        unsure: false,
      });
      if (edits.size === 0) continue;
      counts.planned++;
      if (differences.length + unsure.length > 0) {
        counts.refused++;
        if (process.env.ACERVUS_SEED !== undefined)
          context.diagnostic(
            `${seed} refused: ${unsure[0]?.what ?? (differences[0] && differenceText(differences[0]))}`,
          );
        continue;
      }
      counts.renamed += own.markup;
      const [before, after] = [makeSite(files), written(files, edits)];
      for (const page of pagesOf(model))
        for (const [what, states] of [
          ['at rest', [AT_REST, AT_REST]],
          ['pointed at', [POINTED_AT, POINTED_AT]],
          [
            'after its script',
            [scriptRun(files[page] ?? ''), scriptRun(readFileSync(path.join(after, page), 'utf8'))],
          ],
        ] as const) {
          if (what === 'after its script' && seed % 2 === 0) continue;
          const different = await lookDifferent(
            tab,
            path.join(before, page),
            path.join(after, page),
            ...states,
          );
          assert.deepEqual(
            different.slice(0, 3),
            [],
            `${SEEDS.name(seed)}, ${page} ${what}\n${files[page]}\n${files['kit.css']}`,
          );
        }
    }
    context.diagnostic(JSON.stringify(counts));
    assert.ok(!SEEDS.areMany || counts.renamed > SEEDS.many / 2, JSON.stringify(counts));
  });
});

/** The drawing is a file of the site too, and none of its pages. */
function pagesOf({ paths }: SiteModel): string[] {
  return paths.filter((file) => file.endsWith('.html'));
}

const CLASSES = ['a', 'b', 'c', 'd', 'Quay'];
const OFF = [undefined, 'print', '(max-width: 600px)', 'screen and (max-width: 900px)', 'not print'];

/** A family over a random site: each row has a value of its own. */
function familyOf(random: Random): FamilyTable {
  const each = random.pick(['section', 'state', 'position'] as const);
  const names = each === 'position' ? ['odd', 'even'] : CLASSES.slice(0, 2 + random.number(3));
  const rows = names.map((row, at) => [row, new Map([['deck', String(41 + at)]])] as const);
  const where =
    each === 'position'
      ? random.pick(['section > *', 'ul > li, div > p', 'body > *'])
      : random.pick(['.{row}', 'body .{row}', 'section.{row}, p.{row}', '[class~="{row}"]']);
  const part = random.pick(['&', 'p, & > b', '&:hover', 'span', '& *:not(&)', '&[class], input']);
  return {
    name: 'line',
    each,
    where,
    rows: new Map(rows),
    rules: new Map([[part, new Map([['z-index', '{deck}']])]]),
    off: random.pick(OFF),
  };
}

const FAMILIES = new Seeds('browser/everyday', 1, 2900);

test(`${FAMILIES.many} families on random sites give their rows their values, and nobody else`, async (context) => {
  await withBrowser(context, async (tab) => {
    const counts = { moved: 0, refused: 0, planned: 0 };
    for (const seed of FAMILIES) {
      const random = new Random(seed * 11);
      const plain = site(seed);
      const files: Record<string, string> = {
        ...plain,
        'kit.css': contested(plain['kit.css'] ?? '', random),
      };
      const model = modelOf(files);
      const table = familyOf(random);
      const { edits, proof } = planFamily(model, 'kit.css', table, 'line.yaml');
      counts.planned++;
      if (!isAsWished(proof)) {
        counts.refused++;
        if (process.env.ACERVUS_SEED !== undefined)
          context.diagnostic(
            `${seed} refused: ${proof.wrong[0] ?? (proof.strays[0] && differenceText(proof.strays[0]))}`,
          );
        continue;
      }
      const [before, after] = [makeSite(files), written(files, edits)];
      const [part = ''] = table.rules.keys();
      for (const page of pagesOf(model)) {
        const { moved, wrong } = await judge(tab, [before, after], page, {
          selector: partSelector(table, [...table.rows.keys()], part),
          property: 'z-index',
          values: [...table.rows.values()].map((values) => values.get('deck') ?? ''),
          off: table.off,
        });
        counts.moved += moved;
        assert.deepEqual(
          wrong.slice(0, 3),
          [],
          `${FAMILIES.name(seed)}, ${page}\n${files[page]}\n${readFileSync(path.join(after, 'kit.css'), 'utf8')}`,
        );
      }
    }
    context.diagnostic(JSON.stringify(counts));
    assert.ok(!FAMILIES.areMany || counts.moved > FAMILIES.many, JSON.stringify(counts));
  });
});

const USUAL = ['.a', '.b', 'p', 'li', 'section > *', 'span.c', 'div .a', '.Quay', '.b > *'];

/** Rules of one's own over a platform, each with values that no other has. */
function ownRules(random: Random): { selector: string; text: string }[] {
  return random
    .times(3, 6, () => (random.chance(50) ? selector(random, 1, true) : random.pick(USUAL)))
    .map((one, at) => {
      const own = one.includes('::') ? '.a' : one;
      const more = random.chance(50) ? `opacity: 0.2${at + 1}` : `border-top-left-radius: ${11 + at}px`;
      return { selector: own, text: `${own} { z-index: ${51 + at}; ${more} }` };
    });
}

/** An update that beats some of them: by strength, by importance, in media and states. */
function rivalsOf(own: readonly { readonly selector: string }[], random: Random): string {
  return own
    .filter(() => random.chance(60))
    .map(({ selector: text }) => {
      const weight = random.chance(25) ? ' !important' : '';
      const said = random.pick(['z-index: 91', 'opacity: 0.9', 'z-index: 92; border-top-left-radius: 19px']);
      const rule = `${random.pick(['body ', 'html body ', ''])}${text}${random.pick(['', '', ':hover'])} { ${said}${weight} }`;
      return random.chance(25) ? `@media ${random.pick(MEDIA)} { ${rule} }` : rule;
    })
    .join('\n');
}

const MENDS = new Seeds('browser/everyday', 3, 3900);

test(`${MENDS.many} mended sites look as before under the old platform, and keep what was mended under the new`, async (context) => {
  await withBrowser(context, async (tab) => {
    const counts = { mended: 0, left: 0, kept: 0 };
    for (const seed of MENDS) {
      const random = new Random(seed * 17);
      const plain = site(seed);
      const linked = Object.entries(plain).map(([name, text]): [string, string] => [
        name,
        text.replace('href="kit.css">', 'href="kit.css"><link rel="stylesheet" href="line.css">'),
      ]);
      const own = ownRules(random);
      const files: Record<string, string> = {
        ...Object.fromEntries(linked),
        'line.css': own.map(({ text }) => text).join('\n'),
      };
      const fresh = `${contested(files['kit.css'] ?? '', random)}\n${rivalsOf(own, random)}`;
      const model = modelOf(files);
      const sheets = new Map([['kit.css', fresh]]);
      const isPlatform = (file: string): boolean => file === 'kit.css';
      const pages = new Map<string, string>();
      const rules = allRules(model, ['line.css']);
      const found = outlast({ model, sheets, pages, rules, isPlatform });
      const { edits, mended, left } = planMends(model, found.rules, { sheets, pages, isPlatform });
      counts.left += left.length;
      counts.mended += mended.length;
      if (mended.length === 0) continue;
      const [before, after] = [makeSite(files), written(files, edits)];
      const told = `${MENDS.name(seed)}\n${files['line.css']}\n${readFileSync(path.join(after, 'line.css'), 'utf8')}\n${fresh}`;
      for (const page of pagesOf(model)) {
        const [one, other] = [path.join(before, page), path.join(after, page)];
        assert.deepEqual((await lookDifferent(tab, one, other)).slice(0, 3), [], `${page} ${told}`);
      }
      addFiles(after, { 'kit.css': fresh });
      for (const page of pagesOf(model))
        for (const { from } of mended)
          for (const { property, value } of from.written.rule.declarations) {
            const was = await valuesAt(tab, path.join(before, page), property);
            const is = await valuesAt(tab, path.join(after, page), property);
            for (const [view, values] of was.entries())
              for (const [index, had] of values.entries()) {
                if (had !== value) continue;
                counts.kept++;
                assert.equal(is[view]?.[index], value, `${page}, view ${view}, element ${index} ${told}`);
              }
          }
    }
    context.diagnostic(JSON.stringify(counts));
    assert.ok(!MENDS.areMany || counts.kept > 0, JSON.stringify(counts));
  });
});

test('a part of the demo looks the same after its families were found, a class renamed, and its overrides mended', async (context) => {
  const before = demoPart(makeSite({}), ['crossings', 'harbours', 'fares']);
  for (const args of [
    ['.kw-badge', 'padding: 2px 10px'],
    ['.kw-table th', 'border-color: #1f3a56'],
  ])
    assert.equal((await acervus('override', ...args, before)).code, 0);
  const after = makeSite({});
  cpSync(before, after, { recursive: true });
  assert.equal((await acervus('family', '--find', after)).code, 0);
  assert.equal((await acervus('rename', '.btn-book', '.book-now', after)).code, 0);
  await acervus('outlast', after, '--platform', 'platform/3.1=platform/4.0', '--mend');
  await withBrowser(context, async (tab) => {
    for (const page of ['crossings/index.html', 'harbours/north/tarbek.html', 'fares/index.html'])
      assert.deepEqual(
        (await lookDifferent(tab, path.join(before, page), path.join(after, page))).slice(0, 5),
        [],
        page,
      );
    // And what was overridden does look different from the demo.
    assert.notDeepEqual(
      await lookDifferent(tab, path.join(DEMO, 'fares/index.html'), path.join(after, 'fares/index.html')),
      [],
    );
  });
});
