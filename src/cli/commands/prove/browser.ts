// `acervus prove --browser`: its options, and how its result is shown.

import type { z } from 'zod';
import { count } from '../../../core/proof/index.js';
import type { BrowserProof } from '../../../report/browser-proof.js';
import { differs } from '../../../report/browser-report.js';
import { UsageError } from '../../../core/usage-error.js';
import type { proveDocument } from '../../documents.js';
import { clean, declarationsLine, dim, grouped, heading, more, next, row } from '../../shared/paper.js';
import { Progress } from '../../shared/progress.js';
import type { ProveOptions } from './command.js';

const USUAL_WIDTHS = '1200,500';
const MOST_SHOWN = 10;

/** Throws `UsageError` for numbers that are none, and for options that mean nothing without `--browser`. */
export function checkBrowserOptions(options: ProveOptions): void {
  const given = (['pages', 'every', 'widths'] as const).find((name) => options[name] !== undefined);
  if (options.browser !== true && given !== undefined)
    throw new UsageError(`--${given}: belongs to --browser; add it, or leave this out`);
  widthsOf(options);
  everyOf(options);
}

function widthsOf({ widths = USUAL_WIDTHS }: ProveOptions): number[] {
  const numbers = widths.split(',').map(Number);
  if (numbers.some((width) => !Number.isInteger(width) || width < 100 || width > 8000))
    throw new UsageError(`--widths ${widths}: expected whole numbers from 100 to 8000, such as 1200,500`);
  return numbers;
}

function everyOf({ every }: ProveOptions): number | undefined {
  if (every === undefined) return undefined;
  const number = Number(every);
  if (!Number.isInteger(number) || number < 1)
    throw new UsageError(`--every ${every}: expected a whole number from 1 on`);
  return number;
}

export async function inBrowser(folder: string, options: ProveOptions): Promise<BrowserProof> {
  const { proveInBrowser } = await import('../../../report/browser-proof.js');
  const progress = new Progress();
  const every = everyOf(options);
  const proof = await proveInBrowser(folder, options.against, {
    widths: widthsOf(options),
    ...(options.pages === undefined ? {} : { pages: options.pages }),
    ...(every === undefined ? {} : { every }),
    ...(options.jobs === undefined ? {} : { jobs: Number(options.jobs) }),
    onPage: (done, of) => progress.step('looking at', done, of),
  });
  progress.end();
  return proof;
}

export function browserLines({ pages, nodes, views, report }: BrowserProof): string[] {
  const different = pages.filter((page) => page.views.some(differs));
  const lines = [heading('Browser', `${count(pages.length, 'page')} in ${views} views, scripts off`)];
  if (different.length === 0)
    lines.push(row({ count: 0, text: 'pages look different: no box, no computed value, no pixel' }));
  else
    lines.push(
      row({ count: different.length, mark: 'broken', text: `pages look different of ${pages.length}` }),
    );
  for (const page of different.slice(0, MOST_SHOWN)) {
    const found = page.views.filter(differs);
    const [first] = found.flatMap(({ told }) => told);
    const pixels = found.reduce((sum, view) => sum + view.differingPixels, 0);
    lines.push(
      row({
        mark: 'broken',
        text: `${clean(page.path)}  ${dim(found.map(({ name }) => name).join('; '))}`,
        place: `${grouped(pixels)} pixels`,
      }),
    );
    if (first !== undefined)
      lines.push(
        row({
          text: dim(
            `  ${clean(first.node)}  ${declarationsLine([`${first.property}: ${first.before} became ${first.after}`])}`,
          ),
        }),
      );
  }
  if (different.length > MOST_SHOWN) lines.push(more(different.length - MOST_SHOWN, 'pages, in the report'));
  lines.push(row({ text: dim(`compared: ${grouped(nodes)} nodes, box and every computed value`) }));
  lines.push(next(report, 'shows every page, before and after'));
  return lines;
}

export function browserJson({
  pages,
  nodes,
  views,
  report,
}: BrowserProof): NonNullable<z.infer<typeof proveDocument>['browser']> {
  return {
    equal: !pages.some((page) => page.views.some(differs)),
    pages: pages.length,
    views,
    nodes,
    report,
    differences: pages.flatMap((page) =>
      page.views.filter(differs).map(({ name, differing, differingPixels, told }) => ({
        page: page.path,
        view: name,
        nodes: differing,
        pixels: differingPixels,
        told: [...told],
      })),
    ),
  };
}
