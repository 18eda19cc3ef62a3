// How a proof is shown to a person, and what a browser saw.

import type { ProveDocument } from '../../commands/prove/document.js';
import type { ProveResult } from '../../commands/prove/prove.js';
import { groupBy } from '../../core/base/group-by.js';
import { showPlace } from '../../core/base/source.js';
import type { BrowserProof } from '../../report/browser-proof.js';
import { differs } from '../../report/browser-report.js';
import { assumptionLines } from '../shared/assumption-lines.js';
import { onSite, plural } from '../shared/moved-lines.js';
import {
  amber,
  asTyped,
  clean,
  declarationsLine,
  dim,
  grouped,
  heading,
  more,
  next,
  row,
} from '../shared/paper.js';

type Difference = ProveDocument['differences'][number];
type ShownOutcome = Extract<Difference, { kind: 'style' }>['before'][number];

const MOST_SHOWN = 10;

export function proveLines(
  folder: string,
  { document, isComponent, browser }: ProveResult,
  all: boolean,
): string[] {
  const { differences, against, live } = document;
  const other = live === undefined ? against : 'the site as it runs now';
  const lines = [heading('Proof', `${folder} against ${other}`)];
  if (live !== undefined) lines.push(...liveLines(live, all));
  const read = `${plural(document.elements, 'element')} of ${plural(document.pages, 'page')}${document.components > 0 ? ` and ${plural(document.components, 'component')}` : ''}`;
  if (differences.length === 0) {
    lines.push(row({ count: 0, text: 'differences: nothing moved, in any medium or state' }));
    lines.push(row({ text: dim(`compared: ${read}`) }));
  } else {
    // Whole pages first: what a visitor sees comes before what a fragment might do.
    const isPart = ({ page }: Difference): number => Number(isComponent(page));
    const pages = groupBy(
      [...differences].sort((a, b) => isPart(a) - isPart(b)),
      ({ page }) => page,
    );
    lines.push(
      row({
        count: differences.length,
        mark: 'broken',
        text: `differences on ${plural(pages.size, 'page')}`,
        place: `compared: ${read}`,
      }),
    );
    for (const [page, own] of all ? pages : [...pages].slice(0, 10)) {
      lines.push(heading(page, plural(own.length, 'difference')));
      for (const difference of all ? own : own.slice(0, 5))
        lines.push(...differenceLines(difference, live === undefined ? STATES : LIVE_STATES));
      if (!all && own.length > 5) lines.push(more(own.length - 5, '--all'));
    }
    if (!all && pages.size > 10) lines.push(more(pages.size - 10, '--all', 'pages'));
  }
  lines.push(...assumptionLines(document.assumptions, all));
  if (browser !== undefined) return [...lines, ...browserLines(browser)];
  if (live !== undefined) return [...lines, liveNext(folder, document)];
  lines.push(
    differences.length === 0
      ? next('git commit', 'the change is safe to keep')
      : next(`acervus undo${onSite(folder)}`, 'takes the last adoption back; or mend the places above'),
  );
  return lines;
}

function liveLines({ boxes, content, failed }: NonNullable<ProveDocument['live']>, all: boolean): string[] {
  const few = <T>(items: readonly T[]): readonly T[] => (all ? items : items.slice(0, 5));
  const lines = boxes.map(({ file, asPlanned }) =>
    row({
      mark: asPlanned ? 'kept' : 'needs',
      text: asPlanned ? 'is there as it is here' : amber('is different there: paste it'),
      place: file,
    }),
  );
  for (const { address, why } of few(failed))
    lines.push(row({ mark: 'broken', text: `${clean(address)}  ${dim(clean(why))}` }));
  if (content.length > 0)
    lines.push(
      row({
        count: content.length,
        mark: 'needs',
        text: `${content.length === 1 ? 'page has' : 'pages have'} changed since the visit  ${dim(clean(few(content).join('  ')))}`,
      }),
    );
  return lines;
}

function liveNext(folder: string, { live, equal }: ProveDocument): string {
  const open = live?.boxes.some(({ asPlanned }) => !asPlanned);
  if (open) return next(`acervus prove --live${onSite(folder)}`, 'again, when the boxes are pasted');
  return equal
    ? next(`acervus visit ${asTyped(folder)}`, 'brings the site as it is now, to go on from')
    : next(`acervus visit ${asTyped(folder)}`, 'brings what changed; then look again');
}

/** What the two states are called, as wide as each other. */
const STATES = ['before', 'after '] as const;
const LIVE_STATES = ['there  ', 'planned'] as const;

function differenceLines(difference: Difference, [then, now]: readonly [string, string]): string[] {
  switch (difference.kind) {
    case 'page':
      return [row({ mark: 'broken', text: clean(difference.what) })];
    case 'markup':
      return [
        row({
          mark: 'broken',
          text: clean(difference.what),
          place: difference.place === undefined ? '' : showPlace(difference.place),
        }),
      ];
    case 'style': {
      const { shown, target, property, before, after, place } = difference;
      return [
        row({
          mark: 'broken',
          text: `${clean(shown)}${target}  ${property}`,
          place: place === undefined ? '' : showPlace(place),
        }),
        ...outcomeLines(then, before),
        ...outcomeLines(now, after),
      ];
    }
  }
}

function outcomeLines(label: string, outcomes: readonly ShownOutcome[]): string[] {
  if (outcomes.length === 0) return [row({ text: dim(`  ${label}  nothing sets it`) })];
  return outcomes.slice(0, 2).map(({ value, condition, from, place }, at) => {
    const when = condition === '' ? '' : ` when ${condition}`;
    return row({
      text: `  ${dim(at === 0 ? label : '   or ')}  ${declarationsLine([`${value}${when}`])}  ${dim(clean(from))}`,
      place: showPlace(place),
    });
  });
}

function browserLines({ pages, nodes, views, report }: BrowserProof): string[] {
  const different = pages.filter((page) => page.views.some(differs));
  const lines = [heading('Browser', `${plural(pages.length, 'page')} in ${views} views, scripts off`)];
  if (different.length === 0)
    lines.push(row({ count: 0, text: 'pages look different: not in a box, a computed value or a pixel' }));
  else
    lines.push(
      row({ count: different.length, mark: 'broken', text: `pages look different of ${pages.length}` }),
    );
  for (const page of different.slice(0, MOST_SHOWN)) {
    const found = page.views.filter(differs);
    const [first] = found.flatMap(({ listed }) => listed);
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
  if (different.length > MOST_SHOWN)
    lines.push(more(different.length - MOST_SHOWN, 'in the report', 'pages'));
  lines.push(row({ text: dim(`compared: ${grouped(nodes)} nodes, box and every computed value`) }));
  lines.push(next(report, 'shows every page, before and after'));
  return lines;
}
