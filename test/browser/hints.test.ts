// Old attributes against Chromium: an attribute that the engine says CSS for must look, on its element and on everything
// around it, exactly like that CSS in its place.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Page as Tab } from 'playwright-core';
import { hintDeclarations, isExactHint } from '../../src/core/read/hints/index.js';
import { parsePage } from '../../src/core/read/markup/index.js';
import { withBrowser } from '../support/chromium.js';
import { ALL } from '../support/seeds.js';

const NUMBERS = [
  '0',
  '1',
  '7',
  '100',
  ' 12',
  '12.5',
  '50%',
  '0%',
  '+5',
  '-5',
  '.5',
  '5.',
  '1e2',
  '12px',
  '12*',
  '',
];
const WORDS = [
  ...[
    'left',
    'right',
    'center',
    'middle',
    'justify',
    'CENTER',
    ' center ',
    'char',
    'top',
    'bottom',
    'baseline',
  ],
  ...[
    'absmiddle',
    'absbottom',
    'texttop',
    'all',
    'both',
    'none',
    'disc',
    'square',
    'a',
    'A',
    'i',
    'I',
    '1',
    '',
  ],
];
const COLOURS = [
  ...[
    'red',
    'Navy',
    '#f00',
    '#FF0000',
    'ff0000',
    'f00',
    '#12',
    'chucknorris',
    'transparent',
    '',
    ' ',
    'inherit',
  ],
  ...['#123456789', 'rgb(1,2,3)', 'window', '0'],
];
const ATTRIBUTES: Readonly<Record<string, readonly string[]>> = {
  ...Object.fromEntries(['align', 'valign', 'type', 'clear'].map((name) => [name, WORDS])),
  ...Object.fromEntries(['bgcolor', 'text', 'color', 'bordercolor'].map((name) => [name, COLOURS])),
  ...Object.fromEntries(
    'width height cellpadding cellspacing hspace vspace border frameborder marginwidth marginheight leftmargin topmargin'
      .split(' ')
      .map((name) => [name, NUMBERS]),
  ),
  size: [...NUMBERS, '+1', '-1', '+0', '99', '2'],
  face: ['Arial', 'Arial, sans-serif', 'inherit', '', '7'],
  background: ['tide.png', '', ' tide.png ', '#x'],
  nowrap: ['', 'nowrap'],
  noshade: [''],
};
/** Attributes that browsers might read otherwise in quirks mode. */
const QUIRKY = new Set(['align', 'valign', 'width', 'nowrap']);
/** Of each attribute every place has one value in so many, and the next place the next: with ACERVUS_TESTS=all it has all. */
const TURNS = ALL ? 1 : 28;
/** `@` is where the attribute goes. */
const PLACES = [
  '<table @><tr><td>x<td>y<tr><th>z<th>w</table>',
  '<table @ border="3"><tr><td>x<th>y</table>',
  '<table @ bordercolor="red"><tr><td>x<th>y</table>',
  '<table><caption @>x</caption><tr><td>y</table>',
  '<hr @ size="9">',
  '<hr @ color="red">',
  '<table border="1"><thead @><tr><td>x</thead></table>',
  '<table cellpadding="3"><tr @><td>x<td>y</table>',
  '<table><tr><td @>x<td>y</table>',
  '<table cellpadding="4"><tr><th @>x<td><table><tr><td>y</table></table>',
  '<table><colgroup @><col><col></colgroup><tr><td>x<td>y</table>',
  '<table><col @><col><tr><td>x<td>y</table>',
  '<img @ src="tide.svg" alt="tide">',
  '<img @ height="30" src="tide.svg" alt="tide">',
  '<iframe @ height="40"></iframe>',
  '<hr @>',
  '<p><br @>x</p>',
  '<font @>x</font>',
  '<ul @><li>x</ul>',
  '<ol @><li>x</ol>',
  '<ul><li @>x</ul>',
  '<div @><p>x</p><table><tr><td>y</table></div>',
  '<p @>x',
  '<h2 @>x</h2>',
  '<video @></video>',
];

/** A place with the attribute, and with the CSS in its place on every element that the engine says it styles. */
interface Case {
  readonly value: string;
  readonly before: string;
  readonly bare: string;
  /** For each element of the place in document order, what goes into its style attribute. */
  readonly styles: readonly string[];
}

