// Components of Astro: markup around which code stands, and in whose braces it stands.

import { hasOneOf, startsWithOneOf } from '../../base/characters.js';
import { undecidedText } from '../../base/reasons/index.js';
import type { SourceRange } from '../../base/source.js';
import { isVoid } from '../../base/void-elements.js';
import { allTags, braceEnd, type TagInSource } from '../templates/index.js';
import { ElementFacts } from './builder.js';
import { type Classes, classesOf, isNode, type Node } from './expression.js';
import { importsIn } from './imports.js';
import type { ComponentFile, ComponentNode, StyleBlock } from './model.js';
import { isElementName, namespaceOf } from './names.js';
import { compilerNamed, parserNamed } from './parsers.js';
import { reachesOut } from './reaching.js';
import { readStyleObject } from './style-object.js';
import { unwritten } from './unwritten.js';

interface Babel {
  readonly parseExpression: (text: string, options: object) => unknown;
}

const FENCE = /^\s*---[\s\S]*?\n---[ \t]*(?=\r?\n|$)/;
const STYLE = /<style\b([^>]*)>([\s\S]*?)<\/style\s*>/gi;
const ANY: Classes = { sure: [], mayHave: [], isOpen: true };

export function readAstro(path: string, text: string): ComponentFile | undefined {
  compilerNamed('@babel/parser');
  const fence = FENCE.exec(text)?.[0].length ?? 0;
  const code = text.slice(0, fence).replace(/[^\r\n]/g, ' ') + text.slice(fence);
  const reader = new AstroReader(text);
  reader.read(allTags(path, code), code);
  return {
    roots: reader.roots,
    expressions: reader.expressions,
    blocks: [...text.matchAll(STYLE)].map(blockOf),
    imports: importsIn(text),
  };
}

function blockOf({ 0: whole, 1: written = '', 2: content = '', index }: RegExpMatchArray): StyleBlock {
  const lang = /\blang\s*=\s*["']?([\w-]+)/i.exec(written)?.[1] ?? 'css';
  const isCss = lang === 'css';
  const further = reachesOut(content)
    ? undecidedText('reaches out', {})
    : /\bdefine:vars\b|\bset:html\b/.test(written)
      ? undecidedText('written into', {})
      : undefined;
  const offset = (index ?? 0) + whole.indexOf('>') + 1;
  return {
    text: isCss ? content : '',
    offset,
    end: offset + content.length,
    lang,
    media: '',
    isScoped: !/\bis:global\b/.test(written),
    unread: further,
    toCompile: !isCss,
  };
}

/** An element whose end has not come, or a component, which is none. */
interface Open {
  readonly tag: TagInSource;
  readonly facts: ElementFacts | undefined;
  readonly namespace: 'html' | 'svg' | 'mathml';
  /** Where what stands in it goes. */
  readonly into: ComponentNode[];
  /** Told when something that is not written out may stand in it. */
  readonly opens: () => void;
}

class AstroReader {
  readonly roots: ComponentNode[] = [];
  readonly expressions: string[] = [];

  constructor(readonly text: string) {}

  read(tags: ReturnType<typeof allTags>, code: string): void {
    const open: Open[] = [];
    let at = 0;
    for (const tag of tags) {
      this.#between(code.slice(at, tag.range.start), open.at(-1));
      at = Math.max(at, tag.range.end);
      if (!('attributes' in tag)) {
        const match = open.findLastIndex((one) => one.tag.name === tag.name);
        if (match < 0) continue;
        while (open.length > match) this.#close(open, open.length - 1 === match ? tag.range : undefined);
        continue;
      }
      this.#begin(tag, open);
      const isAlone = this.text[tag.range.end - 2] === '/' || isVoid(tag.name);
      if (isAlone) this.#close(open, undefined);
    }
    this.#between(code.slice(at), open.at(-1));
    while (open.length > 0) this.#close(open, undefined);
  }

  /** Text, and braces that anything may come of: what tags stand in them stands where they do. */
  #between(text: string, around: Open | undefined): void {
    if (hasOneOf(text, '{}')) {
      around?.opens();
      this.expressions.push(text.trim());
    } else if (text.trim() !== '') (around?.into ?? this.roots).push({ kind: 'text', value: text });
  }

  #begin(tag: TagInSource, open: Open[]): void {
    const around = open.at(-1);
    const space = around?.namespace ?? 'html';
    if (!isElementName(tag.name) || ['slot', 'style', 'script'].includes(tag.name)) {
      around?.opens();
      open.push({ tag, facts: undefined, namespace: 'html', into: this.roots, opens: () => {} });
      return;
    }
    const facts = new ElementFacts();
    for (const [name, range] of tag.attributes) this.#attribute(name, range, facts);
    const namespace = namespaceOf(tag.name, space, around?.tag.name ?? '');
    const opens = (): void => {
      facts.isOpen = true;
    };
    open.push({ tag, facts, namespace, into: facts.children, opens });
  }

  #close(open: Open[], end: SourceRange | undefined): void {
    const { tag, facts, namespace } = open.pop()!;
    if (facts === undefined) return;
    const whole = { start: tag.range.start, end: end?.end ?? tag.range.end };
    const into = open.at(-1)?.into ?? this.roots;
    into.push(facts.element(tag.name, namespace, this.text, whole, tag.range.end));
  }

  #attribute(name: string, range: SourceRange, facts: ElementFacts): void {
    const written = this.text.slice(range.start, range.end);
    // `{...rest}`, `{name}`, `set:html`, `class:list`.
    if (startsWithOneOf(written, '{')) {
      facts.prints = true;
      return;
    }
    if (name.startsWith('set:')) {
      facts.isOpen = true;
      return;
    }
    if (/^(client|server|is|transition|on):|^on[a-z]+$/.test(name)) return;
    const match = /^[^\s=]+\s*=\s*(?:"([^"]*)"|'([^']*)'|\{([\s\S]*)\}|`([\s\S]*)`|([^\s"'{]+))$/.exec(
      written,
    );
    const literal = match?.[1] ?? match?.[2] ?? match?.[5] ?? (written.includes('=') ? undefined : '');
    if (literal !== undefined) {
      facts.literal(name, literal, range);
      return;
    }
    const inner = match?.[3];
    const tree = inner === undefined ? undefined : expressionIn(inner);
    if (name === 'class:list' || name === 'class') {
      facts.classes.push(tree === undefined ? ANY : classesOf(tree));
      if (name === 'class') facts.computed('class', written, range);
      return;
    }
    if (name === 'style') {
      this.#style(tree, range, written, facts);
      return;
    }
    facts.computed(name, written, range);
  }

  #style(tree: Node | undefined, range: SourceRange, written: string, facts: ElementFacts): void {
    const inside = this.text.indexOf('{', range.start) + 1;
    const end = braceEnd(this.text, inside - 1);
    const read = tree && end !== undefined ? readStyleObject(tree, this.text, inside, 'none') : undefined;
    if (read === undefined) facts.style.add(unwritten(written), range);
    else facts.style.write(read.style, range, read);
  }
}

function expressionIn(code: string): Node | undefined {
  try {
    const { parseExpression } = parserNamed('@babel/parser') as Babel;
    const tree = parseExpression(code, { plugins: ['jsx', 'typescript'] });
    return isNode(tree) ? tree : undefined;
  } catch {
    return undefined;
  }
}
