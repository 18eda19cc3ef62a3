// HTML text in, `Page` out. Elements come in document order, with the offsets of the tags they came from.

import type { DefaultTreeAdapterTypes as Tree } from 'parse5';
import { html, type ParserError, parse, parseFragment } from 'parse5';
import { INVISIBLE_MARK } from '../../base/engine-marks.js';
import { includesAny } from '../../base/phrases.js';
import { undecidedText } from '../../base/reasons/index.js';
import { scriptInAddress } from '../../base/script-address.js';
import type { BlockCompiler } from '../components/index.js';
import { isComponentFile, pageEvidence } from '../kinds/index.js';
import { ENGINE_LETTER, inclusionsOf } from '../templates/index.js';
import { attributeOf, isCss, isEditable, mediaOf, namesOf, qualified } from './attributes.js';
import { isBound, isMadeByScripts } from './bindings.js';
import { componentTree } from './component-tree.js';
import type { Engine } from './engine.js';
import { EngineText } from './engine-text.js';
import { withGiven } from './given-sheets.js';
import { kept, keptList, keptWords } from './kept.js';
import { isMail } from './mail.js';
import { contentRange, dropMark, isTemplate, noteParseError } from './nodes.js';
import {
  type Attribute,
  type MarkupDefect,
  mayHaveOf,
  type Page,
  type PageElement,
  type PageText,
  type ScriptReference,
  type SheetReference,
  SourceTag,
} from './page.js';
import { scriptsInTag } from './scripts-in-tags.js';
import { SOURCE_MARK } from './source-mark.js';

import { splitTokens } from './tokens.js';
import { isSourceElement, type SourceElement, sourceTree } from './tree.js';

/** A template of which a framework keeps class and sheet in files beside it. */
const APART = /\.component\.html?$/i;

/**
 * Parses one HTML file as a browser does.
 * In: the site-relative path; the decoded text without a byte order mark; whether the file is a component, which only
 * pages that include it show; the site paths of the sheets that style it, where they are not told by what it links; who
 * compiles style blocks that take in other files.
 * Out: the page. Never throws: HTML has no invalid input.
 */
export function parsePage(
  path: string,
  text: string,
  component = false,
  sheets?: readonly string[],
  compile?: BlockCompiler,
): Page {
  const page = readPage(path, text, { component, placed: true, compile });
  return sheets === undefined ? page : { ...page, sheets: withGiven(page.sheets, sheets) };
}

interface ReadOptions {
  readonly component: boolean;
  /** Whether offsets are wanted. */
  readonly placed: boolean;
  readonly compile?: BlockCompiler | undefined;
}

export function readPage(path: string, text: string, { component, placed, compile }: ReadOptions): Page {
  const defects: MarkupDefect[] = [];
  const options = {
    sourceCodeLocationInfo: placed,
    treeAdapter: sourceTree,
    ...(placed ? { onParseError: (error: ParserError) => noteParseError(error, text, defects) } : {}),
  };
  const framework = isComponentFile(path) ? componentTree(path, text, compile) : undefined;
  const engine: Engine | undefined = framework?.engine ?? EngineText.in(text, path);
  const source = engine?.masked ?? text;
  const document = framework?.root ?? (component ? parseFragment(source, options) : parse(source, options));
  const reader = new PageReader(text, engine, placed);
  reader.read(document);
  const quirks = 'mode' in document && document.mode === 'quirks';
  return {
    path,
    text,
    kind: component || framework !== undefined ? 'component' : 'page',
    bare: !component && framework === undefined && isBare(source, engine !== undefined),
    quirks,
    isMail: isMail(text, path),
    base: reader.base,
    elements: reader.elements,
    holdsEngineText: engine?.isBetween ?? false,
    isFilled: engine?.isFilled(reader.elements, reader.contentEnds) ?? false,
    showsParts: engine?.showsParts(reader.elements, reader.contentEnds) ?? false,
    showsUnnamed: engine?.showsUnnamed(reader.elements, reader.contentEnds) ?? false,
    looseFrom: reader.looseFrom,
    inclusions:
      engine?.inclusions(reader.elements, reader.contentEnds) ??
      inclusionsOf(text, []).map((one) => ({ ...one, element: -1, isAtTimes: false })),
    wrapped: engine?.wrapped(reader.elements, reader.contentEnds) ?? [],
    hasTemplatedTags: reader.elements.some((one) => mayHaveOf(one) === undefined),
    texts: reader.texts,
    outdatedEnds: reader.outdatedEnds,
    contentEnds: reader.contentEnds,
    sheets: [
      ...(engine === undefined
        ? reader.sheets
        : engine.sheets(reader.sheets, reader.elements, reader.contentEnds)),
      ...(framework?.sheets ?? []),
    ],
    scripts: engine === undefined ? reader.scripts : engine.scripts(reader.scripts),
    inert: reader.inert,
    inertClasses: reader.inertClasses,
    inertBlocks: reader.inertBlocks,
    inertNames: [...reader.inertNames],
    isEdited: reader.isEdited,
    shadowRoots: reader.shadowRoots,
    depth: reader.depth,
    hasPolicy: reader.hasPolicy,
    unread: framework?.unread ?? (APART.test(path) ? undecidedText('sheet beside it', {}) : undefined),
    defects: engine === undefined ? defects : defects.filter(({ range }) => !engine.isInTag(range)),
    head: reader.head,
  };
}

