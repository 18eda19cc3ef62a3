// Components of Svelte: the markup around the script, and the style block.

import { either, isMadeOf, LOWER } from '../../base/characters.js';
import { undecidedText } from '../../base/reasons/index.js';
import type { SourceRange } from '../../base/source.js';
import { ElementFacts, tagEndAt } from './builder.js';
import { isNode, type Node, nodesAt, partsClasses, stringOf } from './expression.js';
import { importsIn } from './imports.js';
import type { ComponentFile, ComponentNode, StyleBlock } from './model.js';
import { isElementName, namespaceOf } from './names.js';
import { compilerNamed } from './parsers.js';
import { reachesOut } from './reaching.js';
import { unwritten } from './unwritten.js';

interface Compiler {
  readonly parse: (text: string, options: object) => unknown;
}

const STYLE = /<style\b[^>]*>([\s\S]*?)<\/style\s*>/i;

export function readSvelte(text: string): ComponentFile | undefined {
  const compiler = compilerNamed('svelte/compiler') as Compiler;
  const block = blockIn(text);
  // What is written in another language than CSS the parser would not take.
  const plain = text.replace(STYLE, (whole, inside: string) => {
    const open = whole.indexOf('>') + 1;
    return blank(whole, open, open + inside.length);
  });
  const root = compiler.parse(plain, { modern: true });
  const fragment = isNode(root) ? root.fragment : undefined;
  if (!isNode(fragment)) return undefined;
  const reader = new SvelteReader(text);
  reader.roots.push(...reader.children(fragment, NOTHING_AROUND).nodes);
  return {
    roots: reader.roots,
    expressions: reader.expressions,
    blocks: block === undefined ? [] : [block],
    imports: importsIn(text),
  };
}

function blank(text: string, start: number, end: number): string {
  return text.slice(0, start) + text.slice(start, end).replace(/[^\r\n]/g, ' ') + text.slice(end);
}

