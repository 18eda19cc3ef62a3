// However many threads take the excerpts of a large site, the same comes of it.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { makeDraft } from '../../src/core/change/consolidate/index.js';
import { openFolder } from '../../src/site/files/files.js';
import { draftSite, loadExcerpts } from '../../src/site/rendering/load.js';
import { demoPart, htmlPage, makeSite } from '../support/site.js';

async function draftBy(folder: string, jobs: number): Promise<unknown> {
  const site = await loadExcerpts(folder, openFolder(folder), { largeFrom: 0, jobs });
  const options = { atLeast: 2, taste: 'balanced', scope: 'site' } as const;
  const { draft, adoption } = await makeDraft(draftSite(site), options, undefined);
  const edits = [...adoption.edits].map(([file, own]) => [file, [...own].sort((a, b) => a.start - b.start)]);
  return { draft, edits, report: adoption.report, sheets: site.sheets };
}

test('a draft is the same, whoever took which excerpts', async () => {
  const link = '<link rel="stylesheet" href="theme.css">';
  const rows = (page: number): string =>
    Array.from({ length: 6 }, (_, row) => `<tr><td align="right">${page}:${row}<td bgcolor="#eef">x`).join(
      '\n',
    );
  const pages = Array.from({ length: 12 }, (_, at) => [
    `pier-${at}.html`,
    htmlPage(
      `<h1 id="top" style="color: teal">${at}</h1><table>${rows(at)}</table><div id="pier"><p style="margin: 4px">a<p style="margin: 4px">b</div>`,
      at < 8 ? link : `${link}<link rel="stylesheet" href="late.css"><script src="go.js"></script>`,
    ),
  ]);
  const folder = makeSite({
    ...Object.fromEntries(pages),
    'theme.css': 'td { padding: 2px }',
    'late.css': '#pier p { color: navy }',
    'go.js': 'document.querySelector(".open").hidden = true',
  });
  const one = await draftBy(folder, 1);
  assert.deepEqual(await draftBy(folder, 5), one);
});

test('on the demo too', async () => {
  const folder = demoPart(makeSite({}), ['fares']);
  assert.deepEqual(await draftBy(folder, 3), await draftBy(folder, 1));
});
