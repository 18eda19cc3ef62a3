// Every tag of a site that carries styling, cut into movable declarations, each with what forbids moving it.

import { holdsAddress } from '../base/addresses.js';
import { BoundedMap } from '../base/bounded.js';
import { hasOneOf } from '../base/characters.js';
import { INVISIBLE_MARK } from '../base/engine-marks.js';
import { includesAny } from '../base/phrases.js';
import type { KeptReason } from '../base/reasons/index.js';
import type { Place } from '../base/source.js';
import { isOpaque, isWrittenByEngine, type SiteModel, writtenDeclarations } from '../cascade/index.js';
import { classPlace } from '../read/components/index.js';
import {
  hasTemplateText,
  type Page,
  type PageElement,
  type SourceTag,
  valueOffset,
} from '../read/markup/index.js';
import {
  type Declaration,
  declarationValidity,
  isFinished,
  parseDeclarations,
} from '../read/sheets/index.js';
import { variablesIn } from '../read/sheets/variables.js';
import { addressVariables } from './address-variables.js';
import { hintMovables } from './hint-movables.js';
import { type Movable, movablesOf } from './movables.js';

import type { SiteScripts } from './site-scripts.js';
import type { MovableDeclaration, StyleAttribute, StyledTag, StyledTagOptions } from './styled-tag-model.js';
import { undecidedReason } from './undecided.js';

/** All tags that carry styling, by page and position. */
export function styledTagsOf(model: SiteModel, scripts: SiteScripts, options: StyledTagOptions): StyledTag[] {
  return model.pages.flatMap((page) => {
    const undecided =
      undecidedReason(page, model.sheetOrdersOf(page)) ??
      (page.isMail && options.mail !== 'move' ? MAIL : undefined);
    const known = readPages.get(page);
    const isSame =
      known?.scripts === scripts &&
      known.options === options &&
      JSON.stringify(known.undecided) === JSON.stringify(undecided);
    if (isSame) return known.styledTags;
    const styledTags = pageTags(page, scripts, undecided, options, {
      alsoAt: (element) => model.alsoAt(page, element),
      shareOf: (tag) => model.shareOf(page, tag),
      addressVariables: addressVariables(model),
    });
    readPages.set(page, { scripts, options, undecided, styledTags });
    return styledTags;
  });
}

const TEMPLATE_TEXT: KeptReason = { kind: 'template text' };
const SAID_BY_CODE: KeptReason = { kind: 'said by code' };
const MAIL: KeptReason = { kind: 'mail' };
const NO_SOURCE: KeptReason = { kind: 'no source' };

/** A page that one step has left alone is not read again for the next. */
const readPages = new WeakMap<
  Page,
  {
    readonly scripts: SiteScripts;
    readonly options: StyledTagOptions;
    readonly undecided: KeptReason | undefined;
    readonly styledTags: readonly StyledTag[];
  }
>();

/** What a tag stands for. */
interface StandsFor {
  readonly alsoAt: (element: PageElement) => readonly Place[];
  readonly shareOf: (tag: SourceTag) => number;
  readonly addressVariables: ReadonlySet<string>;
}

function pageTags(
  page: Page,
  scripts: SiteScripts,
  undecided: KeptReason | undefined,
  options: StyledTagOptions,
  { alsoAt, shareOf, addressVariables: ofAddresses }: StandsFor,
): StyledTag[] {
  const styledTags: StyledTag[] = [];
  const seen = new Set<SourceTag>();
  for (const element of page.elements) {
    const { tag } = element;
    const hints = element.namespace === 'html' ? hintMovables(page, element, scripts, options) : NO_UNITS;
    if (element.style === undefined && hints.length === 0) continue;
    if (tag === undefined || seen.has(tag)) continue;
    seen.add(tag);
    const range = tag.attributes.get('style');
    const blocked = undecided ?? tagObjection(page, element) ?? options.built?.objection(page, tag);
    const style =
      element.style === undefined || range === undefined ? undefined : { value: element.style, range };
    const read = style === undefined ? undefined : readStyle(style.value, page.path);
    const own = (read?.movables ?? []).map((movable): MovableDeclaration => {
      const objection =
        besideObjection(movable, tag) ??
        blocked ??
        styleObjection(element) ??
        movableObjection(page, element, movable, scripts) ??
        variableObjection(movable, ofAddresses);
      return objection === undefined ? movable : { ...movable, objection };
    });
    // An end tag is not told where it comes from: the name of an element stays on what a build made.
    const movables = [
      ...own,
      ...hints.map((movable) => {
        const objection =
          blocked ?? (options.built !== undefined && movable.from.kind === 'name' ? NO_SOURCE : undefined);
        return objection === undefined ? movable : { ...movable, objection };
      }),
    ];
    styledTags.push({
      page,
      element,
      tag,
      start: tag.range.start,
      style: style && writtenStyle(page, tag, style, read?.declarations ?? []),
      movables,
      also: alsoAt(element),
      share: shareOf(tag),
    });
  }
  for (const { style, range } of page.inert) {
    const { declarations } = parseDeclarations(style);
    const movables = movablesOf(declarations, page.path).map(
      (movable): MovableDeclaration => ({
        ...movable,
        from: { kind: 'style' },
        objection: { kind: 'in a template element' },
      }),
    );
    styledTags.push({
      page,
      element: undefined,
      tag: undefined,
      start: range.start,
      style: { range, value: style, declarations, literal: false },
      movables,
      also: [],
      share: 1,
    });
  }
  return styledTags;
}

