// `acervus prove`: shows that two states of a site look the same, or where they do not.

import type { z } from 'zod';
import { count, type Difference, type Proof, type ShownOutcome } from '../../../core/proof/index.js';
import { showPlace } from '../../../core/source.js';
import { groupBy } from '../../../core/stock/index.js';
import type { BrowserProof } from '../../../report/browser-proof.js';
import { differs } from '../../../report/browser-report.js';
import { type Proven, proveSite } from '../../../site/threads/proving.js';
import { browserJson, browserLines, checkBrowserOptions, inBrowser } from './browser.js';
import type { proveDocument } from '../../documents.js';
import {
  clean,
  declarationsLine,
  dim,
  heading,
  more,
  next,
  print,
  printJson,
  printTimings,
  row,
} from '../../shared/paper.js';
import { Progress } from '../../shared/progress.js';

export interface ProveOptions {
  readonly against: string;
  readonly json?: boolean;
  readonly all?: boolean;
  readonly jobs?: string;
  readonly timings?: boolean;
  readonly browser?: boolean;
  readonly pages?: readonly string[];
  readonly every?: string;
  readonly widths?: string;
}

/** Out: 1 when the states differ. */
export async function prove(folder: string, options: ProveOptions): Promise<number> {
  checkBrowserOptions(options);
  const progress = new Progress();
  progress.say('reading both states');
  const proven = await proveSite(folder, options.against, {
    jobs: options.jobs,
    onPage: (done, of) => progress.step('proving', done, of),
  });
  const { proof } = proven;
  const start = performance.now();
  const browser = options.browser === true ? await inBrowser(folder, options) : undefined;
  if (browser !== undefined) proven.timings.add('browser', performance.now() - start);
  progress.end();
  const differing = browser?.pages.filter((page) => page.views.some(differs)).length ?? 0;
  if (options.json === true) printJson(proveJson(options.against, proof, browser));
  else
    print([
      ...proveLines(folder, options, proven, browser === undefined),
      ...(browser === undefined ? [] : browserLines(browser)),
    ]);
  if (options.timings === true) printTimings(proven.timings);
  return proof.differences.length === 0 && differing === 0 ? 0 : 1;
}

function proveJson(
  against: string,
  proof: Proof,
  browser: BrowserProof | undefined,
): z.infer<typeof proveDocument> {
  return {
    format: 1,
    command: 'prove',
    against,
    equal: proof.differences.length === 0,
    pages: proof.pages,
    components: proof.components,
    elements: proof.elements,
    differences: proof.differences.map((one) => {
      if (one.kind !== 'style')
        return one.kind === 'page'
          ? one
          : { kind: one.kind, page: one.page, what: one.what, ...(one.place && { place: one.place }) };
      const { kind, page, place, shown, target, property, before, after } = one;
      return {
        kind,
        page,
        ...(place && { place }),
        shown,
        target,
        property,
        before: [...before],
        after: [...after],
      };
    }),
    assumptions: [...proof.assumptions],
    ...(browser === undefined ? {} : { browser: browserJson(browser) }),
  };
}

function proveLines(
  folder: string,
  { against, all = false }: ProveOptions,
  { proof, isComponent }: Proven,
  last: boolean,
): string[] {
  const { differences } = proof;
  const lines = [heading('Proof', `${folder} against ${against}`)];
  const read = `${count(proof.elements, 'element')} of ${count(proof.pages, 'page')}${proof.components > 0 ? ` and ${count(proof.components, 'component')}` : ''}`;
  const at = folder === '.' ? '' : ` ${folder}`;
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
        text: `differences on ${count(pages.size, 'page')}`,
        place: `compared: ${read}`,
      }),
    );
    for (const [page, own] of all ? pages : [...pages].slice(0, 10)) {
      lines.push(heading(page, count(own.length, 'difference')));
      for (const difference of all ? own : own.slice(0, 5)) lines.push(...differenceLines(difference));
      if (!all && own.length > 5) lines.push(more(own.length - 5, '--all'));
    }
    if (!all && pages.size > 10) lines.push(more(pages.size - 10, 'pages, --all'));
  }
  if (proof.assumptions.length > 0) {
    lines.push(heading('Assumed', 'the proof holds if these do'));
    for (const one of proof.assumptions) lines.push(row({ mark: 'needs', text: clean(one) }));
  }
  if (!last) return lines;
  lines.push(
    differences.length === 0
      ? next('git commit', 'the change is safe to keep')
      : next(`acervus undo${at}`, 'takes the last adoption back; or mend the places above'),
  );
  return lines;
}

function differenceLines(difference: Difference): string[] {
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
        ...outcomeLines('before', before),
        ...outcomeLines('after ', after),
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
