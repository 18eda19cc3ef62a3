// Normal forms against Chromium: two values that the engine calls the same must compute to the same, for every property and
// a heap of spellings.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  canonicalProperty,
  expandDeclaration,
  knownPropertyNames,
} from '../../src/core/read/sheets/index.js';
import { withBrowser } from '../support/chromium.js';
import { ALL } from '../support/seeds.js';

const SPELLINGS = [
  ...[
    '0',
    '0px',
    '0em',
    '+0',
    '-0',
    '0.0px',
    '00',
    '0%',
    '0s',
    '0ms',
    '0deg',
    '.0',
    '0e3',
    '0e3px',
    '0PX',
    '0fr',
  ],
  ...[
    '1',
    '1.0',
    '+1',
    '01',
    '1e0',
    '1px',
    '1.0px',
    '1PX',
    '1e0px',
    '.5',
    '0.5',
    '0.50',
    '+.5em',
    '.5EM',
    '50%',
    '50.0%',
  ],
  ...[
    'red',
    'RED',
    '#f00',
    '#F00',
    '#ff0000',
    '#ff0000ff',
    'rgb(255,0,0)',
    'rgb(255 0 0)',
    'rgba(255, 0, 0, 1)',
  ],
  ...[
    'rgb(100% 0% 0%)',
    'hsl(0 100% 50%)',
    'hsl(0, 100%, 50%)',
    'transparent',
    'rgba(0,0,0,0)',
    '#0000',
    '#00000000',
  ],
  ...['rgba(255,0,0,.5)', 'rgb(255 0 0 / 50%)', '#ff000080', 'currentcolor', 'currentColor', 'CURRENTCOLOR'],
  ...[
    'bold',
    '700',
    'normal',
    '400',
    'NORMAL',
    'Bold',
    'none',
    'NONE',
    'auto',
    'AUTO',
    'initial',
    'Initial',
    'inherit',
  ],
  ...[
    'serif',
    'Serif',
    'Arial',
    'arial',
    '"Arial"',
    "'Arial'",
    'Arial,serif',
    'Arial , serif',
    'left',
    'LEFT',
  ],
  ...[
    'left top',
    'left  top',
    'left/**/top',
    '0 0',
    '0px 0px',
    '1px 2px',
    '1px  2px',
    '1px/2px',
    '1px / 2px',
    '1 / 2',
  ],
  ...[
    'url(a.png)',
    'url("a.png")',
    "url('a.png')",
    'url( a.png )',
    'URL(a.png)',
    'url(A.png)',
    'calc(1px + 2px)',
  ],
  ...[
    'calc( 1px + 2px )',
    'CALC(1px + 2px)',
    'calc(1px+ 2px)',
    'min(1px,2px)',
    'min( 1px , 2px )',
    'translate(1px,2px)',
  ],
  ...[
    'translate( 1px , 2px )',
    'rotate(0deg)',
    'rotate(0)',
    '"x"',
    "'x'",
    '"X"',
    'a',
    'A',
    'a b',
    'a, b',
    'a,b',
    '--a',
    '--A',
  ],
  ...[
    '1s',
    '1000ms',
    '1S',
    'ease',
    'EASE',
    'linear',
    '1 1 0',
    '1 1 0px',
    '1 1 0%',
    '0 1 auto',
    'solid',
    'Solid',
  ],
  ...[
    '1px solid red',
    'solid 1px RED',
    '1px SOLID #f00',
    'thin',
    'medium',
    'block',
    'BLOCK',
    'U+26',
    'counter(a)',
    'counter(A)',
  ],
];

test('values with one normal form compute alike in Chromium', async (context) => {
  const properties = [...knownPropertyNames()].filter((name) => name !== 'all');
  const some = ALL ? properties : properties.filter((_, at) => at % 3 === 0);
  const groups = some.flatMap((property) => {
    const byForm = new Map<string, string[]>();
    for (const value of SPELLINGS) {
      const form = expandDeclaration(property, value, 'index.html')
        .map(({ longhand, value: part }) => `${longhand}:${part}`)
        .join(';');
      byForm.set(form, [...(byForm.get(form) ?? []), value]);
    }
    return [...byForm.values()].filter((values) => values.length > 1).map((values) => ({ property, values }));
  });
  assert.ok(groups.length > 8 * some.length, `${groups.length} groups`);
  await withBrowser(context, async (tab) => {
    // Inside something that is not initial anywhere, so that inheriting and resetting show.
    await tab.setContent(
      '<!DOCTYPE html><base href="https://site.invalid/"><div style="color: olive; font: italic 900 30px/2 monospace; text-align: right"><p style="border-style: dotted">x</div>',
    );
    const different = await tab.evaluate(
      (all) => {
        const probe = document.querySelector('p')!;
        const style = getComputedStyle(probe);
        const names = [...style];
        const whole = (): string => names.map((name) => `${name}:${style.getPropertyValue(name)}`).join(';');
        return all.flatMap(({ property, values }) => {
          const looks = values.map((value) => {
            probe.style.cssText = 'border-style: dotted';
            probe.style.setProperty(property, value);
            // What is dropped says nothing: another condition covers it.
            const kept = probe.style.length > 4 || probe.style.getPropertyValue(property) !== '';
            return kept ? { value, look: whole() } : undefined;
          });
          const kept = looks.filter((one) => one !== undefined);
          const [first] = kept;
          const odd = kept.find((one) => one.look !== first?.look);
          if (first === undefined || odd === undefined) return [];
          const [one, two] = [first.look.split(';'), odd.look.split(';')];
          const at = one.findIndex((text, i) => text !== two[i]);
          return [`${property}: ${first.value} | ${odd.value}: ${one[at]} -> ${two[at]}`];
        });
      },
      groups.filter(({ property }) => canonicalProperty(property) === property),
    );
    assert.deepEqual(different, []);
  });
});