/** Of what stands elsewhere than in the style that would be edited, and of what that affects. */
function besideObjection({ declarations }: Movable, { styleLength }: SourceTag): KeptReason | undefined {
  if (styleLength === undefined) return undefined;
  const beside = declarations.filter(({ range }) => range.end > styleLength);
  if (beside.length === 0) return undefined;
  return beside.length === declarations.length ? SAID_BY_CODE : TEMPLATE_TEXT;
}

/** A style as far as its attribute writes it. */
function writtenStyle(
  page: Page,
  tag: SourceTag,
  { value: all, range }: Pick<StyleAttribute, 'value' | 'range'>,
  read: readonly Declaration[],
): StyleAttribute {
  const value = all.slice(0, tag.styleLength);
  const declarations = read.filter((one) => one.range.end <= value.length);
  const literal =
    tag.styleEntries?.length === declarations.length ||
    valueOffset(page, range, value.replaceAll(INVISIBLE_MARK, '')) !== undefined;
  return { value, range, declarations, literal };
}

const NO_UNITS: readonly MovableDeclaration[] = [];

interface StyleRead {
  readonly declarations: readonly Declaration[];
  readonly movables: readonly MovableDeclaration[];
}

const styles = new BoundedMap<string, StyleRead>(20_000);

/** Years of pasting: the same few texts stand in attribute after attribute, and each is read once. */
export function readStyle(style: string, holder: string): StyleRead {
  return styles.get(holdsAddress(style) ? `${holder}\0${style}` : style, () => {
    const declarations = writtenDeclarations(style);
    const movables = movablesOf(declarations, holder).map(
      (movable): MovableDeclaration => ({ ...movable, from: { kind: 'style' }, objection: undefined }),
    );
    return { declarations, movables };
  });
}

function tagObjection(page: Page, element: PageElement): KeptReason | undefined {
  if (element.templated === 'tag') return TEMPLATE_TEXT;
  // A class that a branch leaves out could not stand for a style that is there in any case.
  if (element.engine?.sometimes.has('class') === true) return TEMPLATE_TEXT;
  const written = element.attributes.find(({ name }) => name === 'class');
  if (written !== undefined && hasTemplateText(written.value) && !takesWords(page, element))
    return TEMPLATE_TEXT;
  if (written !== undefined && element.tag?.attributes.get('class') === undefined)
    return { kind: 'no tag of its own' };
  // An attribute merged from a second <body> tag has no place of its own.
  if (element.style !== undefined && element.tag?.attributes.get('style') === undefined)
    return { kind: 'no tag of its own' };
  const source = page.text[element.tag?.range.start ?? 0];
  return source === '<' ? undefined : { kind: 'no tag of its own' };
}

/** Whether a word may be put behind those of the class attribute, whatever these are. */
function takesWords(page: Page, { tag }: PageElement): boolean {
  const range = tag?.attributes.get('class');
  if (range === undefined) return false;
  return hasOneOf(page.text[range.end - 1] ?? '', '"\'') || classPlace(page.text, range) !== undefined;
}

function styleObjection({ style }: PageElement): KeptReason | undefined {
  return style !== undefined && hasTemplateText(style) && isOpaque(style) ? TEMPLATE_TEXT : undefined;
}

function movableObjection(
  page: Page,
  element: PageElement,
  movable: Movable,
  scripts: SiteScripts,
): KeptReason | undefined {
  if (movable.declarations.some(isWrittenByEngine)) return TEMPLATE_TEXT;
  const unfit = (one: Declaration): boolean =>
    declarationValidity(one.property, one.value).complaint === 'unfitting value';
  // A class for what browsers pass over would hide a slip that is for a person to mend.
  const [first] = movable.declarations;
  if (first !== undefined && movable.declarations.every(unfit))
    return { kind: 'unfitting value', property: first.property, value: first.value };
  for (const { property, value } of movable.declarations) {
    if (declarationValidity(property, value).complaint === 'unknown property')
      return { kind: 'not understood', property };
    if (!isFinished(value)) return { kind: 'unfinished value' };
    const address = addressObjection(property, value);
    if (address !== undefined) return address;
    const script = scripts.objection(page, element, property);
    if (script !== undefined) return script;
  }
  return undefined;
}

function variableObjection(
  { declarations }: Movable,
  ofAddresses: ReadonlySet<string>,
): KeptReason | undefined {
  const isOfOne = declarations.some(({ value }) => variablesIn(value).some((name) => ofAddresses.has(name)));
  return isOfOne ? { kind: 'address in a custom property' } : undefined;
}

function addressObjection(property: string, value: string): KeptReason | undefined {
  if (!includesAny(value.toLowerCase(), ['url(', 'image-set(', 'src('])) return undefined;
  if (property.startsWith('--')) return { kind: 'address in a custom property' };
  if (/url\(\s*["']?\s*#/i.test(value)) return { kind: 'address in its page' };
  if (includesAny(value.toLowerCase(), ['image-set(', 'src('])) return { kind: 'address outside url()' };
  if (/url\([^)]*\\/i.test(value)) return { kind: 'address with escapes' };
  return undefined;
}