function caseOf(place: string, attribute: string, value: string, doctype: string): Case | undefined {
  const before = place.replace('@', `${attribute}="${value}" class="it"`);
  const bare = place.replace('@', 'class="it"');
  const wrap = (text: string): string => `${doctype}${text}`;
  const [page, without] = [parsePage('a.html', wrap(before)), parsePage('a.html', wrap(bare))];
  const it = page.elements.find(({ classes }) => classes[0] === 'it');
  if (it === undefined || !isExactHint(page, it, attribute)) return undefined;
  const texts = (one: typeof page): string[][] =>
    one.elements.map((element) =>
      hintDeclarations(one, element).map(({ property, value: css }) => `${property}: ${css}`),
    );
  const left = texts(without);
  const styles = texts(page).map((said, at) => said.filter((text) => !left[at]!.includes(text)).join('; '));
  return { value, before, bare, styles };
}

/** One line an element, grouped by the section it stands in. */
async function looks(tab: Tab, scope: string): Promise<string[][]> {
  return await tab.evaluate(
    (selector) =>
      [...document.querySelectorAll(selector)].map((section) => {
        const origin = section.getBoundingClientRect();
        return [section, ...section.querySelectorAll('*')].map((element) => {
          const style = getComputedStyle(element);
          const { x, y, width, height } = element.getBoundingClientRect();
          const box = [x - origin.x, y - origin.y, width, height];
          return `${element.tagName} [${box}] ${[...style].map((name) => `${name}:${style.getPropertyValue(name)}`).join('\n')}`;
        });
      }),
    scope,
  );
}

async function differing(
  tab: Tab,
  before: string,
  after: string,
  styles: readonly (readonly string[])[],
  scope: string,
): Promise<Map<number, string>> {
  await tab.setContent(before);
  const first = await looks(tab, scope);
  await tab.setContent(after);
  await tab.evaluate(
    ([all, selector]) => {
      [...document.querySelectorAll(selector)].forEach((section, i) => {
        const elements = selector === 'body' ? document.querySelectorAll('*') : section.querySelectorAll('*');
        [...elements].forEach((element, at) => {
          const text = all[i]?.[at] ?? '';
          if (text !== '') element.setAttribute('style', text);
        });
      });
    },
    [styles, scope] as const,
  );
  const second = await looks(tab, scope);
  const found = new Map<number, string>();
  first.forEach((lines, i) => {
    lines.forEach((line, at) => {
      if (line === second[i]?.[at] || found.has(i)) return;
      const [one, two] = [line.split('\n'), (second[i]?.[at] ?? '').split('\n')];
      const different = one.flatMap((part, n) => (part === two[n] ? [] : [`${part} -> ${two[n]}`]));
      found.set(i, different.slice(0, 2).join('; '));
    });
  });
  return found;
}

test('old attributes say in Chromium what the engine says they do', async (context) => {
  await withBrowser(context, async (tab) => {
    await tab.setViewportSize({ width: 1000, height: 700 });
    const failures: string[] = [];
    let compared = 0;
    for (const doctype of ['<!DOCTYPE html>', '']) {
      for (const [turn, place] of PLACES.entries()) {
        for (const [attribute, values] of Object.entries(ATTRIBUTES)) {
          if (place.includes(` ${attribute}`) || (doctype === '' && !QUIRKY.has(attribute))) continue;
          const cases = values
            .filter((_, at) => at % TURNS === turn % TURNS)
            .flatMap((value) => caseOf(place, attribute, value, doctype) ?? []);
          if (cases.length === 0) continue;
          compared += cases.length;
          const sections = (pick: (one: Case) => string): string =>
            `${doctype}${cases.map((one) => `<section style="contain: strict; width: 600px; height: 300px">${pick(one)}</section>`).join('')}`;
          // Without the html, head and body elements that each case was read with.
          const styles = cases.map((one) => one.styles.slice(3));
          const found = await differing(
            tab,
            sections(({ before }) => before),
            sections(({ bare }) => bare),
            styles,
            'section',
          );
          for (const [at, what] of found)
            failures.push(`${doctype} ${attribute}="${cases[at]!.value}" ${place}: ${what}`);
        }
      }
    }
    for (const attribute of ['bgcolor', 'background', 'text', 'marginwidth', 'topmargin']) {
      for (const value of ATTRIBUTES[attribute]!) {
        const one = caseOf('<body @><p>x', attribute, value, '<!DOCTYPE html>');
        if (one === undefined) continue;
        compared++;
        const wrap = (text: string): string => `<!DOCTYPE html>${text}`;
        const found = await differing(tab, wrap(one.before), wrap(one.bare), [one.styles], 'body');
        for (const what of found.values()) failures.push(`${attribute}="${value}" on body: ${what}`);
      }
    }
    assert.ok(compared > 800 / TURNS, `${compared} cases`);
    assert.equal(failures.length, 0, `${failures.length} of ${compared}\n${failures.join('\n')}`);
  });
});
