// Shows that two states of a site look the same, or where they do not.

import { existsSync, rmSync } from 'node:fs';
import path from 'node:path';
import { UsageError } from '../../core/base/usage-error.js';
import type { Proof } from '../../core/proof/index.js';
import type { BrowserProof } from '../../report/browser-proof.js';
import { differs } from '../../report/browser-report.js';
import { renderedStates } from '../../site/building/rendered-states.js';
import { joinProofs, type Proven, proveSite } from '../../site/threads/proving.js';
import { LAST_VISIT } from '../../site/visiting/keeper.js';
import { fetchLive } from '../../site/visiting/live.js';
import type { Renderer, RendererInput } from '../../site/visiting/visit.js';
import type { ProveDocument } from './document.js';

const USUAL_WIDTHS = [1200, 500];

export interface BrowserOptions {
  /** Paths or patterns of the pages to look at; all without. */
  readonly pages?: readonly string[] | undefined;
  /** Every so many-th page of those. */
  readonly every?: number | undefined;
  /** Widths of the window in pixels, 1200 and 500 without; print is always looked at. */
  readonly widths?: readonly number[] | undefined;
  /** Hears of each page that is looked at. */
  readonly onPage?: ((done: number, of: number) => void) | undefined;
}

export interface LiveOptions {
  /** A file of cookies to send, in Netscape's form. */
  readonly cookies?: string | undefined;
  /** A file of headers to send. */
  readonly headers?: string | undefined;
  /** Hears of each page that is fetched. */
  readonly onVisited?: ((done: number, of: number) => void) | undefined;
}

export interface ProveOptions {
  /** How many threads, from 1 to 64; as the size of the site calls for without. */
  readonly jobs?: number | undefined;
  /** Look at both states in an installed Chromium too, and write a report with pictures. */
  readonly browser?: BrowserOptions | undefined;
  /** Files of all parts that were proven before, in place of the pages. */
  readonly parts?: readonly string[] | undefined;
  /** Hears what is done now. */
  readonly onStep?: ((step: string) => void) | undefined;
  /** Hears of each page that is compared. */
  readonly onPage?: ((done: number, of: number) => void) | undefined;
  /** Hears where the time went: milliseconds by part, those of several threads added up. */
  readonly onTimings?: ((parts: ReadonlyMap<string, number>) => void) | undefined;
}

/** @internal */
export interface ProveResult {
  readonly document: ProveDocument;
  readonly isComponent: Proven['isComponent'];
  readonly browser: BrowserProof | undefined;
}

/**
 * Compares a folder that a visit filled, with what was changed in its boxes, with the site as it runs now: its pages are
 * fetched again. In: cookies and headers, as files. Throws `UsageError`.
 * @internal
 */
export async function proveLive(
  folder: string,
  { cookies, headers, ...options }: ProveOptions & LiveOptions = {},
): Promise<ProveResult> {
  const openRenderer = async (input: RendererInput): Promise<Renderer> =>
    (await import('../../browser/render.js')).openRenderer(input);
  const live = await fetchLive(folder, { cookies, headers, openRenderer, onPage: options.onVisited });
  try {
    const proven = await prove(folder, live.folder, options);
    const { differences } = proven.document;
    const told = differences.filter(({ kind }) => kind !== 'markup');
    // What a page tells is the site's to change; how it looks is what was planned.
    const content = new Set(differences.filter(({ kind }) => kind === 'markup').map(({ page }) => page));
    const boxes = live.boxes.map(({ file, isAsPlanned }) => ({ file, asPlanned: isAsPlanned }));
    const document: ProveDocument = {
      ...proven.document,
      against: 'live',
      equal: told.length === 0 && boxes.every(({ asPlanned }) => asPlanned),
      differences: told,
      live: {
        boxes,
        content: [...content].sort(),
        failed: [...live.failed].map(([address, why]) => ({ address, why })),
      },
    };
    return { ...proven, document };
  } finally {
    rmSync(live.folder, { recursive: true, force: true });
  }
}

/**
 * Compares every element of every page in two states.
 * In: the site's folder; the other state, a folder or a commit that git knows there. Throws `UsageError`.
 * @internal
 */
export async function prove(
  folder: string,
  against: string,
  options: ProveOptions = {},
): Promise<ProveResult> {
  const { jobs, onPage } = options;
  const widths = options.browser?.widths ?? USUAL_WIDTHS;
  if (widths.some((width) => !Number.isInteger(width) || width < 100 || width > 8000))
    throw new UsageError('widths', { given: widths.join(',') });
  const every = options.browser?.every;
  if (every !== undefined && (!Number.isInteger(every) || every < 1))
    throw new UsageError('every', { given: every });
  const states = await renderedStates(folder, stateMeant(folder, against), options.onStep);
  const { proof, isComponent, timings } =
    options.parts === undefined
      ? await proveSite(states.folder, states.against, { jobs, onPage })
      : await joinProofs(states.folder, states.against, options.parts);
  const browser =
    options.browser === undefined
      ? undefined
      : await timings.wait('browser', () =>
          lookAt(states.folder, states.against, { ...options.browser, widths, jobs }),
        );
  options.onTimings?.(timings.parts);
  return { document: documentOf(against, proof, browser), isComponent, browser };
}

/** The visit before has a name of its own. */
function stateMeant(folder: string, against: string): string {
  const last = path.join(folder, LAST_VISIT);
  return against === path.basename(LAST_VISIT) && !existsSync(against) && existsSync(last) ? last : against;
}

async function lookAt(
  folder: string,
  against: string,
  options: BrowserOptions & { readonly widths: readonly number[]; readonly jobs: number | undefined },
): Promise<BrowserProof> {
  const { proveInBrowser } = await import('../../report/browser-proof.js');
  return proveInBrowser(folder, against, options);
}

function documentOf(against: string, proof: Proof, browser: BrowserProof | undefined): ProveDocument {
  return {
    format: 1,
    command: 'prove',
    against,
    equal: proof.differences.length === 0,
    pages: proof.pages,
    components: proof.components,
    elements: proof.elements,
    differences: proof.differences.map(differenceOf),
    assumptions: proof.assumptions,
    ...(browser === undefined ? {} : { browser: seenOf(browser) }),
  };
}

function differenceOf(one: Proof['differences'][number]): ProveDocument['differences'][number] {
  if (one.kind === 'page') return one;
  if (one.kind === 'markup')
    return { kind: one.kind, page: one.page, what: one.what, ...(one.place && { place: one.place }) };
  const { kind, page, place, shown, target, property, before, after } = one;
  return { kind, page, ...(place && { place }), shown, target, property, before, after };
}

function seenOf({ pages, nodes, views, report }: BrowserProof): NonNullable<ProveDocument['browser']> {
  return {
    equal: !pages.some((page) => page.views.some(differs)),
    pages: pages.length,
    views,
    nodes,
    report,
    differences: pages.flatMap((page) =>
      page.views.filter(differs).map(({ name, differing, differingPixels, listed }) => ({
        page: page.path,
        view: name,
        nodes: differing,
        pixels: differingPixels,
        told: listed,
      })),
    ),
  };
}
