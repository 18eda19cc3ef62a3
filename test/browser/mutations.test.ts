// Random changes to random sites, made by hand and badly: whatever `prove` calls equal must look equal in Chromium.

import assert from 'node:assert/strict';
import path from 'node:path';
import { test } from 'node:test';
import { prove } from '../../src/core/proof/index.js';
import { lookDifferent, withBrowser } from '../support/chromium.js';
import { Random, site } from '../support/generate.js';
import { modelOf } from '../support/model.js';
import { Seeds } from '../support/seeds.js';
import { makeSite } from '../support/site.js';

const SEEDS = new Seeds('browser/mutations', 6);

type Files = Record<string, string>;

/** Rules of a sheet that stand on lines of their own. */
function lines(css: string): string[] {
  return css.split('\n');
}

/** One change of the kind that people make by hand. */
const MUTATIONS: readonly ((files: Files, random: Random) => void)[] = [
  (files, random) => {
    const rules = lines(files['kit.css']!);
    rules.splice(random.number(rules.length), 1);
    files['kit.css'] = rules.join('\n');
  },
  (files, random) => {
    const rules = lines(files['kit.css']!);
    const [one, two] = [random.number(rules.length), random.number(rules.length)];
    [rules[one], rules[two]] = [rules[two]!, rules[one]!];
    files['kit.css'] = rules.join('\n');
  },
  (files, random) => {
    const rules = lines(files['kit.css']!);
    rules.push(random.pick(rules));
    files['kit.css'] = rules.join('\n');
  },
  (files, random) => {
    files['kit.css'] = files['kit.css']!.replace(
      random.pick([
        ' > ',
        ' + ',
        ':first-child',
        '!important',
        '.Quay',
        'margin-left: 3px',
        'font-weight: bold',
      ]),
      ' ',
    );
  },
  (files, random) => {
    const styles = [...files['index.html']!.matchAll(/ style="([^"]*)"/g)];
    if (styles.length === 0) return;
    const [attribute, value] = random.pick(styles);
    files['index.html'] = files['index.html']!.replace(attribute, ` data-x="" `).replace(' data-x="" ', '');
    files['kit.css'] += `\n${random.pick(['p', '.a', '.b', 'section', '*'])} { ${value} }`;
  },
  (files, random) => {
    const styles = [...files['index.html']!.matchAll(/ style="([^";]*); ([^"]*)"/g)];
    if (styles.length === 0) return;
    const [attribute, first, rest] = random.pick(styles);
    files['index.html'] = files['index.html']!.replace(attribute, ` style="${rest}; ${first}"`);
  },
  (files) => {
    files['kit.css'] = files['kit.css']!.replace(/#00F/g, 'blue')
      .replace(/bold/g, '700')
      .replace(/margin: 0\b/g, 'margin: 0px 0')
      .replace(/red/g, '#FF0000');
  },
  // A value becomes a token, declared where a person might think it reaches.
  (files, random) => {
    const name = `--token-${random.number(100)}`;
    const value = random.pick(['red', 'teal', '4px', '12px', '#123456', '2px dotted', '50%', 'lime']);
    const holder = random.pick([':root', 'body', '*', '.a', 'div', ':root:hover']);
    const path = random.pick(['kit.css', 'index.html']);
    const places = [...files[path]!.matchAll(new RegExp(`: ${value}(?=[;" ])`, 'g'))];
    if (places.length === 0) return;
    const { index } = random.pick(places);
    const used = random.chance(30) ? `var(${name}, ${value})` : `var(${name})`;
    files[path] = `${files[path]!.slice(0, index)}: ${used}${files[path]!.slice(index + 2 + value.length)}`;
    files['kit.css'] += `\n${holder} { ${name}: ${random.chance(85) ? value : 'olive'} }`;
  },
  // An old attribute becomes what a person takes it for.
  (files, random) => {
    const [old, css] = random.pick([
      ['align="center"', 'text-align: center'],
      ['align="center"', 'text-align: -webkit-center'],
      ['bgcolor="#def"', 'background-color: #def'],
      ['width="120" height="20"', 'width: 120px; height: 20px'],
      ['valign="top"', 'vertical-align: top'],
      ['color="navy" size="5"', 'color: navy; font-size: x-large'],
      ['nowrap', 'white-space: nowrap'],
    ]);
    const places = [
      ...files['index.html']!.matchAll(new RegExp(`<(\\w+)((?: [a-z]+="[^"]*")*) ${old}`, 'g')),
    ];
    if (places.length === 0) return;
    const [whole, tag, others] = random.pick(places);
    if (/ (style|id)=/.test(others!)) return;
    files['index.html'] = files['index.html']!.replace(whole, `<${tag}${others} style="${css}"`);
  },
  (files) => {
    files['index.html'] = files['index.html']!.replace(
      '</head>',
      '<style>.not-there { color: red }</style></head>',
    );
  },
];

test(`what the proof calls equal looks equal in Chromium, after ${SEEDS.many} random changes`, async (context) => {
  await withBrowser(context, async (tab) => {
    let equal = 0;
    let different = 0;
    for (const seed of SEEDS) {
      const random = new Random(seed * 7919);
      const files: Files = site(seed);
      const changed: Files = { ...files };
      MUTATIONS[seed % MUTATIONS.length]!(changed, random);
      const before = modelOf(files);
      if (prove(before, modelOf(changed, before.table)).differences.length > 0) {
        different++;
        continue;
      }
      equal++;
      const [first, second] = [makeSite(files), makeSite(changed)];
      for (const page of before.pages) {
        const found = await lookDifferent(tab, path.join(first, page.path), path.join(second, page.path));
        const message = `${SEEDS.name(seed)}, change ${seed % MUTATIONS.length}\n${files['index.html']}\n--- before\n${files['kit.css']}\n--- after\n${changed['kit.css']}`;
        assert.deepEqual(found.slice(0, 5), [], message);
      }
    }
    assert.ok(
      !SEEDS.areMany || (equal > SEEDS.many / 10 && different > SEEDS.many / 10),
      `${equal} equal, ${different} different`,
    );
  });
});
