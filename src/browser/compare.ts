// Where two captures of a page differ, node by node and pixel by pixel.

import pixelmatch from 'pixelmatch';
import { PNG } from 'pngjs';
import { neutralFor } from '../core/read/hints/index.js';
import type { Looks, NodeLooks } from './capture.js';

export interface LooksDifference {
  /** `td#x.a`, `::before`, or the page as a whole. */
  readonly node: string;
  /** A property, `box`, or what else is meant. */
  readonly property: string;
  readonly before: string;
  readonly after: string;
}

/** What layout computes: it differs on every box around the one that changed. */
const FOLLOWS_LAYOUT =
  /^(box|block-size|inline-size|width|height|perspective-origin|transform-origin|top|right|bottom|left|inset-.*|(margin|padding)-(block|inline)-.*|border-(block|inline)-.*)$/;

/** At most this many are listed for one page in one view: a page that differs in more differs anyway. */
const MOST_LISTED = 20;
const MOST_OF_A_NODE = 4;

/** Out: the differences that are listed, and how many nodes differ in all. */
export function compareLooks(
  before: Looks,
  after: Looks,
): { readonly listed: readonly LooksDifference[]; readonly nodes: number } {
  const causes: LooksDifference[] = [];
  const effects: LooksDifference[] = [];
  const tell = (node: string, property: string, a: string, b: string): void => {
    const list = FOLLOWS_LAYOUT.test(property) ? effects : causes;
    if (list.length < MOST_LISTED) list.push({ node, property, before: a, after: b });
  };
  const length = (i: number): number => before.properties[i]?.length ?? 0;
  let nodes = 0;
  if (before.nodes.length !== after.nodes.length) {
    nodes++;
    tell('the page', 'rendered nodes', `${before.nodes.length}`, `${after.nodes.length}`);
  }
  if (before.hidden.length !== after.hidden.length) {
    nodes++;
    tell('the page', 'hidden elements', `${before.hidden.length}`, `${after.hidden.length}`);
  }
  const count = Math.min(before.nodes.length, after.nodes.length);
  for (let at = 0; at < count; at++) {
    const [a, b] = [before.nodes[at]!, after.nodes[at]!];
    const different = differing(a, b);
    const same = isSameName(a.name, b.name);
    if (different.length === 0 && a.box === b.box && same) continue;
    nodes++;
    const name = showNode(b);
    if (!same) tell(name, 'node', a.name, b.name);
    const chosen = different.filter((i) => !FOLLOWS_LAYOUT.test(before.properties[i] ?? ''));
    const sorted = (chosen.length > 0 ? chosen : different).sort((one, two) => length(one) - length(two));
    for (const i of sorted.slice(0, MOST_OF_A_NODE))
      tell(name, before.properties[i] ?? '', a.values[i] ?? '', b.values[i] ?? '');
    if (different.length === 0 && same) tell(name, 'box', a.box, b.box);
  }
  const hidden = Math.min(before.hidden.length, after.hidden.length);
  for (let at = 0; at < hidden; at++) {
    const [a, b] = [before.hidden[at]!, after.hidden[at]!];
    if (neutral(a) === neutral(b)) continue;
    nodes++;
    const [one, two] = [a.split('; '), b.split('; ')];
    const first = one.findIndex((text, i) => text !== two[i]);
    tell(`${two[0]!.toLowerCase()} (hidden)`, 'computed style', one[first] ?? '', two[first] ?? '');
  }
  // Where something else changed, sizes follow from it.
  return { listed: (causes.length > 0 ? causes : effects).slice(0, MOST_LISTED), nodes };
}

/** An outdated element may have become a neutral one: what it looks like is compared, not its name. */
function isSameName(a: string, b: string): boolean {
  return a === b || neutralFor(a.toLowerCase()) === b.toLowerCase();
}

/** A hidden element's line with the name of the neutral element in place of an outdated one. */
function neutral(line: string): string {
  return line.replace(/^[A-Z]+/, (name) => neutralFor(name.toLowerCase())?.toUpperCase() ?? name);
}

function differing(a: NodeLooks, b: NodeLooks): number[] {
  const found: number[] = [];
  for (let i = 0; i < a.values.length; i++) if (a.values[i] !== b.values[i]) found.push(i);
  return found;
}

function showNode({ name, label }: NodeLooks): string {
  return `${/^[A-Z]/.test(name) ? name.toLowerCase() : name}${label}`;
}

export interface PixelDifference {
  readonly pixels: number;
  /** The differing pixels on a pale ground. */
  readonly picture: Buffer;
  readonly width: number;
  readonly height: number;
  /** The first row that differs, from 0. */
  readonly row: number;
}

/** Trying every filter on every row takes longer than all the rest of a comparison. */
const PLAIN = { filterType: 2 } as const;

/** Out: `undefined` where the pictures are the same. */
export function comparePictures(before: Buffer, after: Buffer): PixelDifference | undefined {
  if (before.equals(after)) return undefined;
  const [a, b] = [PNG.sync.read(before), PNG.sync.read(after)];
  const [width, height] = [Math.max(a.width, b.width), Math.max(a.height, b.height)];
  const picture = new PNG({ width, height });
  const [one, two] = [onCanvas(a, width, height).data, onCanvas(b, width, height).data];
  const pixels = pixelmatch(
    one,
    two,
    picture.data,
    width,
    height,
    // Every pixel counts, those on the edges of letters too.
    { threshold: 0, includeAA: true, diffColor: [190, 70, 0], alpha: 0.25 },
  );
  if (pixels === 0) return undefined;
  let byte = 0;
  while (one[byte] === two[byte]) byte++;
  return {
    pixels,
    picture: PNG.sync.write(picture, PLAIN),
    width,
    height,
    row: Math.floor(byte / 4 / width),
  };
}

/** Pictures of two sizes are laid on one canvas, top left. */
function onCanvas(picture: PNG, width: number, height: number): PNG {
  if (picture.width === width && picture.height === height) return picture;
  const canvas = new PNG({ width, height });
  PNG.bitblt(picture, canvas, 0, 0, picture.width, picture.height, 0, 0);
  return canvas;
}
