// A work list in the forms that people work from: Markdown with boxes to tick, a table, and a page.

import { startsWithOneOf } from '../core/base/characters.js';
import { groupBy } from '../core/base/group-by.js';
import { withSingleSpaces } from '../core/base/phrases.js';
import { keepFile, WORK_FILE } from '../site/visiting/keeper.js';
import type { WorkItem, WorkList } from '../site/visiting/work-list.js';
import { escapeHtml, figures, page } from './page.js';

export const WORK_PAGE = 'work-list.html';

/** Writes the list into the site's folder, in every form. In: the origin, for the title. */
export function keepWorkList(root: string, list: WorkList, origin: string): void {
  keepFile(root, WORK_FILE, `${JSON.stringify(list, null, 1)}\n`);
  keepFile(root, 'work-list.md', asMarkdown(list, origin));
  keepFile(root, 'work-list.csv', asTable(list));
  keepFile(root, WORK_PAGE, asPage(list, origin));
}

/** In words, what is to be done at one block. In: how what is to be typed or found is set off from the words. */
function stepsOf(
  { styleOut, styleLeft, classIn, classOut, attributesOut }: WorkItem,
  { word, code }: { readonly word: (text: string) => string; readonly code: (text: string) => string },
): string[] {
  const out = code(styleOut.join('; '));
  return [
    ...(styleOut.length === 0
      ? []
      : styleLeft === ''
        ? [`${word('take out the style')} ${out}`]
        : [`${word('take out of the style')} ${out}${word('; keep')} ${code(styleLeft)}`]),
    ...classIn.map((name) => `${word('give it the class')} ${code(name)}`),
    ...classOut.map((name) => `${word('take away the class')} ${code(name)}`),
    ...attributesOut.map((text) => `${word('take out')} ${code(text)}`),
  ];
}

const IN_TEXT = { word: (text: string) => text, code: (text: string) => text };
const IN_PAGE = { word: escapeHtml, code: (text: string) => `<code>${escapeHtml(text)}</code>` };
const IN_MARKDOWN = { word: (text: string) => text, code: inBackticks };

/** Between more backticks than the text has in a row. */
function inBackticks(text: string): string {
  const most = Math.max(0, ...[...text.matchAll(/`+/g)].map(([run]) => run.length));
  const fence = '`'.repeat(most + 1);
  const edge = most > 0 ? ' ' : '';
  return `${fence}${edge}${withSingleSpaces(text)}${edge}${fence}`;
}

function linkOf({ address, anchor }: WorkItem): string {
  return anchor === undefined ? address : `${address}#${encodeURIComponent(anchor)}`;
}

function blockText({ heading, text, element }: WorkItem): string {
  const under = heading === undefined || heading === text ? '' : ` under “${heading}”`;
  return `${text === '' ? element : `“${text}”`}${under}`;
}

/** Markdown's own characters stand for themselves. */
function plain(text: string): string {
  return text.replace(/[\\`*_[\]<>~]/g, '\\$&');
}

function asMarkdown({ items }: WorkList, origin: string): string {
  const lines = [`# Work list of ${plain(origin)}`, '', countText(items), ''];
  for (const [address, own] of groupBy(items, (one) => one.address)) {
    lines.push(`## <${address.replace(/[<>\s]/g, encodeURIComponent)}>`, '');
    for (const one of own) {
      const done = one.state === 'open' ? ' ' : 'x';
      const gone = one.state === 'gone' ? ' (is not there any more)' : '';
      lines.push(`- [${done}] ${plain(blockText(one))} ${inBackticks(one.element)}${gone}`);
      for (const step of stepsOf(one, IN_MARKDOWN)) lines.push(`  - ${step}`);
    }
    lines.push('');
  }
  return lines.join('\n');
}

function countText(items: readonly WorkItem[]): string {
  const open = items.filter(({ state }) => state === 'open').length;
  return `${open} of ${items.length} to do.`;
}

/** CSV (RFC 4180). What a spreadsheet would take for a formula is not one. */
function asTable({ items }: WorkList): string {
  const cell = (text: string): string =>
    `"${(startsWithOneOf(text, '=+-@\t\r') ? `'${text}` : text).replaceAll('"', '""')}"`;
  const rows = items.map((one) => [
    one.state,
    linkOf(one),
    one.heading ?? '',
    one.text,
    one.element,
    stepsOf(one, IN_TEXT).join('. '),
  ]);
  return [['state', 'address', 'heading', 'text', 'element', 'to do'], ...rows]
    .map((row) => row.map(cell).join(','))
    .join('\r\n')
    .concat('\r\n');
}

function asPage({ items }: WorkList, origin: string): string {
  const open = items.filter(({ state }) => state === 'open').length;
  const pages = groupBy(items, (one) => one.address);
  const sections = [...pages].map(([address, own]) => {
    const rows = own.map((one) => {
      const steps = stepsOf(one, IN_PAGE).map((step) => `<li>${step}</li>`);
      const isOpen = one.state === 'open';
      const aside = one.state === 'gone' ? ' <span class="aside">is not there any more</span>' : '';
      return `<tr><td><input type="checkbox"${isOpen ? '' : ' checked'} aria-label="done"></td><td><a href="${escapeHtml(linkOf(one))}">${escapeHtml(blockText(one))}</a>${aside}<br><code>${escapeHtml(one.element)}</code></td><td><ul>${steps.join('')}</ul></td></tr>`;
    });
    const left = own.filter(({ state }) => state === 'open').length;
    return `<section><h3><a href="${escapeHtml(address)}">${escapeHtml(address)}</a></h3><p class="aside">${left} of ${own.length} to do</p><table class="work"><tbody>${rows.join('\n')}</tbody></table></section>`;
  });
  const body = [
    `<header><p class="kind">Work list</p><h1>${open === 0 ? 'All is done.' : `${open} to do, in the editor of the platform.`}</h1>`,
    `<p>Of <b>${escapeHtml(origin)}</b>: what no sheet can do. Visit again, and it ticks what is done.</p></header>`,
    figures([
      [open, 'blocks to change'],
      [items.length - open, 'done'],
      [pages.size, 'pages'],
    ]),
    ...sections,
  ];
  return page(`Work list of ${origin}`, body.join('\n'));
}
