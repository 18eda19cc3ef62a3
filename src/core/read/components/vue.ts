// Single-file components of Vue: the template, and the style blocks.

import { undecidedText } from '../../base/reasons/index.js';
import type { SourceRange } from '../../base/source.js';
import { ElementFacts, tagEndAt } from './builder.js';
import { type Classes, classesOf, isNode, type Node } from './expression.js';
import { importsIn } from './imports.js';
import type { ComponentFile, ComponentNode, StyleBlock } from './model.js';
import { isElementName, namespaceOf } from './names.js';
import { compilerNamed } from './parsers.js';
import { reachesOut } from './reaching.js';
import { readStyleObject } from './style-object.js';
import { unwritten } from './unwritten.js';

interface Located {
  readonly loc: { readonly start: { readonly offset: number }; readonly end: { readonly offset: number } };
}

interface Expression extends Located {
  readonly content: string;
  readonly isStatic?: boolean;
  /** Babel's tree, for what is no plain name. */
  readonly ast?: unknown;
}

interface Prop extends Located {
  /** 6 an attribute, 7 a directive. */
  readonly type: number;
  readonly name: string;
  readonly value?: (Located & { readonly content: string }) | undefined;
  readonly exp?: Expression | undefined;
  readonly arg?: Expression | undefined;
}

interface TemplateNode extends Located {
  /** 1 an element, 2 a text, 3 a comment, 5 an expression. */
  readonly type: number;
  readonly tag?: string;
  readonly content?: unknown;
  readonly props?: readonly Prop[];
  readonly children?: readonly TemplateNode[];
}

interface Block extends Located {
  readonly content: string;
  readonly lang?: string | undefined;
  readonly src?: string | undefined;
  readonly attrs: Readonly<Record<string, string | true>>;
}

interface Descriptor {
  readonly template: (Block & { readonly ast?: TemplateNode | undefined }) | null;
  readonly styles: readonly (Block & { readonly scoped?: boolean; readonly module?: unknown })[];
}

interface Compiler {
  readonly parse: (
    text: string,
    options: object,
  ) => { readonly descriptor: Descriptor; readonly errors: readonly Error[] };
}

export function readVue(text: string): ComponentFile | undefined {
  const compiler = compilerNamed('@vue/compiler-sfc') as Compiler;
  // An older version has templates without a component behind them: their markup is the same.
  const source = text.replace(/^(<template\b[^>]*?\s)functional\b/m, `$1${' '.repeat('functional'.length)}`);
  const { descriptor, errors } = compiler.parse(source, { sourceMap: false, ignoreEmpty: false });
  if (errors[0] !== undefined) throw errors[0];
  const reader = new VueReader(text);
  const { template } = descriptor;
  if (template?.ast !== undefined && (template.lang ?? 'html') === 'html') reader.readRoots(template.ast);
  return {
    roots: reader.roots,
    expressions: reader.expressions,
    blocks: descriptor.styles.map(blockOf),
    imports: importsIn(text),
  };
}

