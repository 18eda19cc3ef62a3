// The whole of a site's styling on one page, for whoever pays for it: what there is, where it lies, and what became of it.

import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { findChromium } from '../browser/chromium.js';
import { judge, type PageVerdict } from '../browser/judge.js';
import { grouped } from '../core/base/grouped.js';
import { isBuiltPage } from '../core/read/kinds/index.js';
import { type Page, parsePage } from '../core/read/markup/index.js';
import { openFolder, type SiteFiles } from '../site/files/files.js';
import { insideSite } from '../site/files/inside.js';
import { readConfig } from '../site/files/pages.js';
import { lastChange } from '../site/ledger/before.js';
import { SiteReader } from '../site/rendering/reader.js';
import { TagChanges } from './moves.js';
import { escapeHtml, figures, page as htmlPage } from './page.js';
import { type Area, areasOf, weightsOf } from './weights.js';

const FOLDER = path.join('.acervus', 'report');
const PICTURE_WIDTH = 1200;
const MOST_MOVES = 10;
const MOST_AREAS = 12;

/** One bar of the upkeep: its parts, each with what it is called. */
export interface UpkeepBar {
  readonly name: string;
  readonly parts: readonly (readonly [what: string, count: number])[];
}

export interface Move {
  readonly name: string;
  readonly how: string;
  readonly elements: number;
  readonly pages: number;
  readonly saves: number;
  readonly rule: string;
  /** Where a tag stands that it changes. */
  readonly places: readonly string[];
}

/** What the commands know; the pages are looked at here. */
export interface WholeReport {
  readonly kind: 'survey' | 'adopt';
  readonly headline: string;
  readonly said: string;
  readonly figures: readonly (readonly [number, string])[];
  readonly upkeep: readonly UpkeepBar[];
  readonly moves: readonly Move[];
  readonly nearMisses: readonly { readonly one: string; readonly other: string; readonly said: string }[];
  readonly kept: readonly { readonly reason: string; readonly count: number; readonly place: string }[];
}

/** Writes the page into the site's `.acervus`. In: the site's folder. Out: its path. Throws `UsageError`. */
export async function writeReport(folder: string, report: WholeReport): Promise<string> {
  insideSite(folder, FOLDER);
  const target = path.join(folder, FOLDER);
  rmSync(target, { recursive: true, force: true });
  mkdirSync(target, { recursive: true });
  const after = openFolder(folder);
  const change = report.kind === 'adopt' ? lastChange(folder) : undefined;
  const before = change?.before ?? after;
  const is = await weightsOf(after);
  const was = change === undefined ? is : await weightsOf(before);
  const tags = change === undefined ? undefined : await TagChanges.between(before, after);
  const body = [
    `<header><p class="kind">${report.kind === 'adopt' ? 'What was adopted' : 'Survey'}</p><h1>${escapeHtml(report.headline)}</h1><p>${escapeHtml(report.said)}</p></header>`,
    figures(report.figures),
    upkeepSection(report.upkeep),
    areaSection(areasOf(was, is), was, is),
    movesSection(report.kind, report.moves.slice(0, MOST_MOVES), tags),
    nearSection(report.nearMisses),
    keptSection(report.kept),
    change === undefined ? '' : await pictureSection(target, before, after, change.files),
  ];
  const file = path.join(target, 'index.html');
  const site = path.basename(path.resolve(folder));
  writeFileSync(
    file,
    htmlPage(`Styling of ${site}`, body.filter((one) => one !== '').join('\n'), { style: STYLE }),
  );
  return file;
}

function upkeepSection(bars: readonly UpkeepBar[]): string {
  const total = ({ parts }: UpkeepBar): number => parts.reduce((sum, [, count]) => sum + count, 0);
  const most = Math.max(1, ...bars.map(total));
  const rows = bars.map((bar) => {
    let at = 0;
    const rects = bar.parts.map(([what, count], part) => {
      const [x, width] = [at, (count / most) * 100];
      at += width;
      return `<rect x="${x.toFixed(2)}" width="${width.toFixed(2)}" height="10" class="p${part}"><title>${escapeHtml(what)}: ${count}</title></rect>`;
    });
    return `<tr><th scope="row">${escapeHtml(bar.name)}</th><td class="count">${grouped(total(bar))}</td><td><svg viewBox="0 0 100 10" preserveAspectRatio="none" role="img" aria-label="${escapeHtml(bar.parts.map(([what, count]) => `${what} ${count}`).join(', '))}">${rects.join('')}</svg></td></tr>`;
  });
  const keys = (bars[0]?.parts ?? []).map(
    ([what], part) => `<span class="key"><span class="p${part}"></span>${escapeHtml(what)}</span>`,
  );
  return `<section><h2>To maintain</h2><p class="aside">Places that hold a declaration or an old attribute. ${keys.join(' ')}</p><table class="bars"><tbody>${rows.join('')}</tbody></table></section>`;
}