/** Whether nothing marks a text as a page: an engine puts fragments together that hold what belongs into a head. */
function isBare(markup: string, isFilled: boolean): boolean {
  const evidence = pageEvidence(markup);
  return evidence === 'none' || (isFilled && evidence === 'metadata');
}

const NO_CLASSES: readonly string[] = [];
const ENGINE_WORDS = new RegExp(`${ENGINE_LETTER.source}+`, 'g');

/** A node whose children are being read. */
interface Level {
  readonly node: Tree.ParentNode;
  /** Its number, -1 for the root. */
  readonly parent: number;
  next: number;
  /** Number and position of the last element among the children read so far. */
  previous: number;
  position: number;
}

class PageReader {
  readonly elements: PageElement[] = [];
  readonly texts: PageText[] = [];
  readonly sheets: SheetReference[] = [];
  readonly scripts: ScriptReference[] = [];
  readonly inert: { style: string; range: { start: number; end: number } }[] = [];
  readonly inertClasses: { start: number; end: number }[] = [];
  readonly inertNames = new Set<string>();
  isEdited = false;
  readonly inertBlocks: { start: number; end: number }[] = [];
  readonly head: { endTag: number | undefined; start: number | undefined; first: number } = {
    endTag: undefined,
    start: undefined,
    first: 0,
  };
  readonly outdatedEnds = new Map<number, number>();
  readonly contentEnds: number[] = [];
  base: string | undefined;
  looseFrom: number | undefined;
  shadowRoots = false;
  depth = 0;
  hasPolicy = false;
  readonly #text: string;
  readonly #engine: Engine | undefined;
  /** Whether the page will be there for a while. */
  readonly #isKept: boolean;
  /** Whether a build made the page, and its tags say where they come from. */
  readonly #isBuilt: boolean;
  readonly #tags = new Map<readonly Attribute[], SourceTag>();

  /** In: the file's text; what a template engine reads in it; whether the page is kept. */
  constructor(text: string, engine: Engine | undefined, isKept: boolean) {
    this.#text = text;
    this.#isKept = isKept;
    this.#isBuilt = text.includes(SOURCE_MARK);
    this.#engine = engine;
    for (const value of engine?.texts ?? []) this.texts.push({ parent: -1, previous: -1, value });
  }

  /** Reads a whole tree. Not by recursion: a page may be nested as deep as it is long. */
  read(root: Tree.ParentNode): void {
    const open: Level[] = [{ node: root, parent: -1, next: 0, previous: -1, position: 0 }];
    for (let level = open.at(-1); level !== undefined; level = open.at(-1)) {
      const child = level.node.childNodes[level.next++];
      if (child === undefined) {
        open.pop();
      } else if (isSourceElement(child)) {
        level.position++;
        level.previous = this.#readElement(child, level);
        if (isTemplate(child)) this.#readInert(child, level.previous);
        else if (child.childNodes.length > 0)
          open.push({ node: child, parent: level.previous, next: 0, previous: -1, position: 0 });
        this.depth = Math.max(this.depth, open.length);
      } else this.#readOther(child, level);
    }
    for (const { index, prints } of this.#engine?.holders(this.elements, this.contentEnds) ?? []) {
      const holder = this.elements[index]!;
      holder.hasTemplateText = true;
      holder.hasText ||= prints;
    }
    this.looseFrom = this.#engine?.markHalves(this.elements, this.contentEnds);
  }

