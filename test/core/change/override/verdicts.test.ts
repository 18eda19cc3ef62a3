import assert from 'node:assert/strict';
import { test } from 'node:test';
import { inspectRules, rulesOfPart } from '../../../../src/core/change/override/index.js';
import { stateAfter, withoutRule } from '../../../../src/core/edit/text/index.js';
import { prove } from '../../../../src/core/proof/index.js';
import { Random, selector, site, withTaste } from '../../../support/generate.js';
import { asked, contested, MEDIA } from '../../../support/intent.js';
import { modelOf } from '../../../support/model.js';
import { Seeds } from '../../../support/seeds.js';

const SEEDS = new Seeds('core/change/override/verdicts', 60, 7000);

/** An overrides part as years leave it: some needed, some beaten, some that say what would be so anyway. */
function overridesPart(random: Random): string {
  const rules = random.times(2, 5, () => {
    const { property, value } = asked(random);
    const own = random.chance(60) ? random.pick(['.a', '.b', 'p', 'li', '.Quay']) : selector(random, 1, true);
    const state = random.pick(['', '', '', ':hover']);
    const rule = `${own.includes('::') ? '.c' : own}${state} { ${property}: ${random.chance(50) ? value : '0'} }`;
    return random.chance(25) ? `@media ${random.pick(MEDIA)} { ${rule} }` : rule;
  });
  return `/* part: overrides */\n\n${rules.join('\n\n')}\n`;
}

// `all` beats what stands below it without a word of it: the proof only knows that something changed.
test('an override is needed where something would look different without it, and nowhere else', () => {
  const counts = { needed: 0, idle: 0 };
  for (const seed of SEEDS) {
    const random = new Random(seed * 23);
    const plain = withTaste({ plain: true }, () => site(seed));
    const files: Record<string, string> = Object.fromEntries(
      Object.entries(plain).map(([name, text]) => [
        name,
        text.replace('\n</head>', '<link rel="stylesheet" href="shared.css">\n</head>'),
      ]),
    );
    files['kit.css'] = contested(files['kit.css'] ?? '', random);
    files['shared.css'] = overridesPart(random);
    const model = modelOf(files);
    const rules = rulesOfPart(model, 'shared.css', {});
    for (const { rule, verdict } of inspectRules(model, rules, () => false)) {
      const after = stateAfter(model, new Map([['shared.css', [withoutRule(files['shared.css'], rule)]]]));
      const { differences } = prove(model, after, { perPage: 1 });
      // What cannot be compared says nothing.
      if (differences.some(({ kind }) => kind !== 'style')) continue;
      counts[verdict === 'needed' ? 'needed' : 'idle']++;
      const told: string = `${SEEDS.name(seed)} ${rule.selector} ${verdict}\n${files['kit.css']}\n${files['shared.css']}`;
      assert.equal(verdict === 'needed', differences.length > 0, `${told} ${JSON.stringify(differences[0])}`);
    }
  }
  assert.ok(!SEEDS.areMany || (counts.needed > 10 && counts.idle > 10), JSON.stringify(counts));
});
