// Pages of which only an outline is known are asked and changed as those that were parsed: on random sites, with scripts too.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { reachOf, readAsked } from '../../../../src/core/ask/reach/index.js';
import { OutcomeTable, SiteModel, TruthTable } from '../../../../src/core/cascade/index.js';
import { type OverrideResult, override } from '../../../../src/core/change/override/index.js';
import { stateAfter } from '../../../../src/core/edit/text/index.js';
import { prove } from '../../../../src/core/proof/index.js';
import { hintDeclarations } from '../../../../src/core/read/hints/index.js';
import {
  type Outline,
  outlinedPage,
  outlineOf,
  type Page,
  parsePage,
} from '../../../../src/core/read/markup/index.js';
import { Random, scriptedSite, selector, site } from '../../../support/generate.js';
import { asked, contested } from '../../../support/intent.js';
import { modelOf } from '../../../support/model.js';
import { Seeds } from '../../../support/seeds.js';

const SEEDS = new Seeds('core/ask/reach/outlines', 8);

/** The same site, of whose pages only outlines are known; and how many of them were looked into. */
function outlined(files: Readonly<Record<string, string>>): { model: SiteModel; parsed: Set<string> } {
  const plain = modelOf(files);
  const looked = new Set<string>();
  const pages = new Map<string, Page>();
  for (const [path, text] of plain.sources.pages) {
    const page = plain.page(path)!;
    const outline = outlineOf(page, () =>
      page.elements.some((one) => hintDeclarations(page, one).length > 0),
    );
    if (outline === undefined) continue;
    // As it is remembered: what JSON does not keep is not there.
    const kept = JSON.parse(JSON.stringify(outline)) as Outline;
    pages.set(
      path,
      outlinedPage(path, text, kept, () => {
        looked.add(path);
        return parsePage(path, text);
      }),
    );
  }
  const model = new SiteModel({ ...plain.sources, parsed: pages }, new OutcomeTable(new TruthTable()));
  return { model, parsed: looked };
}

/** Several pages, most of them with little in common. */
function filesOf(seed: number): Record<string, string> {
  const [one, other, scripted] = [site(seed), site(seed + 5000), scriptedSite(seed + 9000)];
  return {
    ...one,
    ...Object.fromEntries(
      Object.entries(other)
        .filter(([name]) => name.endsWith('.html'))
        .map(([name, text]) => [`other-${name}`, text]),
    ),
    ...Object.fromEntries(
      Object.entries(scripted)
        .filter(([name]) => name.endsWith('.html'))
        .map(([name, text]) => [`late-${name}`, text]),
    ),
    'small.html':
      '<!DOCTYPE html><html><head><link rel="stylesheet" href="kit.css"></head><body><p class="only-here">x</p></body></html>',
  };
}

function told(result: OverrideResult): unknown {
  if (result.kind !== 'planned') return result.kind;
  const { edits, rules, unmet, proof } = result;
  return {
    edits: [...edits],
    rules,
    unmet,
    meant: proof.meant,
    moved: proof.moved,
    wrong: proof.wrong,
    strays: proof.strays.length,
    elements: proof.proof.elements,
    assumed: proof.proof.assumptions,
  };
}

test('what is reached is the same, whether pages are parsed or only outlined', () => {
  let saved = 0;
  for (const seed of SEEDS) {
    const random = new Random(seed);
    const files = filesOf(seed);
    const questions = [
      selector(random, 1, true),
      selector(random),
      '.a',
      '.only-here',
      'p',
      'color: red',
      'red',
      '--tide',
      'kit.css:2',
    ];
    for (const text of questions) {
      const asks = readAsked(text, (path) => path in files);
      if (asks === undefined) continue;
      const { model, parsed } = outlined(files);
      const found = reachOf(model, asks, () => false);
      assert.deepEqual(
        found,
        reachOf(modelOf(files), asks, () => false),
        `${SEEDS.name(seed)} ${text}`,
      );
      saved += model.paths.length - parsed.size;
    }
  }
  assert.ok(saved > SEEDS.many, `${saved} pages were not looked into`);
});

test('an override comes out the same, and so does the proof of any change of a sheet', () => {
  for (const seed of SEEDS) {
    const random = new Random(seed * 7);
    const files = filesOf(seed);
    files['kit.css'] = contested(files['kit.css'] ?? '', random);
    for (const which of ['.only-here', random.pick(['.a', 'p', '.b li']), selector(random, 1, true)]) {
      if (which.includes('::')) continue;
      const changes = [asked(random)];
      const ask = (model: SiteModel): unknown =>
        told(
          override({
            ...{ model, shared: 'kit.css', partNames: {}, selector: which, changes },
            within: { kind: 'site' },
            ...{ medium: undefined, everywhere: false, unreadDocuments: [] },
          }),
        );
      assert.deepEqual(ask(outlined(files).model), ask(modelOf(files)), `${SEEDS.name(seed)} ${which}`);
    }
    const text = files['kit.css'];
    const at = random.pick([...text.matchAll(/\}/g)].map(({ index }) => index + 1));
    const edits = new Map([
      ['kit.css', [{ start: at, end: at, text: `\n${selector(random, 1, true)} { top: 3px }\n` }]],
    ]);
    const proof = (model: SiteModel): unknown => prove(model, stateAfter(model, edits));
    // Kinds of positions are numbered as they are met.
    const plain = (value: unknown): string => JSON.stringify(value).replace(/\(\d+(?: \d+)*\)/g, '()');
    assert.equal(plain(proof(outlined(files).model)), plain(proof(modelOf(files))), SEEDS.name(seed));
  }
});
