// Random themes that an engine fills, and what it makes of them, whatever it is given.

import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import nunjucks from 'nunjucks';
import { adopt, draft, prove } from '../../src/index.js';
import { Random } from '../support/generate.js';
import { Seeds } from '../support/seeds.js';
import { makeSite } from '../support/site.js';

const STYLES = [
  'color: #004466',
  'padding: 4px',
  'padding: 4px; color: #004466',
  'margin: 0 2px',
  'display: none',
];
/** Styles that an engine writes a part of. */
const WRITTEN = [
  'padding: 4px; width: {{ "3" if x else "5" }}px',
  'color: #004466; {{ "margin: 1px" if y else "" }}',
  '{% if x %}display: none;{% endif %} color: #004466',
  'margin: 0 2px; color: {% if y %}red{% else %}blue{% endif %}; padding: 4px',
  'margin: 0 2px; color: red{% if x %}; padding: 1px{% endif %}',
  'padding: 4px; width: {{ share }}px',
  'color: {{ ink }}; padding: 4px',
  'margin: 0 2px; margin-left: {{ share }}px; color: #004466',
  'padding: {{ share }}px 2px; color: #004466; display: none',
  'color: {{ ink }} !important; padding: 4px; border: {{ share }}px solid {{ ink }}',
  'padding: 4px; {{ part }}: 3px; color: #004466',
];
const NAMES = ['fare', 'late', 'due', 'crew'];

/** A template: elements with styles, branches around them, inside their tags and in their values. */
function template(random: Random, depth = 0): string {
  let text = '';
  for (let count = 2 + random.number(3); count > 0; count--) {
    const said = random.pick(random.chance(25) ? WRITTEN : STYLES).replaceAll('"', "'");
    const style = random.chance(60) ? ` style="${said}"` : '';
    const [a, b] = [random.pick(NAMES), random.pick(NAMES)];
    const classes = random.pick([
      '',
      ` class="${a}"`,
      ` class="${a} {{ kind }}"`,
      ` class="${a}{% if x %} ${b}{% endif %}"`,
      ` class="{{ '${a}' if y else '${b}' }}"`,
      ` {% if x %}class="${a}"{% endif %}`,
      ` {% if y %}class="${a}"{% else %}class="${b}"{% endif %}`,
      ` {% if x %}id="main"{% endif %}`,
    ]);
    const inside = depth < 2 && random.chance(50) ? template(random, depth + 1) : '{{ text }}';
    const element = `<${random.pick(['p', 'div', 'b'])}${classes}${style}>`;
    const whole =
      element.replace(/^<p/, '<div') +
      inside +
      element.replace(/^<(p|div|b)[\s\S]*/, (_, name) => `</${name === 'p' ? 'div' : name}>`);
    text += random.pick([
      `${whole}\n`,
      `{% if y %}${whole}{% endif %}\n`,
      `{% for one in rows %}${whole}{% endfor %}\n`,
      `{% if x %}<div class="${a}">{% else %}<div class="${b}">{% endif %}${whole}</div>\n`,
      `{% if y %}<div id="main">{% endif %}${whole}{% if y %}</div>{% endif %}\n`,
    ]);
  }
  return text;
}

function sheet(random: Random): string {
  const selectors = NAMES.map((name) => `.${name}`).concat(
    '#main .fare',
    '.late > b',
    '.crew div',
    '.pier > div',
    'main b',
    'body.due .late',
    'div',
    'div + div',
    'b:first-child',
  );
  return Array.from({ length: 5 }, () => `${random.pick(selectors)} { ${random.pick(STYLES)} }`).join('\n');
}

/** What the engine makes of the pages, whatever it is given. */
function rendered(site: string, pages: readonly string[]): string {
  const engine = new nunjucks.Environment(new nunjucks.FileSystemLoader(site), { autoescape: false });
  const files: Record<string, string> = { 'theme.css': readFileSync(path.join(site, 'theme.css'), 'utf8') };
  for (const page of pages)
    for (const x of [true, false])
      for (const y of [true, false])
        for (const kind of ['late', 'fare due', ''])
          for (const rows of [[], [1], [1, 2]])
            files[`${page}-${x}-${y}-${kind}-${rows.length}.html`] = engine.render(`${page}.njk`, {
              ...{ x, y, kind, rows, text: 'a', root: '.' },
              // What a browser takes, and what it drops.
              ...{ share: x ? '3' : '', ink: y ? 'red' : 'nonsense', part: x ? 'margin' : 'padding' },
            });
  return makeSite(files);
}

