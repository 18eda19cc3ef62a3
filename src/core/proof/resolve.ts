// Custom properties put in: what `var()` comes to on an element, where that is certain, so that a value and the token that
// now holds it compare equal. Asked only of elements whose outcomes differ as they are written.

import { fileAt } from '../base/addresses.js';
import { either, endsWithOneOf, hasOneOf, SPACE, startsWithOneOf } from '../base/characters.js';
import { getOrInsert, newMap } from '../base/get-or-insert.js';
import {
  ALWAYS,
  isOpaque,
  type Outcome,
  type Outcomes,
  type SheetOrder,
  type StyleReader,
  withoutIdle,
} from '../cascade/index.js';
import { declarationValidity, expandDeclaration } from '../read/sheets/index.js';
import { Token, tokenize, tokenText } from '../read/sheets/tokens.js';
import { usesVariables } from '../read/sheets/variables.js';

/** A custom property's value, or that it has none, or that it is not certain. */
type CustomValue = { readonly text: string } | 'none' | 'open';

/** Of a site's files: their texts, and which is meant by an address, where that is known. */
export interface FileTexts {
  readonly textAt: (path: string) => string | undefined;
  readonly copyOf: (address: string) => string | undefined;
}

/** Resolves the custom properties of one state of a page. */
export class CustomProperties {
  readonly #values = new Map<string, CustomValue>();
  /** By element, what its targets declare of custom properties and of all. */
  readonly #said = new Map<number, ReadonlyMap<string, Outcomes>>();
  readonly #reader: StyleReader;
  readonly #texts: FileTexts;
  readonly #isSetInline: (name: string) => boolean;
  #defined: ReadonlySet<string> | undefined;
  #mentioned: ReadonlySet<string> | undefined;

  /**
   * In: the page's reader; the texts of the site's files, for what its scripts declare; whether any style attribute of the
   * site sets a name.
   */
  constructor(reader: StyleReader, texts: FileTexts, isSetInline: (name: string) => boolean) {
    this.#reader = reader;
    this.#texts = texts;
    this.#isSetInline = isSetInline;
  }