function areaSection(
  areas: readonly Area[],
  was: ReadonlyMap<string, number>,
  is: ReadonlyMap<string, number>,
): string {
  const most = Math.max(1, ...areas.map(({ before }) => before));
  const isChanged = was !== is;
  const rows = areas.slice(0, MOST_AREAS).map(({ name, pages, before, after }) => {
    const bar = (count: number, part: string): string =>
      `<rect width="${((count / most) * 100).toFixed(2)}" height="10" class="${part}"></rect>`;
    const counts = isChanged ? `${grouped(before)} → ${grouped(after)}` : grouped(before);
    return `<tr><th scope="row">${escapeHtml(name)}</th><td class="count">${counts}</td><td><svg viewBox="0 0 100 10" preserveAspectRatio="none" aria-hidden="true">${bar(before, isChanged ? 'was' : 'p0')}${isChanged ? bar(after, 'p0') : ''}</svg></td><td class="aside">${pages === 1 ? '1 page' : `${grouped(pages)} pages`}</td></tr>`;
  });
  const more = areas.length - rows.length;
  return `<section><h2>Where it lies</h2><p class="aside">In tags and style blocks${isChanged ? ', before and after' : ''}; each page is a line below.</p>${strip(was, is)}<table class="bars"><tbody>${rows.join('')}</tbody></table>${more > 0 ? `<p class="aside">and ${grouped(more)} more</p>` : ''}</section>`;
}

/** Every page as a line, in order; above a thousand the highest of those that fall together. */
function strip(was: ReadonlyMap<string, number>, is: ReadonlyMap<string, number>): string {
  const pages = [...was.keys()];
  const each = Math.max(1, Math.ceil(pages.length / 1000));
  const most = Math.max(1, ...was.values());
  const lines: string[] = [];
  for (let at = 0; at < pages.length; at += each) {
    const own = pages.slice(at, at + each);
    const high = (of: ReadonlyMap<string, number>): number =>
      Math.max(...own.map((file) => of.get(file) ?? 0));
    const line = (count: number, part: string): string => {
      const height = (count / most) * 40;
      return `<rect x="${at / each}" y="${(40 - height).toFixed(2)}" width=".8" height="${height.toFixed(2)}" class="${part}"><title>${escapeHtml(own[0]!)}: ${count}</title></rect>`;
    };
    lines.push(was === is ? line(high(is), 'p0') : line(high(was), 'was') + line(high(is), 'p0'));
  }
  return `<svg class="strip" viewBox="0 0 ${Math.max(1, Math.ceil(pages.length / each))} 40" preserveAspectRatio="none" role="img" aria-label="How much each page holds; the most is ${most}">${lines.join('')}</svg>`;
}

function movesSection(
  kind: WholeReport['kind'],
  moves: readonly Move[],
  tags: TagChanges | undefined,
): string {
  if (moves.length === 0) return '';
  const articles = moves.map(({ name, how, elements, pages, saves, rule, places }) => {
    const change = places
      .map((place) => tags?.at(place))
      .find((one) => one !== undefined && one.before !== one.after);
    const tag =
      change === undefined
        ? ''
        : `<div class="turn"><code class="out">${escapeHtml(change.before)}</code><code>${escapeHtml(change.after)}</code></div>`;
    return `<article><h3>${escapeHtml(name)}</h3><p>${escapeHtml(how)}: ${grouped(elements)} ${elements === 1 ? 'element' : 'elements'} on ${grouped(pages)} ${pages === 1 ? 'page' : 'pages'}, ${grouped(saves)} places less</p>${tag}<pre><code>${escapeHtml(rule)}</code></pre></article>`;
  });
  return `<section><h2>${kind === 'adopt' ? 'The biggest moves' : 'Written most often'}</h2>${articles.join('')}</section>`;
}

const HEX = /^#[\da-f]{3,8}$/i;

function nearSection(near: WholeReport['nearMisses']): string {
  if (near.length === 0) return '';
  const swatch = (colour: string): string =>
    HEX.test(colour)
      ? `<span class="swatch" style="background:${colour}"></span>`
      : '<span class="swatch"></span>';
  const items = near.map(
    ({ one, other, said }) =>
      `<figure><div class="pair">${swatch(one)}${swatch(other)}</div><figcaption><code>${escapeHtml(one)}</code> and <code>${escapeHtml(other)}</code><br><span class="aside">${escapeHtml(said)}</span></figcaption></figure>`,
  );
  return `<section><h2>Nearly the same</h2><div class="small">${items.join('')}</div></section>`;
}

