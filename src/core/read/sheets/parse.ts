// CSS text in, `Sheet` out: the algorithms of CSS Syntax 3 §5 (https://drafts.csswg.org/css-syntax-3/#parsing),
// with their names, over tokens. A browser recovers from every error, and so does this, in the same way.

import { CSS_SPACE, trimmed } from '../../base/characters.js';
import { withSingleSpaces } from '../../base/phrases.js';
import { undecidedText } from '../../base/reasons/index.js';
import { DEEPEST, isTooDeep } from './depth.js';
import { withoutEscapes } from './escapes.js';
import { parseImport } from './import-prelude.js';
import { unnested } from './nesting.js';
import type { Declaration, RuleCondition, Sheet, SheetDefect, SheetDefectKind } from './sheet.js';
import { type Context, parseScope, SheetParts, TOP, undecidedSheet } from './sheet-parts.js';
import { CLOSERS, isSpace, Token, type Tokens, tokenize, tokenText } from './tokens.js';

/** Parses a style sheet. Ranges are offsets in `text`. Never throws: what a browser drops becomes a defect. */
export function parseSheet(text: string): Sheet {
  if (isTooDeep(text)) return undecidedSheet(text, undecidedText('brackets deep', { most: DEEPEST }));
  const parser = new Parser(tokenize(text));
  parser.consumeRules(TOP, true);
  return parser.sheet();
}

/** Parses the value of a `style` attribute: declarations only, in order; anything else becomes a defect. See `isTooDeep`. */
export function parseDeclarations(text: string): { declarations: Declaration[]; defects: SheetDefect[] } {
  if (isTooDeep(text)) return { declarations: [], defects: [] };
  const parser = new Parser(tokenize(text), true);
  const declarations = parser.consumeStyleAttribute();
  return { declarations, defects: parser.defects };
}

const GROUPS = new Set(['media', 'supports', 'container', 'starting-style', 'layer', 'scope']);
class Parser {
  readonly #parts = new SheetParts();
  readonly #tokens: Tokens;
  /** In a style attribute there is no block for a brace to end. */
  readonly #inAttribute: boolean;
  #at = 0;
  #importsAllowed = true;

  constructor(tokens: Tokens, inAttribute = false) {
    this.#tokens = tokens;
    this.#inAttribute = inAttribute;
  }

  sheet(): Sheet {
    return this.#parts.sheet(this.#tokens.text);
  }

  get defects(): SheetDefect[] {
    return this.#parts.defects;
  }

  /** "Consume a stylesheet's contents", and the contents of a group rule that stands at the top. */
  consumeRules(context: Context, top: boolean): void {
    for (;;) {
      switch (this.#type()) {
        case Token.EOF:
          return;
        case Token.WhiteSpace:
        case Token.Comment:
        case Token.CDO:
        case Token.CDC:
          this.#at++;
          break;
        case Token.RightCurlyBracket:
          if (!top) return;
          this.#defect('stray closing brace', '}', this.#at, this.#at + 1);
          // The brace becomes part of the next rule's selector, which is invalid for it.
          this.#consumeQualifiedRule(context, false);
          break;
        case Token.AtKeyword:
          this.#consumeAtRule(context, false);
          break;
        default:
          this.#importsAllowed = false;
          this.#consumeQualifiedRule(context, !top);
      }
    }
  }

  consumeStyleAttribute(): Declaration[] {
    const found: Declaration[] = [];
    for (;;) {
      const type = this.#type();
      if (type === Token.EOF) return found;
      if (type === Token.WhiteSpace || type === Token.Comment || type === Token.Semicolon) {
        this.#at++;
        continue;
      }
      const start = this.#at;
      const declaration = this.#consumeDeclaration();
      if (declaration !== undefined) {
        found.push(declaration);
        continue;
      }
      this.#at = start;
      this.#skipUntil(Token.Semicolon);
      this.#defect('not a declaration', this.#slice(start, this.#at), start, this.#at);
    }
  }

