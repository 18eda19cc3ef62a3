// Colours that stand on each other: of every text the colour that it has at rest, and the ground behind it, with their
// contrast (WCAG 2.2, "contrast ratio").

import culori from 'culori/require';
import type { Place } from '../../base/source.js';
import { AtRest, type SiteModel, type StyleReader, type TruthTable } from '../../cascade/index.js';
import type { Page } from '../../read/markup/index.js';

export interface ColourPair {
  /** `#rrggbb`. */
  readonly text: string;
  readonly ground: string;
  /** 1 to 21, to two digits. */
  readonly contrast: number;
  readonly elements: number;
  readonly pages: number;
  readonly place: Place | undefined;
}

interface Rgb {
  readonly mode: 'rgb';
  readonly r: number;
  readonly g: number;
  readonly b: number;
  readonly alpha?: number;
}

/** What an element has: its colours; `undefined` where nobody knows. */
interface Looks {
  readonly text: Rgb | undefined;
  readonly ground: Rgb | undefined;
  readonly isHidden: boolean;
}

const BLACK: Rgb = { mode: 'rgb', r: 0, g: 0, b: 0 };
const WHITE: Rgb = { mode: 'rgb', r: 1, g: 1, b: 1 };

/** Worst first. A text on a picture or a gradient is left out, and one whose colour no sheet declares. */
export function colourPairs(
  model: SiteModel,
  placeOf: (page: Page, element: number) => Place | undefined,
): ColourPair[] {
  const found = new Map<
    string,
    { pair: Pick<ColourPair, 'text' | 'ground' | 'contrast' | 'place'>; elements: number; pages: Set<string> }
  >();
  for (const page of model.pages) {
    const [reader] = page.kind === 'page' ? model.readersOf(page) : [];
    if (reader === undefined) continue;
    const looks = looksOf(page, reader, model.table.truths);
    const holders = new Set(
      page.texts.filter(({ value }) => value.trim() !== '').map(({ parent }) => parent),
    );
    for (const index of holders) {
      const own = looks[index];
      if (own?.text === undefined || own.ground === undefined || own.isHidden) continue;
      const [text, ground] = [culori.formatHex(over(own.text, own.ground)), culori.formatHex(own.ground)];
      const key = `${text} ${ground}`;
      const known = found.get(key) ?? {
        pair: { text, ground, contrast: contrastOf(text, ground), place: placeOf(page, index) },
        elements: 0,
        pages: new Set<string>(),
      };
      known.elements++;
      known.pages.add(page.path);
      found.set(key, known);
    }
  }
  return [...found.values()]
    .map(({ pair, elements, pages }) => ({ ...pair, elements, pages: pages.size }))
    .sort((a, b) => a.contrast - b.contrast || b.elements - a.elements);
}

const HIDES = new Set(['head', 'script', 'style', 'title', 'template', 'noscript', 'option']);

function looksOf(page: Page, reader: StyleReader, truths: TruthTable): (Looks | undefined)[] {
  const looks: (Looks | undefined)[] = [];
  const said = new AtRest(reader, truths);
  for (const { index, parent, name, attributes } of page.elements) {
    const around = looks[parent] ?? { text: BLACK, ground: WHITE, isHidden: false };
    const hidden = around.isHidden || HIDES.has(name) || said.at(index, 'display') === 'none';
    const isLink = name === 'a' && attributes.some((one) => one.name === 'href');
    const colour = said.at(index, 'color');
    const text = colour === undefined ? (isLink ? undefined : around.text) : colourOf(colour, around.text);
    const image = said.at(index, 'background-image');
    const isPlain = image === undefined || ['none', 'initial', 'unset'].includes(image.toLowerCase());
    const ground = groundOf(said.at(index, 'background-color'), text, isPlain ? around.ground : undefined);
    looks[index] = { text, ground: isPlain ? ground : undefined, isHidden: hidden };
  }
  return looks;
}

/** In: what is declared of the ground; the colour of the text; what is behind. Out: `undefined` where nobody knows. */
function groundOf(
  value: string | undefined,
  text: Rgb | undefined,
  behind: Rgb | undefined,
): Rgb | undefined {
  if (
    value === undefined ||
    ['transparent', 'initial', 'unset', 'inherit', 'none'].includes(value.toLowerCase())
  )
    return behind;
  const own = colourOf(value, text);
  if (own === undefined || (own.alpha ?? 1) >= 1) return own;
  return behind && over(own, behind);
}

function colourOf(value: string, current: Rgb | undefined): Rgb | undefined {
  if (['inherit', 'currentcolor', 'unset'].includes(value.toLowerCase())) return current;
  if (value.toLowerCase() === 'initial') return BLACK;
  return culori.rgb(value) as Rgb | undefined;
}

function over(front: Rgb, back: Rgb): Rgb {
  const alpha = front.alpha ?? 1;
  const mix = (a: number, b: number): number => a * alpha + b * (1 - alpha);
  return { mode: 'rgb', r: mix(front.r, back.r), g: mix(front.g, back.g), b: mix(front.b, back.b) };
}

function contrastOf(one: string, other: string): number {
  return Math.round(culori.wcagContrast(one, other) * 100) / 100;
}