function keptSection(kept: WholeReport['kept']): string {
  if (kept.length === 0) return '';
  const rows = kept.map(
    ({ reason, count, place }) =>
      `<tr><td class="count">${grouped(count)}</td><td>${escapeHtml(reason)}</td><td class="aside">${escapeHtml(place)}</td></tr>`,
  );
  return `<section><h2>What stays, and why</h2><table><tbody>${rows.join('')}</tbody></table></section>`;
}

/** Three pages that were changed, chosen to differ most in their markup. */
async function pictureSection(
  target: string,
  before: SiteFiles,
  after: SiteFiles,
  files: readonly string[],
): Promise<string> {
  const pages = mostDifferent(new SiteReader(after, await readConfig(after)), files.filter(isBuiltPage), 3);
  if (pages.length === 0) return '';
  if (findChromium() === undefined)
    return '<section><h2>Before and after</h2><p class="aside">No pictures: no Chromium is installed here.</p></section>';
  const verdicts = new Map<string, PageVerdict>();
  await judge(before, after, pages, {
    views: [{ width: PICTURE_WIDTH, media: 'screen' }],
    tabs: 1,
    onVerdict: (verdict) => verdicts.set(verdict.page, verdict),
  });
  const rows = pages.map((page, at) => {
    const { differing, pictures } = verdicts.get(page)!.views[0]!;
    const figure = (which: 'before' | 'after'): string => {
      const name = `page-${at + 1}-${which}.png`;
      writeFileSync(path.join(target, name), pictures[which]);
      return `<figure><a href="${name}"><img src="${name}" alt="${escapeHtml(`${page}, ${which}`)}"></a><figcaption>${which}</figcaption></figure>`;
    };
    const said = differing === 0 ? 'nothing looks different' : `${differing} nodes look different`;
    return `<h4>${escapeHtml(page)} <span class="aside">${said}</span></h4><div class="pictures two">${figure('before')}${figure('after')}</div>`;
  });
  return `<section><h2>Before and after</h2>${rows.join('')}</section>`;
}

function mostDifferent(reader: SiteReader, pages: readonly string[], wanted: number): string[] {
  const counts = pages.slice(0, 300).flatMap((file) => {
    const text = reader.page(file);
    return text === undefined ? [] : [{ file, names: namesOn(parsePage(file, text)) }];
  });
  const chosen = counts.slice(0, 1);
  while (chosen.length < Math.min(wanted, counts.length)) {
    const apart = (one: (typeof counts)[number]): number =>
      Math.min(...chosen.map((other) => distance(one.names, other.names)));
    const others = counts.filter((one) => !chosen.includes(one));
    chosen.push(others.reduce((best, one) => (apart(one) > apart(best) ? one : best)));
  }
  return chosen.map(({ file }) => file);
}

function namesOn({ elements }: Page): Map<string, number> {
  const found = new Map<string, number>();
  for (const { name } of elements) found.set(name, (found.get(name) ?? 0) + 1);
  return found;
}

function distance(one: ReadonlyMap<string, number>, other: ReadonlyMap<string, number>): number {
  let apart = 0;
  for (const name of new Set([...one.keys(), ...other.keys()]))
    apart += Math.abs(Math.log2(1 + (one.get(name) ?? 0)) - Math.log2(1 + (other.get(name) ?? 0)));
  return apart;
}

const STYLE = `
:root { --first: #1f5c7a; --second: #7a9bb0; --third: #c3b48a; --was: #c9c4b8; }
@media (prefers-color-scheme: dark) { :root { --first: #7ab4d0; --second: #4f7389; --third: #8a7c52; --was: #45484d; } }
.p0 { fill: var(--first); background: var(--first); } .p1 { fill: var(--second); background: var(--second); }
.p2 { fill: var(--third); background: var(--third); } .was { fill: var(--was); }
svg { display: block; width: 100%; height: 1rem; print-color-adjust: exact; }
.strip { height: 5rem; margin: 0 0 1.5rem; border-bottom: 1px solid var(--line); }
.key { margin-right: .75rem; white-space: nowrap; }
.key span { display: inline-block; width: .7rem; height: .7rem; margin-right: .35rem; print-color-adjust: exact; }
section .bars th { width: 11rem; color: inherit; vertical-align: middle; }
section .bars td { vertical-align: middle; }
section .count { width: 7rem; padding-right: 1rem; text-align: right; white-space: nowrap; }
.bars .aside { width: 6rem; }
article { break-inside: avoid; }
article p { margin: 0 0 .5rem; }
.turn code { display: block; overflow-wrap: anywhere; }
.turn .out { color: var(--soft); text-decoration: line-through; }
pre { margin: .5rem 0; overflow-x: auto; }
.pair { display: grid; grid-template-columns: 1fr 1fr; }
.swatch { height: 4rem; border: 1px solid var(--line); print-color-adjust: exact; }
.two { grid-template-columns: 1fr 1fr; }
.two img { height: 22rem; }
`;
