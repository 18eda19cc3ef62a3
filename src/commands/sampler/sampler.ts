// Every shared style of a site on one page.

import { existsSync, mkdirSync, statSync } from 'node:fs';
import path from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import {
  exampleOf,
  SHOWN,
  type SharedStyle,
  sharedStyles,
  stateRules,
} from '../../core/ask/sampler/index.js';
import { UsageError } from '../../core/base/usage-error.js';
import { AtRest } from '../../core/cascade/index.js';
import {
  SAMPLE_WIDTHS,
  type SampledStyle,
  type Shown,
  STATE_WIDTH,
  samplerPage,
} from '../../report/sampler.js';
import { openForReading, type ReadSite } from '../../site/building/read.js';
import { insideSite } from '../../site/files/inside.js';
import type { Site } from '../../site/rendering/load.js';
import { pairsIn, valuesIn } from '../values/read.js';
import type { SamplerDocument } from './document.js';

export interface SamplerOptions {
  /** Where the page is written; in the site's `.acervus` without. */
  readonly out?: string | undefined;
  /** Pictures by the installed Chromium instead of frames, so that the page is one file. */
  readonly browser?: boolean | undefined;
  /** Hears what is done now. */
  readonly onStep?: ((step: string) => void) | undefined;
  /** Hears how many pictures are taken. */
  readonly onSample?: ((done: number, of: number) => void) | undefined;
}

const USUAL = path.join('.acervus', 'sampler', 'index.html');

/** Writes the page. In: the site's folder. Throws `UsageError`. */
export async function sampler(folder: string, options: SamplerOptions = {}): Promise<SamplerDocument> {
  const file = targetOf(folder, options.out);
  const { site, folder: pages, sourceOf } = await openForReading(folder, options.onStep);
  options.onStep?.('finding the shared styles');
  const styles = sharedStyles(site.model, site.themes).map((style) => placedIn(style, sourceOf));
  const values = valuesIn(site, sourceOf);
  const sampled =
    options.browser === true
      ? await inPictures(site, styles, options)
      : styles.map((style) => inFrames(site, style, addressesFrom(pages, file)));
  mkdirSync(path.dirname(file), { recursive: true });
  const name = path.basename(path.resolve(folder));
  writeFileAtomic.sync(
    file,
    samplerPage({ site: name, values, pairs: pairsIn(site, sourceOf), styles: sampled }),
  );
  return documentOf(file, options.browser === true, values.named.length, styles);
}

function placedIn(style: SharedStyle, sourceOf: ReadSite['sourceOf']): SharedStyle {
  const { rules, nearly } = style;
  return {
    ...style,
    rules: rules.map((rule) => ({ ...rule, place: sourceOf(rule.place) })),
    nearly: nearly && { ...nearly, place: sourceOf(nearly.place) },
  };
}

function targetOf(folder: string, out: string | undefined): string {
  if (out === undefined) {
    insideSite(folder, USUAL);
    return path.join(folder, USUAL);
  }
  const isFolder = statSync(out, { throwIfNoEntry: false })?.isDirectory() === true;
  if (isFolder || !/\.html?$/i.test(out)) throw new UsageError('sampler-out', { file: out });
  if (!existsSync(path.dirname(path.resolve(out)))) throw new UsageError('values-folder', { file: out });
  return out;
}

/** How the page would write the address of a file of the site. */
function addressesFrom(folder: string, file: string): (of: string) => string {
  const from = path.dirname(path.resolve(file));
  return (of) =>
    path.relative(from, path.resolve(folder, of)).split(path.sep).map(encodeURIComponent).join('/');
}

/** The documents of a style: at each width, and in each state. */
function documentsOf(
  { model }: Site,
  { example, states }: SharedStyle,
  addressOf: (file: string) => string,
): { readonly plain: string | undefined; readonly inStates: readonly (string | undefined)[] } {
  const [reader] = example === undefined ? [] : model.readersOf(example.page);
  if (example === undefined || reader === undefined) return { plain: undefined, inStates: [] };
  const { page, element } = example;
  const rest = new AtRest(reader, model.table.truths);
  const plain = exampleOf(page, element, { model, rest, addressOf });
  const rules = states.length === 0 ? '' : stateRules(model, page);
  return {
    plain,
    inStates: states.map((state) =>
      exampleOf(page, element, { model, rest, addressOf, states: rules }, state),
    ),
  };
}

function inFrames(site: Site, style: SharedStyle, addressOf: (file: string) => string): SampledStyle {
  const { plain, inStates } = documentsOf(site, style, addressOf);
  const asFrame = (html: string): Shown => ({ kind: 'document', html });
  return {
    ...style,
    shown: plain === undefined ? [] : SAMPLE_WIDTHS.map(() => asFrame(plain)),
    inStates: inStates.flatMap((html, at) =>
      html === undefined ? [] : [{ state: style.states[at]!.state, shown: asFrame(html) }],
    ),
  };
}

async function inPictures(
  site: Site,
  styles: readonly SharedStyle[],
  { onSample }: SamplerOptions,
): Promise<SampledStyle[]> {
  const { takeSamples } = await import('../../browser/samples.js');
  const wanted = styles.flatMap((style) => {
    // At its own address a page needs no other.
    const { plain, inStates } = documentsOf(site, style, () => '');
    const page = style.example?.page.path ?? '';
    return [
      ...SAMPLE_WIDTHS.map((width) => ({ style, state: undefined, html: plain, width, page })),
      ...inStates.map((html, at) => ({
        style,
        state: style.states[at]?.state,
        html,
        width: STATE_WIDTH,
        page,
      })),
    ].flatMap(({ html, ...one }) => (html === undefined ? [] : [{ ...one, html, selector: SHOWN }]));
  });
  const pictures = await takeSamples(site.files, wanted, onSample);
  const taken = wanted.flatMap(({ style, state }, at) => {
    const picture = pictures[at];
    if (picture === undefined) return [];
    const address = `data:image/png;base64,${picture.png.toString('base64')}`;
    return [{ style, state, shown: { kind: 'picture', address, width: picture.width } as const }];
  });
  return styles.map((style) => {
    const own = taken.filter((one) => one.style === style);
    return {
      ...style,
      shown: own.filter(({ state }) => state === undefined).map(({ shown }) => shown),
      inStates: own.flatMap(({ state, shown }) => (state === undefined ? [] : [{ state, shown }])),
    };
  });
}

function documentOf(
  file: string,
  isBrowser: boolean,
  values: number,
  styles: readonly SharedStyle[],
): SamplerDocument {
  return {
    format: 1,
    command: 'sampler',
    file,
    shown: isBrowser ? 'pictures' : 'frames',
    values,
    styles: styles.map(({ example, nearly, like, part, rules, states, name, kind, elements, pages }) => ({
      ...{ name, kind, elements, pages, states: states.map(({ state }) => state) },
      ...(part === undefined ? {} : { part }),
      rules: rules.map(({ place }) => place),
      ...(example && { example: { page: example.page.path, element: example.element } }),
      like: like.map(({ own, others, ...one }) => ({ ...one, own: [...own], others: [...others] })),
      ...(nearly && { nearly: { ...nearly, lacks: [...nearly.lacks] } }),
    })),
  };
}
