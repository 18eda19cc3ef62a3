// A component as the tree that pages are read from: its elements are made one by one, as they are written, by no HTML parser.

import type { DefaultTreeAdapterTypes as Tree } from 'parse5';
import { html } from 'parse5';
import { undecidedText } from '../../base/reasons/index.js';
import type { SourceRange } from '../../base/source.js';
import type { BlockCompiler, ComponentElement, ComponentFile, ComponentNode } from '../components/index.js';
import { blocksWith, readComponent } from '../components/index.js';
import type { EngineTag } from '../templates/index.js';
import type { Engine } from './engine.js';
import type { PageElement, SheetReference } from './page.js';
import { type SourceElement, sourceTree } from './tree.js';

const NAMESPACES = { html: html.NS.HTML, svg: html.NS.SVG, mathml: html.NS.MATHML };

export interface ComponentTree {
  readonly root: Tree.ParentNode;
  readonly engine: Engine;
  readonly sheets: readonly SheetReference[];
  /** Why nothing of it may be moved. */
  readonly unread: string | undefined;
}

/** In: the path of a component, its text, and who compiles what takes in other files. Out: nothing of it where no compiler takes it. */
export function componentTree(path: string, text: string, compile?: BlockCompiler): ComponentTree {
  const file = readComponent(path, text);
  const root = sourceTree.createDocumentFragment();
  const engine = new ComponentEngine(text, file);
  if (file === undefined) return { root, engine, sheets: [], unread: undecidedText('no compiler', {}) };
  for (const node of file.roots) append(root, node, engine);
  const blocks = blocksWith(file, path, text, compile);
  const sheets = blocks
    .filter(({ unread }) => unread === undefined)
    .map(
      ({ text: own, offset, end, media, isScoped }): SheetReference => ({
        kind: 'block',
        element: -1,
        text: own,
        // What a compiler makes of a block stands nowhere in the file.
        ...(text.slice(offset, end) === own ? { offset } : { offset: undefined, madeAt: offset }),
        media,
        title: '',
        scriptingOff: false,
        isFixed: true,
        ...(isScoped ? { isScoped } : {}),
      }),
    );
  const unread = blocks.find((one) => one.unread !== undefined)?.unread;
  const why = engine.makesStyles
    ? undecidedText('style block made', {})
    : WRITES_STYLES.test(text)
      ? undecidedText('styles written by code', {})
      : unread;
  return { root, engine, sheets, unread: why };
}

/** What code does to elements behind the framework's back: nobody knows to which. */
const WRITES_STYLES =
  /\.style(?:\.\w+|\[[^\]\n]+\])\s*=(?!=)|\.style\.(?:set|remove)Property\(|\.cssText\s*=(?!=)|(?:set|remove|toggle)Attribute\(\s*['"](?:style|class)['"]|\.className\s*=(?!=)|\.classList\.(?:add|remove|toggle|replace)\(/;

/** By recursion: components are nested as deep as people write. */
function append(parent: Tree.ParentNode, node: ComponentNode, engine: ComponentEngine): void {
  if (node.kind === 'text') {
    if (node.value !== '') sourceTree.insertText(parent, node.value);
    return;
  }
  const { name, namespace, attributes, tag } = node;
  if (name === 'style') engine.makesStyles = true;
  if (name === 'style' || name === 'script') return;
  const element = sourceTree.createElement(
    name,
    NAMESPACES[namespace],
    attributes.map(({ name: own, value }) => ({ name: own, value })),
  ) as SourceElement;
  element.startTag = {
    ...location(tag),
    attrs: Object.fromEntries(attributes.map(({ name: own, range }) => [own, location(range)])),
  };
  element.endTag = node.endTag;
  element.end = node.end;
  if (node.styleObject !== undefined) element.styleEntries = node.styleObject.entries;
  if (node.styleLength !== undefined) element.styleLength = node.styleLength;
  engine.note(node);
  sourceTree.appendChild(parent, element);
  for (const child of node.children) append(element, child, engine);
}

/** Lines are not asked for. */
function location({ start, end }: SourceRange) {
  return { startLine: 0, startCol: 0, startOffset: start, endLine: 0, endCol: 0, endOffset: end };
}

/** What only runs decide of a component. */
class ComponentEngine implements Engine {
  makesStyles = false;
  readonly masked: string;
  readonly texts: readonly string[];
  readonly #tags = new Map<number, EngineTag>();
  readonly #open = new Set<number>();

  constructor(text: string, file: ComponentFile | undefined) {
    this.masked = text;
    this.texts = file?.expressions ?? [];
  }

  note({ tag, engine, isOpen }: ComponentElement): void {
    if (engine !== undefined) this.#tags.set(tag.start, engine);
    if (isOpen) this.#open.add(tag.start);
  }

  /** Anything may stand beside its roots. */
  readonly isBetween = true;

  isFilled(): boolean {
    return true;
  }

  showsUnnamed(): boolean {
    return true;
  }

  showsParts(): boolean {
    return true;
  }

  tag(_node: SourceElement, range: SourceRange | undefined): EngineTag | undefined {
    return range && this.#tags.get(range.start);
  }

  isAmongRows(): boolean {
    return false;
  }

  isInTag(): boolean {
    return false;
  }

  markHalves(): undefined {
    return undefined;
  }

  inclusions(): [] {
    return [];
  }

  wrapped(): [] {
    return [];
  }

  *holders(elements: readonly PageElement[]): Iterable<{ readonly index: number; readonly prints: boolean }> {
    for (const { index, tag } of elements)
      if (tag !== undefined && this.#open.has(tag.range.start)) yield { index, prints: true };
  }

  sheets(own: readonly SheetReference[]): SheetReference[] {
    return [...own];
  }

  scripts<Script>(own: readonly Script[]): Script[] {
    return [...own];
  }
}