/** What comes from outside of the block, or says something of what a parent puts in. */
const FURTHER = /:slotted\b|v-bind\(/;

function blockOf({
  content,
  lang,
  src,
  attrs,
  loc,
  scoped,
  module,
}: Descriptor['styles'][number]): StyleBlock {
  const isCss = lang === undefined || lang === 'css';
  const further =
    src !== undefined
      ? undecidedText('style block elsewhere', {})
      : module !== undefined && module !== false
        ? undecidedText('names made up', {})
        : FURTHER.test(content) || reachesOut(content)
          ? undecidedText('reaches out', {})
          : undefined;
  const media = attrs.media;
  return {
    text: isCss ? content : '',
    offset: loc.start.offset,
    end: loc.end.offset,
    lang: lang ?? 'css',
    media: typeof media === 'string' ? media : '',
    isScoped: scoped === true,
    unread: further,
    toCompile: !isCss,
  };
}

type Around = { readonly namespace: 'html' | 'svg' | 'mathml'; readonly name: string };
const NOTHING_AROUND: Around = { namespace: 'html', name: '' };
/** Whoever uses a component may give classes and styles to its root. */
const FROM_OUTSIDE: Classes = { sure: [], mayHave: [], isOpen: true };

class VueReader {
  readonly roots: ComponentNode[] = [];
  readonly expressions: string[] = [];

  constructor(readonly text: string) {}

  readRoots(template: TemplateNode): void {
    this.roots.push(...this.#children(template.children ?? [], NOTHING_AROUND, true).nodes);
  }

  #children(
    all: readonly TemplateNode[],
    around: Around,
    isRoot = false,
  ): { readonly nodes: ComponentNode[]; readonly isOpen: boolean } {
    const nodes: ComponentNode[] = [];
    let isOpen = false;
    for (const node of all) {
      if (node.type === 2) nodes.push({ kind: 'text', value: String(node.content) });
      else if (node.type === 5) {
        this.expressions.push(this.#source(node));
        isOpen = true;
      } else if (node.type === 1) {
        const made = this.#element(node, around, isRoot);
        nodes.push(...made.nodes);
        isOpen ||= made.isOpen;
      }
    }
    return { nodes, isOpen };
  }

  #element(node: TemplateNode, around: Around, isRoot: boolean): { nodes: ComponentNode[]; isOpen: boolean } {
    const { tag: name = '', props = [], children = [] } = node;
    const isBranch = props.some(
      (prop) => prop.type === 7 && ['if', 'else', 'else-if', 'for', 'slot'].includes(prop.name),
    );
    for (const { type, name: directive, exp } of props)
      if (type === 7 && ['if', 'else-if', 'for'].includes(directive) && exp !== undefined)
        this.expressions.push(exp.content);
    if (name === 'template') return { ...this.#children(children, around, isRoot), isOpen: isBranch };
    if (name === 'slot' || name === 'component' || !isElementName(name)) {
      // Nobody knows what a component makes, and around what it puts what it is given.
      this.roots.push(...this.#children(children, NOTHING_AROUND).nodes);
      return { nodes: [], isOpen: true };
    }
    const facts = new ElementFacts();
    if (isRoot) facts.classes.push(FROM_OUTSIDE);
    for (const prop of props) this.#prop(prop, facts);
    const namespace = namespaceOf(name, around.namespace, around.name);
    const inside = this.#children(children, { namespace, name });
    facts.children.push(...inside.nodes);
    facts.isOpen ||= inside.isOpen;
    const last = props.at(-1)?.loc.end.offset ?? node.loc.start.offset + 1 + name.length;
    const element = facts.element(name, namespace, this.text, rangeOf(node), tagEndAt(this.text, last));
    return { nodes: [element], isOpen: isBranch };
  }

  #prop(prop: Prop, facts: ElementFacts): void {
    const range = rangeOf(prop);
    if (prop.type === 6) {
      facts.literal(prop.name.toLowerCase(), prop.value?.content ?? '', range);
      return;
    }
    const code = this.#source(prop);
    switch (prop.name) {
      case 'bind':
        this.#bind(prop, facts, range, code);
        return;
      case 'show':
        facts.style.add(`display: ${unwritten(code)}`, range);
        return;
      case 'html':
      case 'text':
        facts.isOpen = true;
        return;
      case 'if':
      case 'else':
      case 'else-if':
      case 'for':
      case 'on':
      case 'slot':
      case 'model':
      case 'once':
      case 'memo':
      case 'cloak':
      case 'pre':
        return;
      default:
        // A directive of the house's own may do anything to its element.
        facts.prints = true;
    }
  }

  #bind({ arg, exp }: Prop, facts: ElementFacts, range: SourceRange, code: string): void {
    if (arg === undefined || arg.isStatic !== true) {
      facts.prints = true;
      return;
    }
    const tree = isNode(exp?.ast) ? exp.ast : undefined;
    const name = arg.content.toLowerCase();
    if (name === 'key' || name === 'ref') return;
    if (name === 'class') facts.classes.push(tree === undefined ? FROM_OUTSIDE : classesOf(tree));
    else if (name === 'style') this.#style(tree, exp, facts, range, code);
    else facts.computed(name, code, range);
  }

  #style(
    tree: Node | undefined,
    exp: Expression | undefined,
    facts: ElementFacts,
    range: SourceRange,
    code: string,
  ): void {
    // The tree's offsets count from a parenthesis in front of the expression.
    const shift = (exp?.loc.start.offset ?? 0) - 1;
    const read = tree && readStyleObject(tree, this.text, shift, 'none');
    if (read === undefined) facts.style.add(unwritten(code), range);
    else facts.style.write(read.style, range, read);
  }

  #source({ loc }: Located): string {
    return this.text.slice(loc.start.offset, loc.end.offset);
  }
}

function rangeOf({ loc }: Located): SourceRange {
  return { start: loc.start.offset, end: loc.end.offset };
}
