// Whether an element has a name that a selector asks for: id, class or attribute. Yes, no, or when a script gives it,
// takes it, or template text puts it in.

import { BoundedMap } from '../base/bounded.js';
import { attributeOf, hasTemplateText, type Page, type PageElement } from '../read/markup/index.js';
import { type AskedAttribute, isChangedByBrowser, valueMatches } from './attribute-match.js';
import type { ScriptStates } from './script-states.js';
import { DECIDING } from './static-states.js';
import { ALWAYS, NEVER, type Truth, type TruthTable } from './truth.js';

/** Operators that ask for one word or a piece of one, wherever it stands in the value. */
function isSpread(operator: string | undefined): boolean {
  return operator === '~=' || operator === '*=';
}

export interface MatcherOptions {
  /** Class names that template text is taken never to produce: names that the earlier state does not know. */
  readonly neverTemplated?: ReadonlySet<string>;
  /** What the page's scripts may make of its elements. */
  readonly scripts?: ScriptStates;
}

/** By name: put together anew, a text would be read letter by letter each time that it is looked up. */
const givenTexts = {
  class: new BoundedMap<string, string>(50_000),
  id: new BoundedMap<string, string>(50_000),
};

function givenText(attribute: 'class' | 'id', name: string): string {
  return givenTexts[attribute].get(
    name,
    () => `template text gives it ${attribute === 'class' ? '.' : '#'}${name}`,
  );
}

export class NameMatcher {
  readonly #page: Page;
  readonly #table: TruthTable;
  readonly #scripts: ScriptStates;
  readonly #neverTemplated: ReadonlySet<string> | undefined;

  /** In: `open`, the condition of that text on an element, as seen from the subject. */
  constructor(
    page: Page,
    table: TruthTable,
    scripts: ScriptStates,
    neverTemplated: ReadonlySet<string> | undefined,
    readonly open: (text: string, element: PageElement) => Truth,
  ) {
    this.#page = page;
    this.#table = table;
    this.#scripts = scripts;
    this.#neverTemplated = neverTemplated;
  }

  id(element: PageElement, id: string): Truth {
    const changes = this.#scripts.changesOf(element);
    if (this.#same(element.id, id))
      return changes.takesId(id) ? this.open(`scripts leave it #${id}`, element) : ALWAYS;
    const given = changes.givesId(id) ? this.open(`a script makes it #${id}`, element) : NEVER;
    return this.#table.or(given, this.#hidden(element, 'id', id));
  }

  class(element: PageElement, name: string): Truth {
    const has = this.#hasClass(element, name);
    if (this.#scripts.isEmpty || !this.#scripts.touchesClass(name)) {
      if (has) return ALWAYS;
      return element.templated === 'no' ? NEVER : this.#hiddenClass(element, name);
    }
    const changes = this.#scripts.changesOf(element);
    if (has) return changes.takesClass(name) ? this.open(`scripts leave it .${name}`, element) : ALWAYS;
    const given = changes.givesClass(name) ? this.open(`a script gives it .${name}`, element) : NEVER;
    return this.#table.or(given, this.#hiddenClass(element, name));
  }

  /** Where every outcome of the engine text is written out, it is one of these. */
  #hiddenClass(element: PageElement, name: string): Truth {
    const mayHave = element.engine?.mayHave;
    if (mayHave !== undefined && element.templated === 'values') {
      const isAmong = mayHave.some((one) => one === name || (this.#page.quirks && this.#same(one, name)));
      return isAmong ? this.open(givenText('class', name), element) : NEVER;
    }
    return this.#neverTemplated?.has(name) ? NEVER : this.#hidden(element, 'class', name);
  }

  #hasClass(element: PageElement, name: string): boolean {
    for (const own of element.classes)
      if (own === name || (this.#page.quirks && this.#same(own, name))) return true;
    return false;
  }

  /** In quirks mode classes and ids match without ASCII case. */
  #same(own: string | undefined, wanted: string): boolean {
    if (own === wanted) return true;
    return this.#page.quirks && own !== undefined && own.toLowerCase() === wanted.toLowerCase();
  }

  /** Template text may add what the file does not show. */
  #hidden(element: PageElement, attribute: 'class' | 'id', name: string): Truth {
    if (element.templated === 'no') return NEVER;
    const value = attributeOf(element.attributes, attribute);
    if (element.templated === 'values' && (value === undefined || !hasTemplateText(value))) return NEVER;
    return this.open(givenText(attribute, name), element);
  }

  attribute(simple: AskedAttribute, element: PageElement): Truth {
    const name = element.namespace === 'html' ? simple.name.toLowerCase() : simple.name;
    const own = attributeOf(element.attributes, name);
    const asked = `[${name}${simple.operator ?? ''}${simple.value}]`;
    if (isChangedByBrowser(element, name)) return this.open(asked, element);
    // What it is made from is part of the condition: `[class="a"]` of `a` holds at first, and of `b` it does not.
    if (!this.#scripts.isEmpty && this.#mayBeChanged(simple, name, element))
      return this.open(`${asked} from ${this.#startOf(simple, name, element)}`, element);
    if (own === undefined || (element.templated !== 'no' && hasTemplateText(own))) {
      if (element.templated === 'tag' || own !== undefined)
        return this.open(`template text makes it match ${asked}`, element);
      return NEVER;
    }
    return valueMatches(simple, element, own) ? ALWAYS : NEVER;
  }

  /** What the file says of what an attribute selector asks. */
  #startOf({ operator, value }: AskedAttribute, name: string, element: PageElement): string {
    const own = attributeOf(element.attributes, name);
    if (own === undefined || operator === undefined) return own === undefined ? 'nothing' : 'something';
    // Of one word or piece, the other words of a class declare nothing.
    if (name !== 'class' || !isSpread(operator)) return `"${own}"`;
    return `"${element.classes.filter((one) => (operator === '~=' ? one === value : one.includes(value))).join(' ')}"`;
  }

  /** Whether scripts affect what an attribute selector asks. */
  #mayBeChanged({ operator, value }: AskedAttribute, name: string, element: PageElement): boolean {
    const changes = this.#scripts.changesOf(element);
    if (name === 'id')
      return changes.givesId(value) || (element.id !== undefined && changes.takesId(element.id));
    if (name !== 'class') return changes.attribute(name);
    const isMeant = (one: string): boolean =>
      operator === '~=' ? one === value : operator !== '*=' || one.includes(value);
    if (isSpread(operator) && element.classes.some((one) => isMeant(one) && !changes.takesClass(one)))
      return false;
    return (
      changes.givesClassLike(isMeant) ||
      element.classes.some((one) => isMeant(one) && changes.takesClass(one))
    );
  }

  /** Whether scripts set an attribute that a state like `:disabled` goes by, here or above. */
  isSetByScript(state: string, element: PageElement): boolean {
    if (this.#scripts.isEmpty) return false;
    const attributes = DECIDING[state] ?? [];
    for (let at: PageElement | undefined = element; at !== undefined; at = this.#page.elements[at.parent]) {
      const changes = this.#scripts.changesOf(at);
      if (attributes.some((one) => changes.attribute(one))) return true;
    }
    return false;
  }
}