  /** "Consume a block's contents", for a style rule or a group nested in one. Stops before the closing brace. */
  #consumeBlockContents(context: Context, ruleStart: number): void {
    let run: Declaration[] = [];
    let emitted = false;
    const flush = (end: number): void => {
      if (run.length === 0) return;
      this.#emit(context, run, ruleStart, end);
      emitted = true;
      run = [];
    };
    for (;;) {
      const type = this.#type();
      if (type === Token.EOF || type === Token.RightCurlyBracket) {
        if (run.length === 0 && !emitted) this.#emit(context, [], ruleStart, this.#at + 1);
        else flush(this.#at + 1);
        return;
      }
      if (type === Token.WhiteSpace || type === Token.Comment || type === Token.Semicolon) {
        this.#at++;
      } else if (type === Token.AtKeyword) {
        flush(this.#at);
        emitted = true;
        this.#consumeAtRule(context, true);
      } else {
        const start = this.#at;
        const declaration = this.#consumeDeclaration();
        if (declaration !== undefined) {
          run.push(declaration);
          continue;
        }
        this.#at = start;
        const before = this.#parts.rules.length;
        flush(start);
        this.#consumeQualifiedRule(context, true);
        if (this.#parts.rules.length > before) emitted = true;
      }
    }
  }

  #emit(context: Context, declarations: readonly Declaration[], ruleStart: number, end: number): void {
    this.#parts.rules.push({
      selector: context.selector ?? '',
      nesting: context.nesting,
      selectorRange: { start: this.#start(context.selectorStart), end: this.#start(context.selectorEnd) },
      range: { start: this.#start(ruleStart), end: this.#start(Math.min(end, this.#tokens.count)) },
      declarations,
      conditions: context.conditions,
      scope: context.scope,
      layer: context.layer,
    });
  }

  /** "Consume a qualified rule": `nested` rules end at a semicolon or at the block's end. */
  #consumeQualifiedRule(context: Context, nested: boolean): void {
    const start = this.#at;
    for (;;) {
      const type = this.#type();
      if (type === Token.EOF) {
        this.#defect('rule without a block', this.#slice(start, this.#at), start, this.#at);
        return;
      }
      if (type === Token.LeftCurlyBracket) break;
      if (nested && type === Token.RightCurlyBracket) {
        this.#defect('not a declaration', this.#slice(start, this.#at), start, this.#at);
        return;
      }
      if (nested && context.nesting.length > 0 && type === Token.Semicolon) {
        this.#defect('not a declaration', this.#slice(start, this.#at), start, this.#at);
        this.#at++;
        return;
      }
      this.#skipComponentValue();
    }
    const prelude = this.#prelude(start, this.#at);
    const open = this.#at++;
    if (prelude.text === '') this.#defect('empty selector', '{', open, open + 1);
    const inside: Context = {
      ...context,
      selector: unnested(context.selector, prelude.text),
      nesting: [...context.nesting, prelude.text],
      selectorStart: prelude.start,
      selectorEnd: prelude.end,
    };
    this.#consumeBlockContents(inside, prelude.start);
    this.#close(open);
  }