  /** Whether the page, or a sheet it uses, writes the name anywhere: to set it, to use it, or in a script. */
  mentions(name: string): boolean {
    if (this.#mentioned === undefined) {
      const { page, sheetOrder } = this.#reader;
      const scripts = page.scripts.flatMap((script) => {
        const file =
          script.kind === 'link' ? fileAt(script.address, page.path, this.#texts.copyOf) : undefined;
        return file === undefined ? [] : (this.#texts.textAt(file) ?? []);
      });
      const texts = [page.text, ...scripts, ...sheetOrder.uses.map(({ program }) => program.sheet.text)];
      this.#mentioned = new Set(texts.flatMap((text) => text.match(CUSTOM_NAME) ?? []));
    }
    return this.#mentioned.has(name);
  }

  /**
   * The canonical text of an element's outcomes with every certain `var()` replaced.
   * In: `isForeign`, the names that the other state does not know; nothing in it can depend on them.
   */
  form(element: number, isForeign: (name: string) => boolean): string {
    const { targets, form } = this.#reader.told(element);
    const parts: string[] = [];
    for (const [target, outcomes] of [...targets].sort(([a], [b]) => (a < b ? -1 : 1))) {
      const resolved = new Map<string, Outcome[]>();
      for (const [longhand, list] of outcomes) {
        if (longhand.startsWith('--') && isForeign(longhand)) continue;
        resolved.set(
          longhand,
          list.map((outcome) => this.#resolveOutcome(outcome, target, element)),
        );
      }
      const text = form(target, resolved);
      if (text !== '') parts.push(`${target}{${text}}`);
    }
    // A style that template text makes is no declaration yet: it must stay as it is written.
    const { style } = this.#reader.page.elements[element]!;
    if (style !== undefined && isOpaque(style)) parts.push(`style as written ${style}`);
    return parts.join('\n');
  }

  /** Whether what stands around an element tells nothing of its values: custom properties that are set at the root alone. */
  isOfRoot(element: number): boolean {
    const targets = this.#reader.outcomes(element);
    if (customIn(targets).size > 0) return false;
    const values = [...targets.values()].flatMap((outcomes) => [...outcomes.values()].flat());
    const names = values.flatMap(({ entry }) => entry.declaration.value.match(CUSTOM_NAME) ?? []);
    return names.every((name) => !this.#isSetInline(name) && isRootAlone(name, this.#reader.sheetOrder));
  }

  #resolveOutcome(outcome: Outcome, target: string, element: number): Outcome {
    const { property, value } = outcome.entry.declaration;
    if (!usesVariables(value) || property.startsWith('--')) return outcome;
    const text = this.#substitute(value, target, element, []);
    // What does not fit makes the declaration invalid.
    if (text === undefined || declarationValidity(property, text).validity !== 'certain') return outcome;
    const part = expandDeclaration(property, text, this.#holderOf(outcome)).find(
      ({ longhand }) => longhand === outcome.longhand,
    );
    return part === undefined || part.unsettled ? outcome : { ...outcome, value: part.value };
  }

  /** The file that addresses in a declaration are seen from. */
  #holderOf({ writtenIn }: Outcome): string {
    return writtenIn.kind === 'rule' ? writtenIn.use.program.holder : this.#reader.page.path;
  }

  /** CSS Variables 1 §3. Out: `undefined` where a part is not certain. */
  #substitute(value: string, target: string, element: number, path: readonly string[]): string | undefined {
    const open = variableIn(value);
    if (open === undefined) return value;
    const start = open + 'var('.length;
    const end = closingBracket(value, start);
    if (end === undefined) return undefined;
    const inside = value.slice(start, end);
    const comma = inside.indexOf(',');
    const name = (comma < 0 ? inside : inside.slice(0, comma)).trim();
    const found = this.#valueOf(name, target, element, path);
    const fallback =
      comma < 0 ? undefined : this.#substitute(inside.slice(comma + 1).trim(), target, element, path);
    const text = typeof found === 'object' ? found.text : found === 'none' ? fallback : undefined;
    // An address means something else in another file.
    if (text === undefined || (typeof found === 'object' && text.toLowerCase().includes('url(')))
      return undefined;
    const rest = this.#substitute(value.slice(end + 1), target, element, path);
    return rest === undefined ? undefined : joined(value.slice(0, open), text, rest);
  }

  #valueOf(name: string, target: string, element: number, path: readonly string[]): CustomValue {
    if (path.includes(name) || this.#isDefined(name)) return 'open';
    const key = `${target} ${element} ${name}`;
    let known = this.#values.get(key);
    if (known === undefined) {
      known = this.#computeValue(name, target, element, [...path, name]);
      this.#values.set(key, known);
    }
    return known;
  }

  #computeValue(name: string, target: string, element: number, path: readonly string[]): CustomValue {
    const outcomes = getOrInsert(this.#said, element, () => customIn(this.#reader.outcomes(element))).get(
      target,
    );
    if (outcomes?.has('all') === true) return 'open';
    const list = withoutIdle(outcomes?.get(name) ?? []);
    const [first] = list;
    const inherits = first === undefined || ['inherit', 'unset'].includes(first.value.toLowerCase());
    if (first !== undefined && (list.length > 1 || first.condition !== ALWAYS)) return 'open';
    if (inherits) {
      if (target !== '') return this.#valueOf(name, '', element, path.slice(0, -1));
      const { parent } = this.#reader.page.elements[element]!;
      if (parent >= 0) return this.#valueOf(name, '', parent, path.slice(0, -1));
      return this.#reader.page.kind === 'component' ? this.#ofEveryPage(name) : 'none';
    }
    if (['initial', 'revert', 'revert-layer'].includes(first.value.toLowerCase()))
      return first.value.toLowerCase() === 'initial' ? 'none' : 'open';
    // A custom property's own `var()` is put in where it is declared, and the result is what is inherited.
    const text = this.#substitute(first.entry.declaration.value, target, element, path);
    return text === undefined ? 'open' : { text };
  }

