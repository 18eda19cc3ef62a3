// The result of a browser proof as one HTML page that reads without scripts, in light and dark, and printed.

import type { LooksDifference } from '../browser/compare.js';
import { grouped } from '../core/base/grouped.js';
import { escapeHtml, figures, page } from './page.js';

export interface ReportedView {
  /** `1200 px`, `500 px`, `print, 1200 px`. */
  readonly name: string;
  readonly nodes: number;
  readonly differing: number;
  readonly differingPixels: number;
  readonly listed: readonly LooksDifference[];
  /** Addresses relative to the report; `after` is `before` where the pictures are the same. */
  readonly before: string;
  readonly after: string;
  readonly pixels: string | undefined;
  /** Which part of the pictures to show, in percent from the top. */
  readonly sight: number;
}

export interface ReportedPage {
  readonly path: string;
  readonly views: readonly ReportedView[];
}

export interface BrowserReport {
  readonly site: string;
  readonly against: string;
  /** `2026-01-31 10:20`. */
  readonly made: string;
  readonly browser: string;
  readonly pages: readonly ReportedPage[];
}

export function differs(view: ReportedView): boolean {
  return view.differing > 0 || view.differingPixels > 0;
}

/** In: what was found. Out: an HTML document. Text from the site is escaped. */
export function browserReport(report: BrowserReport): string {
  const views = report.pages.flatMap((one) => one.views);
  const different = report.pages.filter((one) => one.views.some(differs));
  const equal = report.pages.filter((one) => !one.views.some(differs));
  const nodes = views.reduce((sum, view) => sum + view.nodes, 0);
  const verdict =
    different.length === 0
      ? 'Nothing looks different.'
      : `${different.length} of ${report.pages.length} pages look different.`;
  const body = [
    `<header><p class="kind">Browser proof</p><h1>${escapeHtml(verdict)}</h1>`,
    `<p><b>${escapeHtml(report.site)}</b> against <b>${escapeHtml(report.against)}</b>, ${escapeHtml(report.made)}, ${escapeHtml(report.browser)}</p></header>`,
    figures([
      [different.length, 'pages that look different'],
      [report.pages.length, 'pages compared'],
      [views.length, `views: ${[...new Set(views.map(({ name }) => name))].join('; ')}`],
      [nodes, 'nodes compared, box and every computed value'],
    ]),
    ...(different.length === 0 ? [] : ['<h2>Different</h2>', ...different.map(differentPage)]),
    ...(equal.length === 0
      ? []
      : ['<h2>The same</h2>', `<div class="small">${equal.map(equalPage).join('\n')}</div>`]),
  ];
  return page(`Browser proof of ${report.site}`, body.join('\n'));
}

function differentPage({ path, views }: ReportedPage): string {
  const same = views.filter((view) => !differs(view)).map(({ name }) => name);
  const note = same.length === 0 ? '' : `<p class="aside">The same at ${escapeHtml(same.join('; '))}.</p>`;
  return `<section><h3>${escapeHtml(path)}</h3>${note}${views.filter(differs).map(differentView).join('\n')}</section>`;
}

function differentView(view: ReportedView): string {
  const rows = view.listed.map(
    ({ node, property, before, after }) =>
      `<tr><td><code>${escapeHtml(node)}</code></td><td>${escapeHtml(property)}</td><td>${escapeHtml(before)}</td><td>${escapeHtml(after)}</td></tr>`,
  );
  const table =
    rows.length === 0
      ? '<p class="aside">No node differs; only pixels do.</p>'
      : `<table><thead><tr><th>Node</th><th>Property</th><th>Before</th><th>After</th></tr></thead><tbody>${rows.join('')}</tbody></table>`;
  const picture = (address: string, caption: string): string =>
    `<figure><a href="${escapeHtml(address)}"><img src="${escapeHtml(address)}" alt="${escapeHtml(caption)}" loading="lazy" style="object-position: 0 ${view.sight}%"></a><figcaption>${escapeHtml(caption)}</figcaption></figure>`;
  const pixels =
    view.pixels === undefined ? '' : picture(view.pixels, `${grouped(view.differingPixels)} pixels differ`);
  return [
    `<h4>${escapeHtml(view.name)}: ${grouped(view.differing)} ${view.differing === 1 ? 'node differs' : 'nodes differ'}</h4>`,
    `<div class="pictures">${picture(view.before, 'before')}${picture(view.after, 'after')}${pixels}</div>`,
    table,
    view.differing > view.listed.length && view.listed.length > 0
      ? '<p class="aside">The first of them are listed.</p>'
      : '',
  ].join('\n');
}

function equalPage({ path, views }: ReportedPage): string {
  const [first] = views;
  if (first === undefined) return '';
  const links = views
    .map(({ name, after }) => `<a href="${escapeHtml(after)}">${escapeHtml(name)}</a>`)
    .join(', ');
  return `<figure><a href="${escapeHtml(first.after)}"><img src="${escapeHtml(first.after)}" alt="" loading="lazy"></a><figcaption>${escapeHtml(path)}<br><span class="aside">${links}</span></figcaption></figure>`;
}
