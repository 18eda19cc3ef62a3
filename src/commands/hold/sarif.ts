// What is new, as a SARIF 2.1.0 log (OASIS).

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
