// How certain is certain: asks Chromium of tens of thousands of declarations whether it keeps them, and prints those that the
// engine calls certain and Chromium drops. There are none.
//   npm run bench:validity              with --write: takes the data of what Chromium keeps anew first

import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import * as csstree from 'css-tree/dist/csstree.esm';
import type { Page } from 'playwright-core';
import { startChromium } from '../src/browser/chromium.js';
import { declarationValidity, knownPropertyNames } from '../src/core/read/sheets/index.js';
import { PROBES } from '../src/core/read/sheets/value-classes.js';
import { Random } from '../test/support/generate.js';
import { randomValue } from './validity-values.js';

const MANY = Number(process.env.ACERVUS_VALUES ?? 150);
const FIRST = Number(process.env.ACERVUS_SEED ?? 1);
const DATA = path.resolve(
  path.dirname(fileURLToPath(import.meta.url)),
  '../../src/core/read/sheets/confirmed-values.ts',
);

type Pair = readonly [property: string, value: string];

async function kept(tab: Page, pairs: readonly Pair[]): Promise<boolean[]> {
  return tab.evaluate((all) => all.map(([property, value]) => CSS.supports(property, value)), pairs);
}

const properties = [...knownPropertyNames()].filter((name) => /^[a-z]/.test(name)).sort();

/** Every keyword of the grammar: of any property, in any type. */
function keywords(): string[] {
  const found = new Set<string>();
  const read = (syntax: unknown): void => {
    JSON.stringify(syntax, (_, node: unknown) => {
      const { type, name } = (node ?? {}) as { type?: string; name?: string };
      if (type === 'Keyword' && name !== undefined && /^[a-z]/i.test(name)) found.add(name.toLowerCase());
      return node;
    });
  };
  const { properties: all, types } = csstree.lexer as unknown as Record<
    'properties' | 'types',
    Record<string, { syntax: unknown }>
  >;
  for (const { syntax } of [...Object.values(all), ...Object.values(types)])
    if (syntax !== null) read(syntax);
  return [...found].sort();
}

/** What Chromium keeps of each property by itself: keywords, and kinds of numbers and other tokens. */
async function writeData(tab: Page): Promise<void> {
  const words = keywords();
  const probes = Object.entries(PROBES);
  const colours = new Set(
    words.filter((word) => word !== 'transparent' && word !== 'currentcolor' && isColourName(word)),
  );
  const lines: string[] = [];
  for (const property of properties) {
    const own = words.filter((word) => !colours.has(word));
    const answers = await kept(
      tab,
      [...own, ...probes.map(([, text]) => text)].map((text) => [property, text]),
    );
    const classes = probes.filter((_, at) => answers[own.length + at]).map(([name]) => name);
    const taken = own.filter((_, at) => answers[at]);
    // Where any name is taken, those that are not are listed.
    const names = classes.includes('name');
    const listed = own
      .filter((word, at) => !WIDE.has(word) && answers[at] === !names)
      .map((word) => (names ? `!${word}` : word));
    if (classes.length + taken.length > 0) lines.push(`${property}:${classes.join(' ')}:${listed.join(' ')}`);
  }
  const text = `// What Chromium keeps of each property by itself: kinds of values (see \`value-classes.ts\`), then keywords. Made by
// \`npm run bench:validity -- --write\`; not edited by hand.

export const CONFIRMED_VALUES = \`
${inPairs(lines).join('\n')}
\`;
`;
  writeFileSync(DATA, text);
  process.stdout.write(`${lines.length} properties written\n`);
}

/** Two properties a line: the file is to be seen over. */
function inPairs(lines: readonly string[]): string[] {
  return lines.flatMap((line, at) =>
    at % 2 === 0 ? [[line, ...lines.slice(at + 1, at + 2)].join(';')] : [],
  );
}

const WIDE = new Set(['inherit', 'initial', 'unset', 'revert', 'revert-layer']);

function isColourName(word: string): boolean {
  return csstree.lexer.matchType('named-color', word).error === null;
}

const browser = await startChromium();
try {
  const tab = await browser.newPage();
  if (process.argv.includes('--write')) await writeData(tab);
  const pairs: Pair[] = properties.flatMap((property, number) =>
    Array.from({ length: MANY }, (_, at): Pair[] => {
      const value = randomValue(property, new Random(FIRST + number * 10_007 + at));
      return value === undefined || value === '' || /var\(|;|!/.test(value) ? [] : [[property, value]];
    }).flat(),
  );
  const answers = await kept(tab, pairs);
  const judged = pairs.map(
    ([property, value]) => declarationValidity(property, value).validity === 'certain',
  );
  const wrong = new Set(pairs.filter((_, at) => judged[at] && !answers[at]).map((pair) => pair.join(': ')));
  const unsure = new Set(pairs.filter((_, at) => !judged[at] && answers[at]).map((pair) => pair.join(': ')));
  const certain = judged.filter((one) => one).length;
  process.stdout.write(
    `${pairs.length} pairs, Chromium keeps ${answers.filter((one) => one).length}; certain ${certain}; kept and not certain ${unsure.size}\n`,
  );
  if (process.argv.includes('--unsure')) process.stdout.write(`${[...unsure].slice(0, 200).join('\n')}\n`);
  process.stdout.write(`certain and dropped: ${wrong.size}\n${[...wrong].slice(0, 150).join('\n')}\n`);
  process.exitCode = wrong.size > 0 ? 1 : 0;
} finally {
  await browser.close();
}
