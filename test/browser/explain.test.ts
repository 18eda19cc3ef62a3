// Explanations against Chromium: the rules that match, the winners, and declarations that win for nothing.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { explainElement } from '../../src/core/ask/explain/index.js';
import { openPage } from '../../src/site/rendering/one-page.js';
import { withBrowser } from '../support/chromium.js';
import { AskedPage } from '../support/matched-styles.js';
import { DEMO, htmlPage, makeSite, read } from '../support/site.js';

test('rules and winners are those of the browser', async (context) => {
  await withBrowser(context, async (tab) => {
    const asked = new AskedPage(tab, DEMO);
    let winners = 0;
    for (const file of ['index.html', 'fares/index.html', 'harbours/west/holm.html', 'crew/roster.html']) {
      const { reader, isPlatform } = await openPage(DEMO, file);
      assert.equal(await asked.open(file), reader.page.elements.length);
      for (let index = 3; index < reader.page.elements.length; index += 11) {
        const found = await asked.agree(reader, index, isPlatform);
        assert.deepEqual(found.disagreements, []);
        winners += found.winners;
      }
    }
    assert.ok(winners > 200);
  });
});

/** A declaration on `.it`, what stands around it, and whether it can show. */
const CASES: readonly (readonly [idle: boolean, declaration: string, css: string, body: string])[] = [
  [true, 'left: 20px', '', '<p class="it">x</p>'],
  [false, 'left: 20px', '.it { position: relative; }', '<p class="it">x</p>'],
  [true, 'z-index: 3', '', '<p class="it">x</p>'],
  [true, 'width: 90px', '', '<i class="it">x</i>'],
  [false, 'width: 90px', '', '<img class="it" alt="x">'],
  [false, 'width: 90px', 'div { display: flex; }', '<div><i class="it">x</i></div>'],
  [true, 'margin-top: 30px', '', '<i class="it">x</i>'],
  [true, 'margin-left: auto', '', '<div class="it">x</div>'],
  [false, 'margin-left: auto', '.it { width: 50px; }', '<div class="it">x</div>'],
  [false, 'margin-left: auto', '', '<table class="it"><tr><td>x</table>'],
  [true, 'vertical-align: middle', '', '<div class="it">x</div>'],
  [false, 'vertical-align: top', '', '<table><tr><td class="it">x<td>a<br>b</table>'],
  [true, 'flex-direction: column', '', '<div class="it">x <b>y</b></div>'],
  [true, 'justify-content: center', '', '<div class="it"><b>y</b></div>'],
  [false, 'justify-content: center', '.it { display: flex; }', '<div class="it"><b>y</b></div>'],
  [true, 'flex-grow: 2', '', '<div><b class="it">y</b></div>'],
  [true, 'order: 2', '', '<div><b class="it">y</b></div>'],
  [true, 'float: left', '.it { position: absolute; }', '<div class="it">x</div>'],
  [true, 'width: 40px', '.it { min-width: 80px; }', '<div class="it">x</div>'],
  [true, 'width: 90px', '.it { max-width: 80px; }', '<div class="it">x</div>'],
  [false, 'width: 90px', '.it { max-width: 120px; }', '<div class="it">x</div>'],
  [true, 'height: 50%', '', '<div><div class="it">x</div></div>'],
  [false, 'height: 50%', 'div { height: 90px; }', '<div><div class="it">x</div></div>'],
  [true, 'padding: 9px', '.it { border-collapse: collapse; }', '<table class="it"><tr><td>x</table>'],
  [false, 'padding: 9px', '', '<table class="it"><tr><td>x</table>'],
  [true, 'border-spacing: 9px', '.it { border-collapse: collapse; }', '<table class="it"><tr><td>x</table>'],
  [false, 'border-spacing: 9px', '', '<table class="it"><tr><td>x</table>'],
  [true, 'padding: 9px', '', '<table><tr class="it"><td>x</table>'],
  [true, 'margin: 9px', '', '<table><tr><td class="it">x</table>'],
  [true, 'table-layout: fixed', '', '<table class="it"><tr><td>x<td>yyyyyy</table>'],
  [true, 'text-align: right', '', '<span class="it">x</span>'],
  [true, 'text-overflow: ellipsis', '', '<p class="it">xxxxx</p>'],
  [true, 'content: "y"', '', '<p class="it">x</p>'],
  [true, 'border-color: red', '', '<p class="it">x</p>'],
  [false, 'border-color: red', '.it { border-style: solid; }', '<p class="it">x</p>'],
  [true, 'background-position: 3px 4px', '', '<p class="it">x</p>'],
  [true, 'object-fit: cover', '', '<p class="it">x</p>'],
  [true, 'transform: translateX(9px)', '', '<i class="it">x</i>'],
  [false, 'transform: translateX(9px)', '.it { display: block; }', '<i class="it">x</i>'],
  [true, 'overflow-x: hidden', '', '<i class="it">x</i>'],
  [true, 'position: sticky', '', '<p class="it">x</p>'],
  [true, 'resize: both', '', '<p class="it">x</p>'],
];

test('what is called idle shows no difference when it is gone, and what shows is not called idle', async (context) => {
  await withBrowser(context, async (tab) => {
    let different = 0;
    for (const [idle, declaration, css, body] of CASES) {
      const [property = ''] = declaration.split(':');
      // Only boxes and pictures count here: a computed value is always there to be read.
      const head = (own: string): string =>
        `<style>\nbody { font: 16px monospace; }\n${css}\n.it { ${own} }\n</style>\n`;
      const site = makeSite({
        'with.html': htmlPage(body, head(declaration)),
        'without.html': htmlPage(body, head('')),
      });
      const { reader } = await openPage(site, 'with.html');
      const index = reader.page.elements.findIndex(({ classes }) => classes.includes('it'));
      const context = {
        reader,
        element: index,
        isPlatform: () => false,
        circumstances: { width: undefined, states: undefined },
      };
      const found = explainElement(context).idle.filter((one) => one.declaration.property === property);
      assert.equal(found.length > 0, idle, `${declaration} in ${css}${body}`);
      await tab.setViewportSize({ width: 400, height: 200 });
      const shots: string[] = [];
      for (const name of ['with.html', 'without.html']) {
        await tab.setContent(read(site, name));
        shots.push((await tab.screenshot()).toString('base64'));
      }
      if (idle) assert.equal(shots[0], shots[1], `${declaration} shows in ${css}${body}`);
      else different += shots[0] === shots[1] ? 0 : 1;
    }
    assert.ok(different >= 6, 'the pictures tell what shows');
  });
});