  /** What a fragment inherits on every page: a name that only `:root` sets, always, and no style attribute of the site. */
  #ofEveryPage(name: string): CustomValue {
    if (this.#isSetInline(name)) return 'open';
    const { sheetOrder } = this.#reader;
    const known = getOrInsert(rootValues, sheetOrder, newMap<string, CustomValue>);
    return getOrInsert(known, name, () => rootValue(name, sheetOrder));
  }

  /** What `@property` registers has a syntax and an initial value, and what keyframes name changes with time. */
  #isDefined(name: string): boolean {
    this.#defined ??= new Set(
      this.#reader.sheetOrder.uses.flatMap(({ program }) =>
        program.sheet.definitions.flatMap((text) => text.match(CUSTOM_NAME) ?? []),
      ),
    );
    return this.#defined.has(name);
  }
}

/** By the sheets of a page, what they say of a name at the root. */
const rootValues = new WeakMap<SheetOrder, Map<string, CustomValue>>();

function rootValue(name: string, { uses }: SheetOrder): CustomValue {
  let found: CustomValue = 'open';
  for (const { program, condition, layer } of uses) {
    for (const rule of program.rules) {
      const own = rule.rule.declarations.filter(({ property }) => property === name);
      if (own.length === 0) continue;
      const certain = condition === ALWAYS && rule.condition === ALWAYS && rule.scope === undefined;
      const plain = layer === undefined && rule.rule.layer === undefined && rule.selector.text === ':root';
      const [only] = own;
      if (!certain || !plain || own.length > 1 || only!.important || usesVariables(only!.value))
        return 'open';
      if (['inherit', 'initial', 'unset', 'revert', 'revert-layer'].includes(only!.value.toLowerCase()))
        return 'open';
      found = { text: only!.value };
    }
  }
  return found;
}

const rootNames = new WeakMap<SheetOrder, Map<string, boolean>>();

/** Whether no rule sets a name but at the root. */
function isRootAlone(name: string, sheetOrder: SheetOrder): boolean {
  const known = getOrInsert(rootNames, sheetOrder, newMap<string, boolean>);
  return getOrInsert(known, name, () =>
    sheetOrder.uses.every(({ program }) =>
      program.rules.every(
        ({ rule, selector }) =>
          (selector.text === ':root' && rule.scope === undefined) ||
          rule.declarations.every(({ property }) => property !== name),
      ),
    ),
  );
}

const NOTHING: ReadonlyMap<string, Outcomes> = new Map();

function customIn(targets: ReadonlyMap<string, Outcomes>): ReadonlyMap<string, Outcomes> {
  const found = [...targets].flatMap(([target, outcomes]) => {
    const own = [...outcomes].filter(([name]) => name === 'all' || name.startsWith('--'));
    return own.length === 0 ? [] : [[target, new Map(own)] as const];
  });
  return found.length === 0 ? NOTHING : new Map(found);
}

/** Where the first `var()` of a value begins: in a string, in an address or behind a `#` there is none. */
function variableIn(value: string): number | undefined {
  const tokens = tokenize(value);
  for (let at = 0; at < tokens.count; at++)
    if (tokens.types[at] === Token.Function && tokenText(tokens, at).toLowerCase() === 'var(')
      return tokens.starts[at];
  return undefined;
}

/** Tokens are put in, not text: `var(--n)px` with 10 is two tokens, not `10px` (CSS Variables 1 §3). */
function joined(before: string, text: string, rest: string): string {
  const left = before === '' || endsWithOneOf(before, either(SPACE, '(,/')) ? '' : '/**/';
  const right = rest === '' || startsWithOneOf(rest, either(SPACE, '),/')) ? '' : '/**/';
  return `${before}${left}${text}${right}${rest}`;
}

const CUSTOM_NAME = /--[\w\u0080-\uffff-]+/g;

function closingBracket(text: string, from: number): number | undefined {
  let depth = 1;
  for (let at = from; at < text.length; at++) {
    if (text[at] === '(') depth++;
    // Quotes and escapes could hide a bracket: such a value is left alone.
    if (hasOneOf(text[at]!, '"\'\\')) return undefined;
    if (text[at] === ')' && --depth === 0) return at;
  }
  return undefined;
}