  #readOther(child: Tree.ChildNode, { parent, previous }: Level): void {
    const owner = parent < 0 ? undefined : this.elements[parent];
    if ('value' in child) {
      if (owner?.name !== 'style')
        this.texts.push({ parent, previous, value: this.#isKept ? kept(child.value) : child.value });
      if (owner === undefined) return;
      owner.hasText = true;
    } else if ('data' in child) {
      this.texts.push({ parent, previous, value: `<!--${child.data}` });
    } else if (child.nodeName === '#documentType') {
      this.head.first = child.sourceCodeLocation?.endOffset ?? this.head.first;
    }
  }

  #readElement(node: SourceElement, { parent, previous, position }: Level): number {
    const index = this.elements.length;
    const tag = this.#sourceTag(node);
    if (this.#isBuilt) dropMark(node.attrs);
    const engine = this.#engine?.tag(node, tag?.range);
    const classes = attributeOf(node.attrs, 'class');
    const element: PageElement = {
      index,
      parent,
      previous,
      next: -1,
      firstChild: -1,
      position,
      name: node.tagName,
      namespace:
        node.namespaceURI === html.NS.SVG ? 'svg' : node.namespaceURI === html.NS.MATHML ? 'mathml' : 'html',
      attributes: keptList(qualified(node.attrs)),
      id: kept(attributeOf(node.attrs, 'id')) || undefined,
      classes: engine?.classes ?? (classes === undefined ? NO_CLASSES : keptWords(classes)),
      style: kept(attributeOf(node.attrs, 'style')),
      tag,
      hasText: false,
      hasTemplateText:
        this.#engine?.isAmongRows(node, this.elements[parent]?.hasTemplateText === true) === true,
      templated:
        isBound(node.attrs) || engine?.prints === true ? 'tag' : engine === undefined ? 'no' : 'values',
      engine,
    };
    this.elements.push(element);
    this.contentEnds.push(node.endTag >= 0 ? node.endTag : node.end);
    if (previous >= 0) this.elements[previous]!.next = index;
    else if (parent >= 0) this.elements[parent]!.firstChild = index;
    if (isMadeByScripts(node.attrs))
      for (const one of [element, this.elements[parent]]) if (one !== undefined) one.hasTemplateText = true;
    this.isEdited ||= isEditable(node.attrs);
    this.#noteRole(node, element);
    return index;
  }

  #sourceTag({ attrs, startTag, tagName, styleEntries, styleLength }: SourceElement): SourceTag | undefined {
    if (startTag === null || this.#text[startTag.startOffset] !== '<') return undefined;
    // Elements made anew from one tag (misnested formatting) share its attribute list, and so its source.
    const shared = FORMATTING.has(tagName);
    const known = shared ? this.#tags.get(attrs) : undefined;
    if (known !== undefined) return known;
    const range = { start: startTag.startOffset, end: startTag.endOffset };
    const tag = new SourceTag(range, startTag.attrs, styleEntries, styleLength);
    if (shared) this.#tags.set(attrs, tag);
    return tag;
  }

  #noteRole(node: SourceElement, element: PageElement): void {
    for (const { name, text } of node.tagName === 'script' ? [] : scriptsInTag(node.attrs)) {
      const at = element.tag?.attributes.get(name);
      this.scripts.push({ kind: 'inline', text, offset: at?.start ?? 0, how: 'handler' });
    }
    switch (node.tagName) {
      case 'html':
        this.head.first = Math.max(this.head.first, element.tag?.range.end ?? 0);
        return;
      case 'head':
        this.head.start = element.tag?.range.end;
        this.head.endTag = node.endTag < 0 ? undefined : node.endTag;
        return;
      case 'base':
        this.base ??= attributeOf(node.attrs, 'href');
        return;
      case 'meta':
        this.hasPolicy ||=
          (attributeOf(node.attrs, 'http-equiv') ?? '').toLowerCase() === 'content-security-policy' &&
          OF_STYLES.test(attributeOf(node.attrs, 'content') ?? '');
        return;
      case 'link':
        this.#noteLink(node.attrs, element, false);
        return;
      case 'style':
        this.#noteBlock(node, element.index, false);
        return;
      case 'center':
      case 'font':
      case 'big':
        if (node.endTag >= 0) this.outdatedEnds.set(element.index, node.endTag);
        return;
      case 'script':
        this.#noteScript(node);
        return;
      case 'noscript':
        this.#readNoscript(node, element.index);
        return;
      default:
    }
  }

