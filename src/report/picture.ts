// One page before and after a change, side by side, and what moved between them, as one HTML page.

import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { judge, type PageVerdict } from '../browser/judge.js';
import { UsageError } from '../core/base/usage-error.js';
import { openFolder } from '../site/files/files.js';
import { insideSite } from '../site/files/inside.js';
import { readConfig } from '../site/files/pages.js';
import { lastChange } from '../site/ledger/before.js';
import { SiteReader } from '../site/rendering/reader.js';
import { escapeHtml, figures, page as htmlPage } from './page.js';
import { shownPage } from './shown-page.js';

const FOLDER = path.join('.acervus', 'picture');
const WIDTH = 1200;

export interface PictureWanted {
  /** The page to take; the first of `moved` without, else the first that the change touches. */
  readonly page?: string | undefined;
  /** Pages that the change moves, most first. */
  readonly moved: readonly string[];
  /** What was typed, for the heading. */
  readonly title: string;
}

/** Of the last change of a site. Out: the path of the report. Throws `UsageError` without a browser or such a page. */
export async function pictureOfChange(
  folder: string,
  { page, moved, title }: PictureWanted,
): Promise<string> {
  const change = lastChange(folder);
  const after = openFolder(folder);
  const reader = new SiteReader(after, await readConfig(after));
  const isPage = (file: string): boolean => reader.pagePaths.includes(file) && !reader.isComponent(file);
  const touched = [...moved, ...(change?.files ?? [])].filter(isPage);
  const chosen = shownPage(folder, reader, page, touched);
  if (change === undefined)
    throw new UsageError('not-a-page', { file: chosen, site: folder, hint: 'a page that was changed' });
  insideSite(folder, FOLDER);
  const target = path.join(folder, FOLDER);
  rmSync(target, { recursive: true, force: true });
  mkdirSync(target, { recursive: true });
  let verdict: PageVerdict | undefined;
  await judge(change.before, after, [chosen], {
    views: [{ width: WIDTH, media: 'screen' }],
    tabs: 1,
    onVerdict: (one) => {
      verdict = one;
    },
  });
  const file = path.join(target, 'index.html');
  writeFileSync(file, report(target, title, verdict!));
  return file;
}

function report(target: string, title: string, { page, views }: PageVerdict): string {
  const [view] = views;
  const figure = (name: string, bytes: Buffer, caption: string): string => {
    writeFileSync(path.join(target, `${name}.png`), bytes);
    return `<figure><a href="${name}.png"><img src="${name}.png" alt="${escapeHtml(caption)}"></a><figcaption>${escapeHtml(caption)}</figcaption></figure>`;
  };
  const pictures = [
    figure('before', view!.pictures.before, 'before'),
    figure('after', view!.pictures.after, 'after'),
    ...(view!.pixels === undefined ? [] : [figure('moved', view!.pixels.picture, 'what moved')]),
  ];
  const rows = view!.listed.map(
    ({ node, property, before, after }) =>
      `<tr><td><code>${escapeHtml(node)}</code></td><td>${escapeHtml(property)}</td><td>${escapeHtml(before)}</td><td>${escapeHtml(after)}</td></tr>`,
  );
  const body = [
    `<header><p class="kind">Picture</p><h1>${escapeHtml(title)}</h1><p><b>${escapeHtml(page)}</b>, ${WIDTH} px wide, before and after</p></header>`,
    figures([
      [view!.differing, 'nodes that moved on this page'],
      [view!.pixels?.pixels ?? 0, 'pixels'],
    ]),
    `<div class="pictures whole">${pictures.join('')}</div>`,
    rows.length === 0
      ? '<p class="aside">Nothing on this page looks different.</p>'
      : `<section><table><thead><tr><th>Node</th><th>Property</th><th>Before</th><th>After</th></tr></thead><tbody>${rows.join('')}</tbody></table></section>`,
  ];
  return htmlPage(`Picture of ${page}`, body.join('\n'));
}
