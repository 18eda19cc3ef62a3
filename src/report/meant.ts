// The elements that a question means, outlined and numbered on a page, as one HTML page.

import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { takeOutlined } from '../browser/outlined.js';
import { placeIn, showPlace } from '../core/base/source.js';
import type { Page } from '../core/read/markup/index.js';
import { openFolder } from '../site/files/files.js';
import { insideSite } from '../site/files/inside.js';
import { readConfig } from '../site/files/pages.js';
import { parseAlone } from '../site/rendering/placing.js';
import { SiteReader } from '../site/rendering/reader.js';
import { tagText } from './moves.js';
import { escapeHtml, figures, page as htmlPage } from './page.js';
import { shownPage } from './shown-page.js';

const FOLDER = path.join('.acervus', 'picture');
const WIDTH = 1200;
/** So many are outlined; more would hide the page. */
const MOST = 200;

export interface MeantWanted {
  /** The page to take; the first whole one of `best` without. */
  readonly page: string | undefined;
  readonly best: readonly string[];
  /** Numbers of elements on a page. */
  readonly on: (page: string) => readonly number[];
  readonly title: string;
}

/** Out: the path of the report. Throws `UsageError` without a browser or such a page. */
export async function pictureOfMeant(folder: string, wanted: MeantWanted): Promise<string> {
  const { title } = wanted;
  const files = openFolder(folder);
  const reader = new SiteReader(files, await readConfig(files));
  const file = shownPage(folder, reader, wanted.page, wanted.best);
  const elements = wanted.on(file);
  const text = reader.page(file) ?? '';
  const page = parseAlone(reader, file, text);
  const shown = [...new Set(elements)].sort((a, b) => a - b).slice(0, MOST);
  const { png, hidden } = await takeOutlined(
    files,
    file,
    shown.map((index) => page.elements.length - index),
    WIDTH,
  );
  insideSite(folder, FOLDER);
  const target = path.join(folder, FOLDER);
  rmSync(target, { recursive: true, force: true });
  mkdirSync(target, { recursive: true });
  writeFileSync(path.join(target, 'page.png'), png);
  const row = (number: string, at: number): string =>
    `<tr><td class="count">${number}</td><td><code>${escapeHtml(tagOf(page, shown[at]!))}</code></td><td class="aside">${escapeHtml(placeOf(page, shown[at]!))}</td></tr>`;
  const seen = shown.flatMap((_, at) => (hidden.includes(at) ? [] : [row(String(at + 1), at)]));
  const unseen = hidden.map((at) => row('', at));
  const table = (rows: readonly string[]): string =>
    `<section><table><tbody>${rows.join('')}</tbody></table></section>`;
  const body = [
    `<header><p class="kind">Picture</p><h1>${escapeHtml(title)}</h1><p><b>${escapeHtml(file)}</b>, ${WIDTH} px wide, scripts off</p></header>`,
    figures([
      [
        elements.length,
        elements.length === 1 ? 'element that is meant on this page' : 'elements that are meant on this page',
      ],
      [hidden.length, 'that take up no room'],
    ]),
    ...(elements.length > MOST ? [`<p class="aside">The first ${MOST} are outlined.</p>`] : []),
    `<div class="pictures whole"><figure><a href="page.png"><img src="page.png" alt="${escapeHtml(`${file}, with what is meant outlined`)}"></a></figure></div>`,
    table(seen),
    ...(unseen.length === 0 ? [] : [`<h2>Hidden</h2>${table(unseen)}`]),
  ];
  const report = path.join(target, 'index.html');
  writeFileSync(
    report,
    htmlPage(title, body.join('\n'), {
      style: '.pictures.whole { grid-template-columns: 1fr; } .count { width: 3rem; text-align: right; }',
    }),
  );
  return report;
}

function tagOf(page: Page, element: number): string {
  const { tag, name } = page.elements[element] ?? {};
  if (tag === undefined) return `<${name ?? ''}> (without a tag)`;
  const written = tagText(page, element);
  return written.length > 120 ? `${written.slice(0, 118)} …` : written;
}

function placeOf(page: Page, element: number): string {
  const tag = page.elements[element]?.tag;
  return tag === undefined ? page.path : showPlace(placeIn(page.path, page.text, tag.range.start));
}