  #noteLink(attributes: readonly Attribute[], element: PageElement, scriptingOff: boolean): void {
    const words = splitTokens((attributeOf(attributes, 'rel') ?? '').toLowerCase());
    const href = attributeOf(attributes, 'href');
    // In `<noscript>` nobody has put back what an engine reads.
    const address = href?.replace(ENGINE_WORDS, `${INVISIBLE_MARK}$&${INVISIBLE_MARK}`);
    // `<link rel="preload" as="style">` is a sheet that a script is about to switch on.
    const preloaded = words.includes('preload') && attributeOf(attributes, 'as')?.toLowerCase() === 'style';
    if (!(words.includes('stylesheet') || preloaded) || address === undefined || !isCss(attributes)) return;
    this.sheets.push({
      kind: 'link',
      element: element.index,
      address,
      media: mediaOf(attributes),
      title: attributeOf(attributes, 'title') ?? '',
      alternate: words.includes('alternate'),
      disabled: preloaded || attributeOf(attributes, 'disabled') !== undefined,
      scriptingOff,
      ...((attributeOf(attributes, 'integrity') ?? '').trim() === '' ? {} : { hasHash: true }),
      range: element.tag?.range ?? { start: 0, end: 0 },
    });
  }

  #noteBlock(node: Tree.Element, element: number, scriptingOff: boolean): void {
    if (!isCss(node.attrs)) return;
    // The source itself, since the parser turns CR LF into LF.
    const [start, end] = isSourceElement(node) ? contentRange(node) : [];
    const source = start === undefined ? undefined : (this.#engine?.masked ?? this.#text).slice(start, end);
    const text = source ?? node.childNodes.map((child) => ('value' in child ? child.value : '')).join('');
    this.sheets.push({
      kind: 'block',
      element,
      text,
      offset: start,
      media: mediaOf(node.attrs),
      title: attributeOf(node.attrs, 'title') ?? '',
      scriptingOff,
      ...(source !== undefined && source !== this.#text.slice(start, end) ? { isFilled: true } : {}),
      ...(this.#isBuilt ? { isFixed: true } : {}),
    });
  }

  #noteScript(node: SourceElement): void {
    const address = attributeOf(node.attrs, 'src') ?? attributeOf(node.attrs, 'href');
    const inAddress = address === undefined ? undefined : scriptInAddress(address);
    if (inAddress !== undefined) {
      this.scripts.push({
        kind: 'inline',
        text: inAddress,
        offset: node.startTag?.startOffset ?? 0,
        how: 'script',
      });
      return;
    }
    if (address !== undefined) {
      const start = node.startTag?.startOffset ?? 0;
      this.scripts.push({ kind: 'link', address, range: { start, end: Math.max(start, node.end) } });
      return;
    }
    const text = node.childNodes.map((child) => ('value' in child ? child.value : '')).join('');
    const offset = node.startTag?.endOffset ?? 0;
    if (text.trim() !== '') this.scripts.push({ kind: 'inline', text, offset, how: 'script' });
  }

  /** With scripting on, `<noscript>` is text; the sheets in it apply only where scripts are off. */
  #readNoscript(node: Tree.Element, index: number): void {
    const text = node.childNodes.map((child) => ('value' in child ? child.value : '')).join('');
    if (!includesAny(text.toLowerCase(), ['<link', '<style'])) return;
    const inside = parseFragment(text, { scriptingEnabled: false });
    for (const child of inside.childNodes) {
      if (!('tagName' in child)) continue;
      const element = this.elements[index]!;
      if (child.tagName === 'link') this.#noteLink(child.attrs, element, true);
      if (child.tagName === 'style') this.#noteBlock(child, index, true);
    }
  }

  #readInert(template: Tree.Template, index: number): void {
    const [start, end] = isSourceElement(template) ? contentRange(template) : [];
    this.texts.push({ parent: index, previous: -1, value: this.#text.slice(start, end) });
    if (template.attrs.some(({ name }) => name === 'shadowrootmode')) this.shadowRoots = true;
    const open: Tree.ChildNode[] = [...template.content.childNodes].reverse();
    for (let node = open.pop(); node !== undefined; node = open.pop()) {
      if (!isSourceElement(node)) continue;
      for (const name of namesOf(node)) this.inertNames.add(name);
      const style = attributeOf(node.attrs, 'style');
      const at = node.startTag?.attrs?.style;
      if (style !== undefined && at)
        this.inert.push({ style, range: { start: at.startOffset, end: at.endOffset } });
      const [from, to] = node.tagName === 'style' ? contentRange(node) : [];
      if (from !== undefined && to !== undefined) this.inertBlocks.push({ start: from, end: to });
      const own = node.startTag?.attrs?.class;
      if (own) this.inertClasses.push({ start: own.startOffset, end: own.endOffset });
      const { childNodes } = isTemplate(node) ? node.content : node;
      for (let i = childNodes.length - 1; i >= 0; i--) open.push(childNodes[i]!);
    }
  }
}

/** What of a content security policy mentions styles (CSP 3 §6.1), or could once an engine has written it. */
const OF_STYLES = /\b(?:style-src|default-src|sandbox)\b|\{\{|\{%|<%|<\?/i;

/** Names of elements that the parser makes anew when they are misnested (HTML standard, "formatting"). */
const FORMATTING = new Set('a b big code em font i nobr s small strike strong tt u'.split(' '));
