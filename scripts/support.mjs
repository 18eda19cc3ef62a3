// Writes what of CSS some browser of the target does not keep, though Chromium does: properties that it knows by another
// name alone, values that it drops. The target is browserslist's default query, the answers are those of
// @mdn/browser-compat-data. usage: node scripts/support.mjs [--check]
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { fileURLToPath } from 'node:url';
import browserslist from 'browserslist';

const { css } = createRequire(import.meta.url)('@mdn/browser-compat-data');
const file = fileURLToPath(new URL('../src/core/read/sheets/support-table.ts', import.meta.url));
/** The data's names of what browserslist names. Others of the target are in no data. */
const NAMES = {
  ...{ and_chr: 'chrome_android', and_ff: 'firefox_android', android: 'webview_android', chrome: 'chrome' },
  ...{ edge: 'edge', firefox: 'firefox', ios_saf: 'safari_ios', op_mob: 'opera_android', opera: 'opera' },
  ...{ safari: 'safari', samsung: 'samsunginternet_android' },
};

const target = browserslist('defaults').flatMap((one) => {
  const [name, version] = one.split(' ');
  return NAMES[name] === undefined ? [] : [{ browser: NAMES[name], version: version.split('-')[0] }];
});

function isAtMost(a, b) {
  const [left, right] = [a, b].map((one) => one.replace('≤', '').split('.').map(Number));
  for (let at = 0; at < Math.max(left.length, right.length); at++)
    if ((left[at] ?? 0) !== (right[at] ?? 0)) return (left[at] ?? 0) < (right[at] ?? 0);
  return true;
}

/** The statements by which a browser has something now. */
function statementsFor({ support }, { browser, version }) {
  return [support[browser] ?? []]
    .flat()
    .filter(
      ({ version_added: added, version_removed: removed, flags }) =>
        flags === undefined &&
        (added === true || (typeof added === 'string' && added !== 'preview' && isAtMost(added, version))) &&
        !(removed === true || (typeof removed === 'string' && isAtMost(removed, version))),
    );
}

const isAsNamed = (one) => one.prefix === undefined && one.alternative_name === undefined;
const isKept = (compat) => target.every((one) => statementsFor(compat, one).some(isAsNamed));
const isKeptByOtherName = (compat) =>
  target.some((one) => {
    const found = statementsFor(compat, one);
    return found.length > 0 && !found.some(isAsNamed);
  });

const properties = [];
const values = {};
for (const [name, property] of Object.entries(css.properties)) {
  // A screen without a pointer shows no cursor, whatever it keeps.
  if (property.__compat === undefined || name.startsWith('-') || name === 'cursor') continue;
  if (isKeptByOtherName(property.__compat)) properties.push(name);
  const dropped = Object.entries(property).flatMap(([value, { __compat: compat }]) => {
    if (value.startsWith('__') || !/^[a-z][a-z0-9-]*$/.test(value) || compat === undefined) return [];
    // Where a browser has no such property at all nothing is shown either way.
    const having = target.filter((one) => statementsFor(property.__compat, one).some(isAsNamed));
    return having.every((one) => statementsFor(compat, one).some(isAsNamed)) ? [] : [value];
  });
  if (dropped.length > 0) values[name] = dropped;
}
const functions = Object.entries(css.types)
  .filter(
    ([name, { __compat: compat }]) =>
      /^[a-z][a-z0-9-]*$/.test(name) && compat !== undefined && !isKept(compat),
  )
  .map(([name]) => name);
for (const group of [
  'color',
  'gradient',
  'image',
  'transform-function',
  'filter-function',
  'basic-shape',
  'easing-function',
])
  for (const [name, { __compat: compat }] of Object.entries(css.types[group] ?? {}))
    if (/^[a-z][a-z0-9-]*$/.test(name) && compat !== undefined && !isKept(compat)) functions.push(name);

const text = `// Written by scripts/support.mjs: what some browser of the target does not keep, though Chromium does.

/** Properties that it knows by another name alone. */
export const BY_ANOTHER_NAME = ${quoted(properties)};

/** Values that it drops, by property. */
export const DROPPED_VALUES = ${quoted(
  Object.entries(values).map(([name, list]) => `${name}: ${list.join(' ')}`),
  ';',
)};

/** Functions that it does not know. */
export const UNKNOWN_FUNCTIONS = ${quoted(functions)};
`;

/** A text of lines that Biome leaves as they are. */
function quoted(list, separator = '') {
  const lines = [''];
  for (const one of list.map((item) => `${item}${separator}`)) {
    if (`${lines.at(-1)} ${one}`.length > 118) lines.push('');
    lines[lines.length - 1] = `${lines.at(-1)} ${one}`.trim();
  }
  return `\`\n${lines.join('\n')}\``;
}

if (!process.argv.includes('--check')) writeFileSync(file, text);
else if (readFileSync(file, 'utf8') !== text) {
  process.stderr.write('support-table.ts is not what scripts/support.mjs writes: run it\n');
  process.exit(1);
}
