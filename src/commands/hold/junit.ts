// What is new, as the JUnit report that build servers know.

import type { HoldDocument } from './document.js';

/** A case for each kind, as it passes or fails. */
export function asJunit({ held, fresh, budgets }: HoldDocument): string {
  const cases = held.map(({ kind }) => {
    const own = fresh.filter((one) => one.kind === kind);
    const failures = own.map(
      ({ item, place, home }) =>
        `    <failure message="${xml(item)}">${xml(`${place.path}:${place.line}:${place.column} ${home.todo}`)}</failure>`,
    );
    return caseOf(kind, failures);
  });
  const spent = budgets.map(({ name, allowed, spent: is, over }) =>
    caseOf(`budget ${name}`, over ? [`    <failure message="${xml(`${is}, at most ${allowed}`)}"/>`] : []),
  );
  const failed = [...cases, ...spent].filter((one) => one.includes('<failure')).length;
  return `<?xml version="1.0" encoding="UTF-8"?>\n<testsuite name="acervus hold" tests="${cases.length + spent.length}" failures="${failed}">\n${[...cases, ...spent].join('\n')}\n</testsuite>\n`;
}

function caseOf(name: string, failures: readonly string[]): string {
  const open = `  <testcase classname="acervus.hold" name="${xml(name)}"`;
  return failures.length === 0 ? `${open}/>` : `${open}>\n${failures.join('\n')}\n  </testcase>`;
}

/** What XML 1.0 has no letters for is left out. */
function xml(text: string): string {
  return text
    .replace(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu, '')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
    .replaceAll('\n', '&#10;');
}
