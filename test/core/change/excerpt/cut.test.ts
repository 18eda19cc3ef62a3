import assert from 'node:assert/strict';
import { test } from 'node:test';
import { placeIn } from '../../../../src/core/base/source.js';
import { cutPage, ontoPage } from '../../../../src/core/change/excerpt/cut.js';
import { applyEdits } from '../../../../src/core/edit/text/index.js';
import { parsePage } from '../../../../src/core/read/markup/index.js';
import { body, Random } from '../../../support/generate.js';
import { Seeds } from '../../../support/seeds.js';
import { htmlPage } from '../../../support/site.js';

const PAGE = htmlPage(
  '<main>\n<ul class="piers"><li>One<li>Two <b>late</b></ul>\n<p style="color: red">Low\nwater</p></main>',
);

/** The page with everything but some elements, with what stands around and beside these. */
function without(text: string, isCut: (name: string) => boolean) {
  const page = parsePage('a.html', text);
  const stays = page.elements.map(() => true);
  for (const { index, parent, name } of page.elements)
    stays[index] = parent < 0 || (stays[parent]! && !isCut(page.elements[parent]!.name) && name !== '');
  return { page, stays, excerpt: cutPage(page, stays) };
}

test('what is left of a page stands on its line and column', () => {
  const { page, excerpt } = without(PAGE, (name) => name === 'ul');
  assert.deepEqual(
    excerpt?.page.elements.map(({ name }) => name),
    page.elements.map(({ name }) => name).filter((name) => name !== 'li' && name !== 'b'),
  );
  const placeOf = (one: typeof page) =>
    placeIn('a.html', one.text, one.elements.find(({ name }) => name === 'p')!.tag!.range.start);
  assert.deepEqual(placeOf(excerpt!.page), placeOf(page));
});

test('an edit of the excerpt is one of the page; one over a cut is none', () => {
  const { page, excerpt } = without(PAGE, (name) => name === 'ul');
  const { cuts } = excerpt!;
  const short = excerpt!.page.text;
  const at = short.indexOf(' style="');
  const edits = [{ start: at, end: at + ' style="color: red"'.length, text: '' }];
  assert.equal(applyEdits(page.text, ontoPage(cuts, edits)!), page.text.replace(' style="color: red"', ''));
  const list = short.indexOf('<ul');
  assert.equal(ontoPage(cuts, [{ start: list, end: short.indexOf('<p'), text: '' }]), undefined);
});

test('tags that overlap do not come apart', () => {
  const text = htmlPage('<table><b><tr><td>1</td></b><i>2</table></i>');
  const { excerpt } = without(text, (name) => name === 'b' || name === 'table' || name === 'td');
  assert.equal(excerpt, undefined);
});

test('pages that do not come apart are not cut, and all others hold what stays as it was', () => {
  let cut = 0;
  const seeds = new Seeds('core/excerpt/cut', 150);
  for (const seed of seeds) {
    const random = new Random(seed);
    const text = htmlPage(body(random));
    const chosen = new Set(['div', 'ul', 'table', 'p', 'section'].filter(() => random.chance(50)));
    const { page, stays, excerpt } = without(text, (name) => chosen.has(name));
    if (excerpt === undefined) continue;
    cut++;
    const kept = page.elements.filter(({ index }) => stays[index]);
    kept.forEach(({ name, attributes, tag }, number) => {
      const other = excerpt.page.elements[number]!;
      assert.deepEqual([other.name, other.attributes], [name, attributes], seeds.name(seed));
      if (tag === undefined) return;
      assert.deepEqual(
        placeIn('a.html', excerpt.page.text, other.tag!.range.start),
        placeIn('a.html', text, tag.range.start),
        seeds.name(seed),
      );
    });
  }
  assert.ok(!seeds.areMany || cut > 20, `${cut} cut`);
});