const LINK = '<link rel="stylesheet" href="{{ root }}/theme.css">';
const MAIN = '{% block main %}{% endblock %}';

/** Something around a place of a layout or a part. */
function around(random: Random, inner: string): string {
  const [a, b] = [random.pick(NAMES), random.pick(NAMES)];
  return random.pick([
    inner,
    `<div class="${a}">${inner}</div>`,
    `<main class="pier"><div id="main">${inner}</div></main>`,
    `<div class="${a}{% if x %} ${b}{% endif %}">${inner}</div>`,
    `{% if y %}<div class="${a}">{% else %}<div class="${b}">{% endif %}${inner}</div>`,
    `<div class="${a}">{% if x %}${inner}{% else %}<div class="${b}">${inner}</div>{% endif %}</div>`,
    `{% call box() %}${inner}{% endcall %}`,
  ]);
}

/** Layouts, one of which fills another, a head and a frame in files of their own, parts within parts. */
function theme(random: Random): {
  readonly files: Record<string, string>;
  readonly pages: readonly string[];
} {
  const top = `{% macro box() %}<div class="${random.pick(NAMES)}">{{ caller() }}</div>{% endmacro %}`;
  const link = random.chance(50) ? '{% include "head.njk" %}' : LINK;
  const page = (inner: string): string =>
    `<!doctype html>\n<html><head>${link}</head><body class="${random.pick(NAMES)}">${top}${inner}</body></html>`;
  // A block stands in a layout once.
  const once = (): string => {
    const found = around(random, MAIN);
    return found.split(MAIN).length > 2 || found.includes('call') ? `<div class="pier">${MAIN}</div>` : found;
  };
  const filling = (layout: string, inner: string): string =>
    `{% extends "${layout}" %}\n{% block main %}${top}${inner}{% endblock %}`;
  const part = (name: string): string => around(random, `{% include "${name}.njk" %}`);
  const files: Record<string, string> = {
    'head.njk': LINK,
    'first.njk': page(once()),
    'second.njk': page(`${template(random)}${once()}`),
    'inner.njk': `{% extends "first.njk" %}\n{% block main %}${around(random, '{% block deep %}{% endblock %}').replaceAll('{% call box() %}', '').replaceAll('{% endcall %}', '')}{% endblock %}`,
    'part.njk': template(random),
    'card.njk': top + around(random, `${template(random, 1)}{% include "part.njk" %}`),
    'open.njk': `<!doctype html>\n<html><head>${LINK}</head><body><div class="${random.pick(NAMES)}">${random.chance(50) ? '<main class="pier">' : ''}`,
    'close.njk': '</div></body></html>',
    'a.njk': filling('first.njk', `${template(random)}${part('part')}`),
    'b.njk': filling(random.pick(['first.njk', 'second.njk']), `${part('card')}${template(random)}`),
    'c.njk': `{% include "open.njk" %}\n${template(random)}{% include "close.njk" %}`,
    'd.njk': `{% extends "inner.njk" %}\n{% block deep %}${template(random)}{% endblock %}`,
    'theme.css': sheet(random),
  };
  const deep = files['inner.njk']!.split('{% block deep %}').length === 2;
  if (!deep)
    files['inner.njk'] = filling('first.njk', '<div class="late">{% block deep %}{% endblock %}</div>');
  return { files, pages: ['a', 'b', 'c', 'd'] };
}

test('whatever an engine makes of random themes, it looks as before', async () => {
  const seeds = new Seeds('cli/themes', 3);
  let moved = 0;
  for (const seed of seeds) {
    const { files, pages } = theme(new Random(seed));
    const site = makeSite(files);
    const before = rendered(site, pages);
    await draft(site);
    const adopted = await adopt(site);
    moved += adopted.styles.length;
    const proof = await prove(rendered(site, pages), before);
    assert.deepEqual(proof.differences, [], `${seeds.name(seed)}: ${site}`);
  }
  assert.ok(!seeds.areMany || moved > 5, `${moved} styles moved`);
});
