// What is new, in the forms that other programs read: SARIF 2.1.0 (OASIS), and the JUnit report that build servers know.

import type { Log, Result } from 'sarif';
import { programVersion } from '../../site/version.js';
import type { HoldDocument } from './document.js';

export function asSarif(document: HoldDocument): string {
  const kinds = [...new Set(document.fresh.map(({ kind }) => kind))].sort();
  const results = document.fresh.map(
    ({ kind, item, place, home }): Result => ({
      ruleId: idOf(kind),
      ruleIndex: kinds.indexOf(kind),
      level: 'error',
      message: { text: `${item}: ${home.todo}${home.command === undefined ? '' : ` (${home.command})`}` },
      locations: [
        {
          physicalLocation: {
            artifactLocation: { uri: encodeURI(place.path), uriBaseId: 'SITE' },
            region: { startLine: place.line, startColumn: place.column },
          },
        },
      ],
    }),
  );
  const budgets = document.budgets
    .filter(({ over }) => over)
    .map(
      ({ name, allowed, spent, at }): Result => ({
        ruleId: 'budget',
        level: 'error',
        message: { text: `${name}: ${spent}, at most ${allowed}${at === undefined ? '' : ` (${at})`}` },
      }),
    );
  const log: Log = {
    $schema: 'https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json',
    version: '2.1.0',
    runs: [
      {
        tool: {
          driver: {
            name: 'Acervus',
            semanticVersion: programVersion().split('+')[0]!,
            rules: kinds.map((kind) => ({ id: idOf(kind), shortDescription: { text: `New: ${kind}` } })),
          },
        },
        columnKind: 'utf16CodeUnits',
        results: [...results, ...budgets],
      },
    ],
  };
  return `${JSON.stringify(log, null, 2)}\n`;
}

function idOf(kind: string): string {
  return kind.replace(/\s+/g, '-');
}

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