function blockIn(text: string): StyleBlock | undefined {
  const found = STYLE.exec(text);
  if (found === null) return undefined;
  const [whole, content = ''] = found;
  const open = whole.slice(0, whole.indexOf('>') + 1);
  const lang = /\b(?:lang|type)\s*=\s*["']?(?:text\/)?([\w-]+)/i.exec(open)?.[1] ?? 'css';
  const isCss = lang === 'css';
  const further = /\ssrc\s*=/i.test(open)
    ? undecidedText('style block elsewhere', {})
    : /\sglobal\b/i.test(open) || reachesOut(content)
      ? undecidedText('reaches out', {})
      : undefined;
  const offset = found.index + open.length;
  return {
    text: isCss ? content : '',
    offset,
    end: offset + content.length,
    lang,
    media: '',
    isScoped: true,
    unread: further,
    toCompile: !isCss,
  };
}

type Around = { readonly namespace: 'html' | 'svg' | 'mathml'; readonly name: string };
const NOTHING_AROUND: Around = { namespace: 'html', name: '' };

class SvelteReader {
  readonly roots: ComponentNode[] = [];
  readonly expressions: string[] = [];

  constructor(readonly text: string) {}

  children(fragment: Node, around: Around): { nodes: ComponentNode[]; isOpen: boolean } {
    const nodes: ComponentNode[] = [];
    let isOpen = false;
    for (const node of nodesAt(fragment, 'nodes')) {
      const made = this.#output(node, around);
      nodes.push(...made.nodes);
      isOpen ||= made.isOpen;
    }
    return { nodes, isOpen };
  }

  #output(node: Node, around: Around): { nodes: ComponentNode[]; isOpen: boolean } {
    switch (node.type) {
      case 'Text':
        return { nodes: [{ kind: 'text', value: String(node.data) }], isOpen: false };
      case 'Comment':
        return { nodes: [], isOpen: false };
      case 'RegularElement':
        return this.#element(node, around);
      case 'IfBlock':
      case 'EachBlock':
      case 'AwaitBlock':
      case 'KeyBlock':
        for (const key of ['test', 'expression']) {
          const asked = node[key];
          if (isNode(asked)) this.expressions.push(this.#source(asked));
        }
        return { nodes: this.#blocks(node, around), isOpen: true };
      case 'SnippetBlock':
        // It is shown where somebody asks for it.
        for (const one of this.#blocks(node, NOTHING_AROUND)) this.roots.push(one);
        return { nodes: [], isOpen: false };
      case 'ExpressionTag':
      case 'HtmlTag':
      case 'RenderTag':
        this.expressions.push(this.#source(node));
        return { nodes: [], isOpen: true };
      default: {
        // A component, or an element that only runs name.
        const inside = node.fragment;
        if (isNode(inside)) this.roots.push(...this.children(inside, NOTHING_AROUND).nodes);
        return { nodes: [], isOpen: true };
      }
    }
  }

  #blocks(node: Node, around: Around): ComponentNode[] {
    return ['consequent', 'alternate', 'body', 'fallback', 'pending', 'then', 'catch', 'fragment'].flatMap(
      (key) => {
        const inside = node[key];
        return isNode(inside) ? this.children(inside, around).nodes : [];
      },
    );
  }

  #element(node: Node, around: Around): { nodes: ComponentNode[]; isOpen: boolean } {
    const name = String(node.name);
    const inside = node.fragment as Node;
    if (!isElementName(name)) {
      this.roots.push(...this.children(inside, NOTHING_AROUND).nodes);
      return { nodes: [], isOpen: true };
    }
    const facts = new ElementFacts();
    const attributes = nodesAt(node, 'attributes');
    for (const attribute of attributes) this.#attribute(attribute, facts);
    const namespace = namespaceOf(name, around.namespace, around.name);
    const shown = this.children(inside, { namespace, name });
    facts.children.push(...shown.nodes);
    facts.isOpen ||= shown.isOpen;
    const ends = attributes.map((one) => Number(one.end));
    const last = Math.max(Number(node.start) + 1 + name.length, ...ends);
    return {
      nodes: [facts.element(name, namespace, this.text, rangeOf(node), tagEndAt(this.text, last))],
      isOpen: false,
    };
  }

  #attribute(node: Node, facts: ElementFacts): void {
    const range = rangeOf(node);
    switch (node.type) {
      case 'Attribute':
        this.#plain(node, facts, range);
        return;
      case 'ClassDirective':
        facts.classes.push({ sure: [], mayHave: [String(node.name)], isOpen: false });
        return;
      case 'StyleDirective':
        facts.style.add(this.#directive(node), range);
        return;
      case 'OnDirective':
      case 'BindDirective':
      case 'LetDirective':
        return;
      case 'TransitionDirective':
      case 'AnimateDirective':
        return;
      default:
        // A spread, or an action, which may do anything to its element.
        facts.prints = true;
    }
  }

  /** `style:left={x}` says one thing; how it says that it is important, or by the name of a variable, is left to the code. */
  #directive(node: Node): string {
    const code = unwritten(this.#source(node));
    const isPlain =
      isMadeOf(String(node.name), either(LOWER, '-')) && nodesAt(node, 'modifiers').length === 0;
    return isPlain && !this.#source(node).startsWith(`style:${node.name}|`) ? `${node.name}: ${code}` : code;
  }

  #plain(node: Node, facts: ElementFacts, range: SourceRange): void {
    const name = String(node.name).toLowerCase();
    if (name.startsWith('on')) return;
    const value = node.value;
    if (value === true) {
      facts.literal(name, '', range);
      return;
    }
    const parts = Array.isArray(value) ? value.filter(isNode) : isNode(value) ? [value] : [];
    const texts = parts.map((part) =>
      part.type === 'Text' ? String(part.data) : stringOf(part.expression as Node),
    );
    if (parts.every(({ type }) => type === 'Text')) {
      facts.literal(name, texts.join(''), range);
      return;
    }
    if (name === 'class')
      facts.classes.push(
        partsClasses(
          parts.map((part, at) =>
            texts[at] === undefined ? { node: part.expression as Node } : { text: texts[at] },
          ),
        ),
      );
    const said = parts.map((part, at) => texts[at] ?? unwritten(this.#source(part))).join('');
    // Written in braces alone, it has no quotes that a word could be put into.
    facts.literal(name, said === texts.join('') ? unwritten(said) : said, range);
  }

  #source(node: Node): string {
    return this.text.slice(Number(node.start), Number(node.end));
  }
}

function rangeOf(node: Node): SourceRange {
  return { start: Number(node.start), end: Number(node.end) };
}
