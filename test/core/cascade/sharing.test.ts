// What makes the engine fast must not change what it says: matches shared between elements, the index of rules and the
// filter of ancestors against asking every rule about every element.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { ALWAYS, compileSelectorList, Matcher, NEVER, StyleReader } from '../../../src/core/cascade/index.js';
import { site } from '../../support/generate.js';
import { modelOf, readerOf } from '../../support/model.js';
import { Seeds } from '../../support/seeds.js';
import { htmlPage } from '../../support/site.js';

test('shared, indexed and filtered matches are those that every rule would give', () => {
  const seeds = new Seeds('core/cascade/sharing', 80);
  for (const seed of seeds) {
    const model = modelOf(site(seed));
    for (const page of model.pages) {
      const sheetOrder = model.sheetOrderOf(page);
      const reader = new StyleReader(page, sheetOrder, model.table);
      const matcher = new Matcher(page, model.table.truths);
      for (const { index } of page.elements) {
        const shared = reader
          .matched(index)
          .map(({ at, rule, truth }) => `${at} ${rule.order} ${rule.selector.text} ${truth}`);
        const asked = sheetOrder.uses.flatMap(({ program, condition }, at) =>
          program.rules.flatMap((rule) => {
            const all =
              rule.scope === undefined
                ? [matcher.match(rule.selector, index)]
                : matcher.matchScoped(rule.selector, rule.scope, index).map(({ truth }) => truth);
            return all.flatMap((matched) => {
              const truth = model.table.truths.and(matched, rule.condition, condition);
              return matched === NEVER ? [] : [`${at} ${rule.order} ${rule.selector.text} ${truth}`];
            });
          }),
        );
        assert.deepEqual(shared.sort(), asked.sort(), `${seeds.name(seed)}, ${page.path}, element ${index}`);
      }
    }
  }
});

test('equal numbers mean equal outcomes, on one page and between pages', () => {
  const seeds = new Seeds('core/cascade/sharing', 40);
  for (const seed of seeds) {
    const model = modelOf(site(seed));
    const forms = new Map<number, string>();
    for (const page of model.pages) {
      const reader = new StyleReader(page, model.sheetOrderOf(page), model.table);
      for (const { index } of page.elements) {
        const { targets, form: formOf } = reader.told(index);
        const form = [...targets]
          .map(([target, outcomes]) => [target, formOf(target, outcomes)])
          .filter(([, text]) => text !== '')
          .sort()
          .join('\n');
        const number = reader.outcomeNumber(index);
        assert.equal(forms.get(number) ?? form, form, `${seeds.name(seed)}, ${page.path}, element ${index}`);
        forms.set(number, form);
      }
    }
  }
});

test('sharing goes by what the sheet mentions, case and quirks included', () => {
  const css = '.Quay .a { color: red } [title="x" i] b { top: 0 } a:any-link { left: 0 }';
  const body =
    '<div class="quay"><i class="a" id="one">x</i></div><div class="Quay"><i class="a" id="two">x</i></div><p title="X"><b id="three">x</b></p><a id="four">x</a><a id="five" href="#">x</a>';
  const values = (html: string): (string | undefined)[] => {
    const { reader, byId } = readerOf({ 'index.html': html });
    return ['one', 'two', 'three', 'four', 'five'].map(
      (id) => [...(reader.outcomes(byId(id)).get('')?.keys() ?? [])][0],
    );
  };
  const page = htmlPage(body, `<style>${css}</style>`);
  assert.deepEqual(values(page), [undefined, 'color', 'top', undefined, 'left']);
  assert.deepEqual(values(page.replace('<!DOCTYPE html>', '')), ['color', 'color', 'top', undefined, 'left']);
});

test('elements under template text are asked by themselves', () => {
  const css = '.open b { color: red } b { top: 0 }';
  const { reader, byId } = readerOf({
    'index.html': htmlPage(
      '<p class="{{ state }}"><b id="it">x</b></p><p><b id="other">y</b></p>',
      `<style>${css}</style>`,
    ),
  });
  const text = (id: string): string[] =>
    (reader.outcomes(byId(id)).get('')?.get('color') ?? []).map(({ condition }) =>
      reader.table.truths.text(condition),
    );
  assert.deepEqual(text('it'), ['template text gives it .open on its parent']);
  assert.deepEqual(text('other'), []);
});

test('a selector that template text could make true is open, never decided', () => {
  const list = compileSelectorList('.late, [data-x="1"], #tide, p:nth-child(2), p + p, p:empty');
  assert.ok(list.kind === 'list');
  const { reader } = readerOf({
    'index.html': htmlPage('<div>{% for x in y %}<p {{ rest }}>{{ text }}</p>{% endfor %}</div>'),
  });
  const { page, table } = reader;
  const matcher = new Matcher(page, table.truths);
  const paragraph = page.elements.find(({ name }) => name === 'p')!;
  for (const selector of list.selectors)
    assert.ok(![NEVER, ALWAYS].includes(matcher.match(selector, paragraph.index)), selector.text);
});
