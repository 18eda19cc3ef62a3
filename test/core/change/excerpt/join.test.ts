import assert from 'node:assert/strict';
import { test } from 'node:test';
import { OutcomeTable, SiteModel, TruthTable } from '../../../../src/core/cascade/index.js';
import {
  type Excerpts,
  ExcerptTaker,
  joinExcerpts,
  LookOver,
} from '../../../../src/core/change/excerpt/index.js';
import { parsePage } from '../../../../src/core/read/markup/index.js';
import { htmlPage } from '../../../support/site.js';

const BODIES = Array.from(
  { length: 9 },
  (_, at) => `<main id="top"><h2 style="color: teal">Low ${at}</h2><p>x<p align="right">${at}</main>`,
);

const look = new LookOver();
for (const body of BODIES) look.add(body);

/** What is kept of some of the pages. */
function taken(from: number, to: number): Excerpts {
  const sources = { pages: new Map(), components: new Set<string>(), sheets: new Map(), copies: new Map() };
  const taker = new ExcerptTaker(new SiteModel(sources, new OutcomeTable(new TruthTable())), {
    site: look.overview,
    isWhole: () => false,
  });
  for (let at = from; at < to; at++) taker.add(parsePage(`${at}.html`, htmlPage(BODIES[at]!)));
  return taker.excerpts;
}

/** How many elements an excerpt stands for: those it holds, and those that were cut out or left out. */
function elementsIn({ pages, alike }: Excerpts): number {
  let count = 0;
  for (const [path, text] of pages) count += parsePage(path, text).elements.length;
  for (const own of alike.values()) for (const one of own.values()) count += one.count;
  return count;
}

test('excerpts of parts together stand for every element and every styled tag of the site', () => {
  const all = taken(0, 9);
  const joined = joinExcerpts([taken(0, 2), taken(2, 5), taken(5, 9)]);
  const elements = BODIES.reduce((sum, body) => sum + parsePage('a.html', htmlPage(body)).elements.length, 0);
  assert.equal(elementsIn(all), elements);
  assert.equal(elementsIn(joined), elements);
  assert.equal(joined.size, all.size);
  assert.deepEqual(joined.placeIds, all.placeIds);
  // Each part keeps its own firsts: fewer tags are copies, and each of one in its part.
  const copies = ({ copies: found }: Excerpts): number => [...found.values()].flat().length;
  assert.ok(copies(joined) < copies(all));
  for (const [path, own] of joined.copies)
    for (const { like } of own) assert.ok(joined.pages.has(like.path) && like.path <= path);
});

test('one part alone is the whole', () => {
  const all = taken(0, 9);
  assert.equal(joinExcerpts([all]), all);
});