  /** Out: the declaration, or `undefined` when the text is none (the caller goes back). */
  #consumeDeclaration(): Declaration | undefined {
    const first = this.#at;
    if (this.#type() !== Token.Ident) return undefined;
    const name = this.#ident(this.#at++);
    this.#skipSpace();
    if (this.#type() !== Token.Colon) return undefined;
    this.#at++;
    this.#skipSpace();
    const valueStart = this.#at;
    let curly = false;
    for (let type = this.#type(); type !== Token.EOF && type !== Token.Semicolon; type = this.#type()) {
      if (type === Token.RightCurlyBracket) {
        if (!this.#inAttribute) break;
        // It makes the value invalid, a custom property's too.
        return undefined;
      }
      if (type === Token.LeftCurlyBracket) curly = true;
      this.#skipComponentValue();
    }
    let end = this.#lastSolid(valueStart, this.#at);
    const declarationEnd = end;
    const custom = name.startsWith('--');
    if (curly && !custom) return undefined;
    let important = false;
    if (end - valueStart >= 2) {
      const word = end - 1;
      const bang = this.#lastSolid(valueStart, word) - 1;
      if (
        this.#tokens.types[word] === Token.Ident &&
        this.#ident(word).toLowerCase() === 'important' &&
        bang >= valueStart &&
        this.#isBang(bang)
      ) {
        important = true;
        end = this.#lastSolid(valueStart, bang);
      }
    }
    const value = trimmed(this.#slice(valueStart, end), CSS_SPACE);
    if (value === '' && !custom) return undefined;
    return {
      property: custom ? name : name.toLowerCase(),
      value,
      important,
      range: { start: this.#start(first), end: this.#start(declarationEnd) },
    };
  }

  #consumeAtRule(context: Context, nested: boolean): void {
    const start = this.#at;
    const name = tokenText(this.#tokens, start).slice(1).toLowerCase();
    this.#at++;
    for (;;) {
      const type = this.#type();
      if (type === Token.EOF || type === Token.Semicolon || (type === Token.RightCurlyBracket && nested)) {
        const prelude = this.#prelude(start + 1, this.#at).text;
        if (type === Token.Semicolon) this.#at++;
        this.#statement(name, prelude, context, start);
        return;
      }
      if (type === Token.LeftCurlyBracket) break;
      this.#skipComponentValue();
    }
    const prelude = this.#prelude(start + 1, this.#at).text;
    const open = this.#at++;
    if (name !== 'layer') this.#importsAllowed = false;
    if (!GROUPS.has(name)) {
      while (this.#type() !== Token.EOF && this.#type() !== Token.RightCurlyBracket)
        this.#skipComponentValue();
      this.#close(open);
      const conditions = context.conditions.map(({ kind, text }) => `@${kind} ${text} `).join('');
      const around = context.layer === undefined ? conditions : `@layer ${context.layer} ${conditions}`;
      this.#parts.definitions.push(around + withSingleSpaces(this.#slice(start, this.#at)));
      return;
    }
    const inside = this.#groupContext(name, prelude, context, start);
    if (context.nesting.length > 0) this.#consumeBlockContents(inside, start);
    else this.consumeRules(inside, false);
    this.#close(open);
  }

  #groupContext(name: string, prelude: string, context: Context, start: number): Context {
    if (name === 'layer') {
      const own = prelude === '' ? this.#parts.anonymousLayer() : prelude;
      const layer = context.layer === undefined ? own : `${context.layer}.${own}`;
      this.#nameLayer(layer, context);
      return { ...context, layer };
    }
    if (name === 'scope') {
      const scope = parseScope(prelude);
      // A scope in a scope or in a rule has a root that is relative to what is around it.
      if (scope === undefined || context.scope !== undefined || context.nesting.length > 0)
        this.#undecide(undecidedText('scope without a root', {}), start);
      return { ...context, scope: scope ?? context.scope };
    }
    const kind = name as RuleCondition['kind'];
    return { ...context, conditions: [...context.conditions, { kind, text: prelude }] };
  }

  #statement(name: string, prelude: string, context: Context, start: number): void {
    if (name === 'charset') return;
    if (name === 'layer') {
      for (const one of prelude.split(',')) {
        const own = one.trim();
        this.#nameLayer(context.layer === undefined ? own : `${context.layer}.${own}`, context);
      }
      return;
    }
    if (name === 'import') {
      const parsed = this.#importsAllowed && context === TOP ? parseImport(prelude) : undefined;
      if (parsed === undefined) this.#defect('import too late', prelude, start, this.#at);
      else {
        const layer = parsed.layer === '' ? this.#parts.anonymousLayer() : parsed.layer;
        this.#parts.imports.push({
          ...parsed,
          layer,
          layersBefore: this.#parts.layerCount,
          range: { start: this.#start(start), end: this.#start(this.#at) },
        });
      }
      return;
    }
    this.#importsAllowed = false;
    if (name === 'namespace') {
      // Behind any rule it is dropped, as an import is.
      const late = this.#parts.rules.length > 0 || context !== TOP;
      if (!late && !this.#parts.nameSpace(prelude)) this.#undecide(undecidedText('namespace', {}), start);
    } else this.#parts.definitions.push(`@${name} ${prelude}`);
  }

  #nameLayer(layer: string, context: Context): void {
    this.#parts.nameLayer(layer, context.conditions.length > 0, this.#rangeFrom(this.#at - 1));
  }

  #undecide(what: string, from: number): void {
    this.#parts.undecide(what, this.#rangeFrom(from));
  }

  #rangeFrom(token: number): { start: number; end: number } {
    return { start: this.#start(token), end: this.#start(this.#at) };
  }

  #close(open: number): void {
    if (this.#type() === Token.RightCurlyBracket) this.#at++;
    else this.#defect('block never closed', '{', open, open + 1);
  }

  /** "Consume a component value": one token, or a whole bracketed block. */
  #skipComponentValue(): void {
    const closer = CLOSERS.get(this.#type());
    this.#at++;
    if (closer === undefined) return;
    while (this.#type() !== Token.EOF) {
      if (this.#type() === closer) {
        this.#at++;
        return;
      }
      this.#skipComponentValue();
    }
  }

  #skipUntil(stop: number): void {
    while (this.#type() !== Token.EOF && this.#type() !== stop) this.#skipComponentValue();
  }

  #skipSpace(): void {
    while (this.#type() === Token.WhiteSpace || this.#type() === Token.Comment) this.#at++;
  }

  /** The index behind the last token before `end` that is neither space nor comment. */
  #lastSolid(start: number, end: number): number {
    let last = end;
    while (last > start && isSpace(this.#tokens.types[last - 1])) last--;
    return last;
  }

  #prelude(start: number, end: number): { text: string; start: number; end: number } {
    let first = start;
    while (first < end && isSpace(this.#tokens.types[first])) first++;
    const last = this.#lastSolid(first, end);
    return { text: this.#slice(first, last), start: first, end: last };
  }

  /** An identifier with its escapes read. */
  #ident(at: number): string {
    const text = tokenText(this.#tokens, at);
    return withoutEscapes(text);
  }

  #isBang(at: number): boolean {
    return this.#tokens.types[at] === Token.Delim && tokenText(this.#tokens, at) === '!';
  }

  #type(): number {
    return this.#at < this.#tokens.count ? this.#tokens.types[this.#at]! : Token.EOF;
  }

  #start(token: number): number {
    return this.#tokens.starts[Math.min(token, this.#tokens.count)]!;
  }

  #slice(from: number, to: number): string {
    return this.#tokens.text.slice(this.#start(from), this.#start(to));
  }

  #defect(kind: SheetDefectKind, detail: string, from: number, to: number): void {
    this.defects.push({
      kind,
      detail: detail.trim(),
      range: { start: this.#start(from), end: this.#start(to) },
    });
  }
}
