// An element cut out of its page, with all that affects how it looks: the elements around it, those beside these where
// the room is shared out among them, and the sheets. What stands beside it otherwise stays for selectors, and is not shown.

import { addressFrom, fileAt, resolveAddress } from '../../base/addresses.js';
import { type AtRest, type SiteModel, subtreeEnd } from '../../cascade/index.js';
import { cutPage } from '../../change/excerpt/index.js';
import { applyEdits, type Edit } from '../../edit/text/index.js';
import { type Page, type PageElement, withoutMarks } from '../../read/markup/index.js';
import type { Pointed, ShownState } from './pointed.js';

export interface ExampleOptions {
  readonly model: SiteModel;
  /** What the page says at rest. */
  readonly rest: AtRest;
  /** The address of a file of the site, as the sampler writes it. */
  readonly addressOf: (file: string) => string;
  /** CSS that shows states at rest; see `stateRules`. */
  readonly states?: string | undefined;
}

/** Marks of ours on tags of an example. */
const MARK = 'data-sampler';

/** What an example is of. */
export const SHOWN = `[${MARK}~="shown"]`;

const HIDING = [
  `[${MARK}="beside"]{display:none!important}`,
  `[${MARK}="unseen"]{visibility:hidden!important}`,
  'noscript{display:none!important}',
  'html{overflow-x:hidden}',
].join('');

/** Where how wide one is depends on the others. */
const SHARED_ROOM = /^(?:inline-)?(?:flex|grid|table.*|inline.*|ruby.*)$/;
const TABLES = new Set(['table', 'thead', 'tbody', 'tfoot', 'tr', 'colgroup']);

/** A whole document; in it, with nothing in a state, the element is as it is on its page. `undefined` where its page does not come apart. */
export function exampleOf(
  page: Page,
  element: number,
  options: ExampleOptions,
  pointed?: Pointed,
): string | undefined {
  if (page.base !== undefined || page.holdsEngineText) return undefined;
  const roles = rolesOf(page, element, options.rest);
  const stays = page.elements.map(
    ({ index, name, parent }) =>
      roles[index] !== 'out' || name === 'head' || page.elements[parent]?.name === 'head',
  );
  const cut = cutPage(page, stays);
  if (cut === undefined && stays.includes(false)) return undefined;
  const shown = cut?.page ?? page;
  const kept = page.elements.filter(({ index }) => stays[index]);
  const marks = pointed === undefined ? new Map<number, ShownState>() : stateMarks(page, pointed);
  const edits = kept.flatMap((one, at): Edit[] => {
    const own = shown.elements[at]!;
    const role = roles[one.index]!;
    const mark = [['shown', 'beside', 'unseen'].includes(role) ? role : '', marks.get(one.index) ?? ''];
    return tagEdits(shown, own, mark.join(' ').trim(), options);
  });
  const start = headStart(shown);
  const base = options.addressOf(page.path);
  const ours = `<base href="${escapeAttribute(base)}"><style>${HIDING}</style>`;
  const states =
    options.states === undefined || pointed === undefined
      ? []
      : [{ start: shown.text.length, end: shown.text.length, text: `<style>${options.states}</style>` }];
  return withoutMarks(applyEdits(shown.text, [...edits, { start, end: start, text: ours }, ...states]));
}

/** What points at an element, or presses it, does so with those around it. */
function stateMarks({ elements }: Page, { element, state }: Pointed): Map<number, ShownState> {
  const marks = new Map([[element, state]]);
  if (state === 'hover' || state === 'active')
    for (let at = elements[element]!.parent; at >= 0; at = elements[at]!.parent) marks.set(at, state);
  return marks;
}

type Role = 'around' | 'shown' | 'within' | 'beside' | 'unseen' | 'out';

function rolesOf(page: Page, element: number, rest: AtRest): Role[] {
  const { elements } = page;
  const roles = elements.map((): Role => 'out');
  for (let at = element; at >= 0; at = elements[at]!.parent) {
    roles[at] = at === element ? 'shown' : 'around';
    const { parent } = elements[at]!;
    if (parent < 0 || elements[parent]!.name === 'html') continue;
    const isShared = sharesRoom(elements[parent]!, rest);
    for (let other = elements[parent]!.firstChild; other >= 0; other = elements[other]!.next) {
      if (other === at) continue;
      roles[other] = isShared ? 'unseen' : 'beside';
      if (isShared) fill(page, other, roles);
    }
  }
  fill(page, element, roles);
  return roles;
}

function fill({ elements }: Page, element: number, roles: Role[]): void {
  const end = subtreeEnd(elements, elements[element]!);
  for (let at = element + 1; at < end; at++) roles[at] = 'within';
}

function sharesRoom({ index, name }: PageElement, rest: AtRest): boolean {
  const display = rest.at(index, 'display');
  return display === undefined ? TABLES.has(name) : SHARED_ROOM.test(display);
}

/** Behind the first tags, so that what the page says itself comes later. */
function headStart({ elements, head }: Page): number {
  const tag = elements.find(({ name }) => name === 'head')?.tag;
  return tag?.range.end ?? head.start ?? head.first;
}

/** What a tag is to say besides, and where its addresses lead from the sampler. */
function tagEdits(page: Page, element: PageElement, mark: string, options: ExampleOptions): Edit[] {
  const { tag, name } = element;
  if (tag === undefined) return [];
  const { start, end } = tag.range;
  if (name === 'script' || (name === 'meta' && element.attributes.some((one) => one.name === 'http-equiv'))) {
    const close = page.contentEnds[element.index] ?? end;
    const whole = /^<\/script[^>]*>/i.exec(page.text.slice(close))?.[0].length ?? 0;
    return [{ start, end: name === 'script' ? Math.max(end, close + whole) : end, text: '' }];
  }
  const text = page.text.slice(start, end);
  const at = start + 1 + /^<([^\s/>]*)/.exec(text)![1]!.length;
  const marked = mark === '' ? '' : ` ${MARK}="${mark}"`;
  const address = addressEdit(page, element, options);
  return [
    ...(marked === '' ? [] : [{ start: at, end: at, text: marked }]),
    ...(address === undefined ? [] : [address]),
  ];
}

/** A sheet or a picture whose address begins at the site's root, or that has a copy, is no neighbour of the page. */
function addressEdit(
  page: Page,
  { name, tag, attributes }: PageElement,
  { model }: ExampleOptions,
): Edit | undefined {
  const attribute =
    name === 'link' ? 'href' : ['img', 'source', 'input', 'video'].includes(name) ? 'src' : undefined;
  const value = attributes.find((one) => one.name === attribute)?.value;
  const range = attribute === undefined ? undefined : tag?.attributes.get(attribute);
  if (value === undefined || range === undefined) return undefined;
  const file = fileAt(value, page.path, (address) => model.copyOf(address));
  const plain = resolveAddress(value, page.path);
  const isNeighbour = plain.kind === 'site' && plain.path === file && !value.startsWith('/');
  if (file === undefined || isNeighbour) return undefined;
  return {
    ...range,
    text: `${attribute}="${escapeAttribute(addressFrom(page.path, file))}"`,
  };
}

function escapeAttribute(text: string): string {
  return text.replaceAll('&', '&amp;').replaceAll('"', '&quot;');
}
