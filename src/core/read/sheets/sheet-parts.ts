// What a parser collects of one sheet on its way through it.

import { undecidedText } from '../../base/reasons/index.js';
import type { SourceRange } from '../../base/source.js';
import type { ImportRule, RuleCondition, ScopePrelude, Sheet, SheetDefect, StyleRule } from './sheet.js';

/** What stands around the rule that is being read. */
export interface Context {
  /** As if nothing were nested; `undefined` outside of rules. */
  readonly selector: string | undefined;
  readonly nesting: readonly string[];
  readonly selectorStart: number;
  readonly selectorEnd: number;
  readonly conditions: readonly RuleCondition[];
  readonly scope: ScopePrelude | undefined;
  readonly layer: string | undefined;
}

export const TOP: Context = {
  selector: undefined,
  nesting: [],
  selectorStart: 0,
  selectorEnd: 0,
  conditions: [],
  scope: undefined,
  layer: undefined,
};

export class SheetParts {
  readonly rules: StyleRule[] = [];
  readonly imports: ImportRule[] = [];
  readonly definitions: string[] = [];
  readonly defects: SheetDefect[] = [];
  readonly #layers = new Set<string>();
  readonly #namespaces = new Map<string, string>();
  readonly #undecided: { what: string; range: SourceRange }[] = [];
  #anonymousLayers = 0;

  sheet(text: string): Sheet {
    return {
      text,
      rules: this.rules,
      imports: this.imports,
      layers: [...this.#layers],
      namespaces: this.#namespaces,
      definitions: this.definitions,
      defects: this.defects,
      undecided: this.#undecided,
    };
  }

  /** How many different layers the sheet itself has named so far. */
  get layerCount(): number {
    return this.#layers.size;
  }

  anonymousLayer(): string {
    return `(anonymous ${++this.#anonymousLayers})`;
  }

  /** Whether a layer named only under a condition takes part in the order depends on that condition. */
  nameLayer(layer: string, conditional: boolean, range: SourceRange): void {
    if (conditional && !this.#layers.has(layer))
      this.undecide(undecidedText('layer under a condition', {}), range);
    this.#layers.add(layer);
  }

  /** `@namespace svg url(…)`: the prefix, empty for the default, and its address. Out: whether it could be read. */
  nameSpace(prelude: string): boolean {
    const match = /^([\w-]*)\s*(?:url\(\s*)?(["']?)([^"')\s]+)\2\s*\)?$/i.exec(prelude);
    if (match === null) return false;
    this.#namespaces.set(match[1]!, match[3]!);
    return true;
  }

  undecide(what: string, range: SourceRange): void {
    this.#undecided.push({ what, range });
  }
}

/** `(.card) to (.content)`. Out: `undefined` for a form that is not read: no root, or several brackets too few. */
export function parseScope(prelude: string): ScopePrelude | undefined {
  const [start, rest] = takeBracket(prelude);
  if (start === undefined || start.trim() === '') return undefined;
  if (rest === '') return { start, end: undefined };
  const [end, more] = takeBracket(/^to(?=[\s(])\s*/i.test(rest) ? rest.replace(/^to\s*/i, '') : '');
  return end === undefined || more !== '' ? undefined : { start, end };
}

function takeBracket(text: string): [inside: string | undefined, rest: string] {
  if (!text.startsWith('(')) return [undefined, text];
  let depth = 0;
  for (let at = 0; at < text.length; at++) {
    if (text[at] === '(') depth++;
    if (text[at] === ')' && --depth === 0) return [text.slice(1, at), text.slice(at + 1).trim()];
  }
  return [undefined, text];
}

/** A sheet that is not read: pages that use it are left alone. */
export function undecidedSheet(text: string, what: string): Sheet {
  const sheet = new SheetParts().sheet(text);
  return { ...sheet, undecided: [{ what, range: { start: 0, end: text.length } }] };
}
