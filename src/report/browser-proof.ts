// A browser proof from end to end: which pages and views, the judging, the pictures, the report.

import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import picomatch from 'picomatch';
import type { View } from '../browser/capture.js';
import type { PixelDifference } from '../browser/compare.js';
import { judge, type PageVerdict } from '../browser/judge.js';
import { UsageError } from '../core/base/usage-error.js';
import { insideSite } from '../site/files/inside.js';
import { readConfig } from '../site/files/pages.js';
import { openState, otherState } from '../site/files/state.js';
import { SiteReader } from '../site/rendering/reader.js';
import { type BrowserReport, browserReport, differs, type ReportedPage } from './browser-report.js';

export interface BrowserProofOptions {
  /** Patterns of the pages to look at; all without. */
  readonly pages?: readonly string[] | undefined;
  /** Every so many-th page of those. */
  readonly every?: number | undefined;
  /** In pixels. */
  readonly widths: readonly number[];
  /** How many tabs. */
  readonly jobs?: number | undefined;
  readonly onPage?: ((done: number, of: number) => void) | undefined;
}

export interface BrowserProof {
  /** By path. */
  readonly pages: readonly ReportedPage[];
  readonly nodes: number;
  readonly views: number;
  /** The report's path. */
  readonly report: string;
}

/** Where reports go: a folder of the site that is no part of it. */
const REPORT_FOLDER = path.join('.acervus', 'browser');

/**
 * In: the site's folder; the folder or commit to compare with.
 * Out: what looks different; the report is written. Throws `UsageError` without a browser or a page.
 */
export async function proveInBrowser(
  folder: string,
  against: string,
  options: BrowserProofOptions,
): Promise<BrowserProof> {
  const [before, after] = [openState(otherState(folder, against)), openState({ kind: 'folder', folder })];
  const [then, now] = [
    new SiteReader(before, await readConfig(before)),
    new SiteReader(after, await readConfig(after)),
  ];
  const known = new Set(then.pagePaths);
  const isWanted = options.pages === undefined ? () => true : picomatch([...options.pages]);
  const wanted = now.pagePaths
    .filter((one) => known.has(one) && !now.isComponent(one) && isWanted(one))
    .filter((_, at) => at % (options.every ?? 1) === 0);
  if (wanted.length === 0) throw new UsageError('pages-fit-none', {});
  insideSite(folder, REPORT_FOLDER);
  const target = path.join(folder, REPORT_FOLDER);
  rmSync(target, { recursive: true, force: true });
  mkdirSync(path.join(target, 'pictures'), { recursive: true });
  const widest = Math.max(...options.widths);
  const views: View[] = [
    ...options.widths.map((width): View => ({ width, media: 'screen' })),
    { width: widest, media: 'print' },
  ];
  const reported: ReportedPage[] = [];
  await judge(before, after, wanted, {
    views,
    tabs: options.jobs ?? Math.max(2, Math.min(4, availableParallelism())),
    onVerdict: (verdict, done) => {
      reported.push(keepPictures(target, wanted.indexOf(verdict.page) + 1, verdict));
      options.onPage?.(done, wanted.length);
    },
  });
  const pages = reported.sort((a, b) => (a.path < b.path ? -1 : 1));
  const report: BrowserReport = {
    site: folder === '.' ? path.basename(path.resolve(folder)) : folder,
    against,
    made: new Date().toISOString().slice(0, 16).replace('T', ' '),
    browser: 'Chromium, scripts off',
    pages: [
      ...pages.filter((one) => one.views.some(differs)),
      ...pages.filter((one) => !one.views.some(differs)),
    ],
  };
  const file = path.join(target, 'index.html');
  writeFileSync(file, browserReport(report));
  const nodes = pages.reduce((sum, one) => sum + one.views.reduce((own, view) => own + view.nodes, 0), 0);
  return { pages, nodes, views: views.length, report: file };
}

/** Writes the pictures of a page as they come, so that none is kept. */
function keepPictures(target: string, number: number, { page, views }: PageVerdict): ReportedPage {
  return {
    path: page,
    views: views.map(({ view, nodes, differing, listed, pixels, pictures }) => {
      const name = `${number}-${view.media === 'print' ? 'print-' : ''}${view.width}`;
      const write = (kind: string, bytes: Buffer): string => {
        const address = `pictures/${name}-${kind}.png`;
        writeFileSync(path.join(target, address), bytes);
        return address;
      };
      const after = write('after', pictures.after);
      return {
        name: `${view.media === 'print' ? 'print, ' : ''}${view.width} px`,
        nodes,
        differing,
        differingPixels: pixels?.pixels ?? 0,
        listed,
        before: pictures.before.equals(pictures.after) ? after : write('before', pictures.before),
        after,
        pixels: pixels === undefined ? undefined : write('pixels', pixels.picture),
        sight: pixels === undefined ? 0 : sightOf(pixels),
      };
    }),
  };
}

/** Which part of a tall picture to show, in percent from the top: a little above the first row that differs. */
function sightOf({ row, width, height }: PixelDifference): number {
  const shown = width * SHOWN_SHAPE;
  return Math.round(Math.min(100, Math.max(0, (100 * (row - shown / 4)) / Math.max(1, height - shown))));
}

/** Height to width of the pictures in the report. */
const SHOWN_SHAPE = 0.6;
