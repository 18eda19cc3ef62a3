import assert from 'node:assert/strict';
import { test } from 'node:test';
import { ALWAYS, compileSelectorList, Matcher, NEVER, TruthTable } from '../../../src/core/cascade/index.js';
import { supportsTruth } from '../../../src/core/cascade/supports.js';
import { parsePage } from '../../../src/core/read/markup/index.js';
import { readerOf } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

/** `yes`, `no` or what is open, for a selector on the element with the id `it`. */
function matches(selector: string, body: string, path = 'a.html'): string {
  const page = parsePage(path, path.endsWith('.tpl') ? body : htmlPage(body), path.endsWith('.tpl'));
  const table = new TruthTable();
  const list = compileSelectorList(selector);
  assert.ok(list.kind === 'list', selector);
  const it = page.elements.find(({ id }) => id === 'it')!;
  const truth = table.or(...list.selectors.map((one) => new Matcher(page, table).match(one, it.index)));
  return truth === ALWAYS ? 'yes' : truth === NEVER ? 'no' : table.text(truth);
}

test('form states that markup decides are decided', () => {
  const fieldset =
    '<fieldset disabled><legend><input id="L"></legend><legend><input id="it"></legend></fieldset>';
  assert.equal(matches(':disabled', fieldset), 'yes');
  assert.equal(matches(':disabled', fieldset.replace('id="it"', '').replace('id="L"', 'id="it"')), 'no');
  assert.equal(matches(':enabled', '<p disabled id="it">'), 'no');
  assert.equal(matches('option:disabled', '<select><optgroup disabled><option id="it"></select>'), 'yes');
  assert.equal(matches(':required', '<input type="submit" required id="it">'), 'no');
  assert.equal(matches(':optional', '<textarea id="it"></textarea>'), 'yes');
  assert.equal(matches(':disabled', '<x-y id="it"></x-y>'), ':disabled');
  assert.equal(matches(':disabled', '<button {{ off }} id="it">', 'part.tpl'), ':disabled');
});

test('language and direction come from the nearest that says', () => {
  assert.equal(matches(':lang(en)', '<p id="it">'), 'yes');
  assert.equal(matches(':lang(fr)', '<div lang="fr-CA"><p id="it"></div>'), 'yes');
  assert.equal(matches(':lang(fr)', '<div lang=""><p id="it"></div>'), 'no');
  assert.equal(matches(':dir(ltr)', '<p id="it">'), 'yes');
  assert.equal(matches(':dir(ltr)', '<div dir="RTL"><p id="it"></div>'), 'no');
  assert.equal(matches(':dir(ltr)', '<p dir="auto" id="it">'), ':dir(ltr)');
  assert.equal(matches(':dir(rtl)', '<div dir="rtl"><input id="it"></div>'), 'yes');
  assert.equal(matches(':dir(rtl)', '<div dir="rtl"><input type="tel" id="it"></div>'), 'no');
  assert.equal(matches(':dir(rtl)', '<div dir="rtl"><bdi id="it">x</bdi></div>'), ':dir(rtl)');
  assert.equal(matches(':lang(en)', '<p id="it">', 'part.tpl'), ':lang(en)');
});

test('a supports query is decided only where every browser agrees', () => {
  const table = new TruthTable();
  const asked = (text: string): string => {
    const truth = supportsTruth(text, table);
    return truth === ALWAYS ? 'yes' : truth === NEVER ? 'no' : table.text(truth);
  };
  assert.equal(asked('(display: grid)'), 'yes');
  assert.equal(asked('not (display: grid)'), 'no');
  assert.equal(asked('((color: red)) and (top: 0)'), 'yes');
  assert.equal(asked('(x-y: 1) or (color: red)'), 'yes');
  assert.equal(asked('(-webkit-box-reflect: below)'), '@supports (-webkit-box-reflect: below)');
  assert.equal(asked('selector(:has(a))'), '@supports selector(:has(a))');
  assert.equal(asked('(a: b) and (c: d) or (e: f)'), '@supports (a: b) and (c: d) or (e: f)');
});

/** What the last paragraph gets for `top`, strongest first. */
function tops(css: string, body: string): string[] {
  const { reader, byId } = readerOf({ 'index.html': htmlPage(body, `<style>${css}</style>`) });
  return (reader.outcomes(byId('it')).get('')?.get('top') ?? []).map(({ value }) => value);
}

test('in a scope the nearest root wins, before order and after specificity', () => {
  const body = '<div class="dark"><div class="light"><p id="it">x</div></div>';
  const css = '@scope (.light) { p { top: 1px } } @scope (.dark) { p { top: 2px } } ';
  assert.deepEqual(tops(css, body), ['1px']);
  assert.deepEqual(tops(`${css} p#it { top: 3px }`, body), ['3px']);
  assert.deepEqual(tops(`${css} p { top: 3px }`, body), ['1px']);
  assert.deepEqual(tops('@scope (.dark) to (.light) { p { top: 1px } }', body), []);
  assert.deepEqual(tops('@scope (.dark) { :scope > p { top: 1px } > .light p { top: 2px } }', body), ['2px']);
});

test('a scope holds below its root, not on it, unless :scope names it', () => {
  const body = '<p class="a" id="it">x';
  assert.deepEqual(tops('@scope (.a) { p { top: 1px } }', body), []);
  assert.deepEqual(tops('@scope (.a) { :scope { top: 1px } }', body), ['1px']);
});

test('namespaces tell elements of one name apart', () => {
  const svg = '@namespace svg "http://www.w3.org/2000/svg";';
  const body = '<svg><a id="it" href="#"></a></svg>';
  assert.deepEqual(tops(`${svg} svg|a { top: 1px }`, body), ['1px']);
  assert.deepEqual(tops(`${svg} svg|p { top: 1px } |a { top: 2px } *|a { top: 3px }`, body), ['3px']);
  assert.deepEqual(
    tops('@namespace "http://www.w3.org/1999/xhtml"; a { top: 1px } * { top: 2px }', body),
    [],
  );
  assert.deepEqual(tops('nope|a { top: 1px } a { top: 2px }', body), ['2px']);
});

test('layers of an import stand where the import stands', () => {
  const body = '<p id="it">x';
  const page = (css: string): Record<string, string> => ({
    'index.html': htmlPage(body, '<link rel="stylesheet" href="a.css">'),
    'a.css': css,
    'more.css': '@layer theme { p { top: 1px } }',
  });
  const winner = (css: string): string | undefined => {
    const { reader, byId } = readerOf(page(css));
    return reader.outcomes(byId('it')).get('')?.get('top')?.[0]?.value;
  };
  assert.equal(winner('@import "more.css"; @layer kit { p { top: 2px } }'), '2px');
  assert.equal(winner('@layer kit; @import "more.css"; @layer kit { p { top: 2px } }'), '1px');
  assert.equal(winner('@import "more.css" layer(late); @layer theme { p { top: 2px } }'), '2px');
  assert.equal(
    winner('@layer theme, late; @import "more.css" layer(late); @layer theme { p { top: 2px } }'),
    '1px',
  );
});

test('a layer that is first named in a sheet for print alone leaves the order open', () => {
  const { reader } = readerOf({
    'index.html': htmlPage(
      '<p>x',
      '<style media="print">@layer a { p { top: 0 } }</style><style>@layer b;</style>',
    ),
  });
  assert.match(reader.sheetOrder.undecided ?? '', /a layer that is first named in a sheet under a condition/);
});
