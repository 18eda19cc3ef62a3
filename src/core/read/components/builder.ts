// Facts about one element, put together.

import { INVISIBLE_MARK } from '../../base/engine-marks.js';
import { wordsOf } from '../../base/phrases.js';
import type { SourceRange } from '../../base/source.js';
import { isVoid } from '../../base/void-elements.js';
import type { EngineTag } from '../templates/index.js';
import { both, type Classes } from './expression.js';
import type { ComponentElement, ComponentNode, WrittenAttribute } from './model.js';
import { OwnStyle } from './own-style.js';
import { unwritten } from './unwritten.js';

export class ElementFacts {
  readonly attributes: WrittenAttribute[] = [];
  readonly children: ComponentNode[] = [];
  /** What gives it classes besides what the class attribute writes out. */
  readonly classes: Classes[] = [];
  /** Attributes may be there that nobody can read. */
  prints = false;
  isOpen = false;
  readonly style = new OwnStyle();

  /** An attribute whose value is written out. */
  literal(name: string, value: string, range: SourceRange): void {
    if (name === 'style') this.style.write(value, range);
    else this.attributes.push({ name, value, range });
  }

  /** An attribute whose value is an expression. */
  computed(name: string, code: string, range: SourceRange): void {
    if (name === 'style') this.style.add(unwritten(code), range);
    else this.attributes.push({ name, value: unwritten(code), range });
  }

  /** In: the name; the text of the file; where the element and its start tag are. */
  element(
    name: string,
    namespace: ComponentElement['namespace'],
    text: string,
    whole: SourceRange,
    tagEnd: number,
  ): ComponentElement {
    const style = this.style.text;
    if (style !== undefined) this.attributes.push({ name: 'style', value: style.value, range: style.range });
    const isAlone = text[tagEnd - 2] === '/' || (namespace === 'html' && isVoid(name));
    const endTag = isAlone ? -1 : text.lastIndexOf('</', whole.end - 1);
    return {
      kind: 'element',
      name,
      namespace,
      attributes: this.attributes,
      tag: { start: whole.start, end: tagEnd },
      endTag: endTag >= tagEnd ? endTag : -1,
      end: whole.end,
      children: this.children,
      isOpen: this.isOpen,
      engine: this.#engine(),
      styleObject: style?.object,
      styleLength: style?.length,
    };
  }

  #engine(): EngineTag | undefined {
    const isWritten = !this.prints && this.classes.length === 0;
    if (isWritten && !this.attributes.some(({ value }) => value.includes(INVISIBLE_MARK))) return undefined;
    const own = this.attributes.find(({ name }) => name === 'class')?.value ?? '';
    const written = own.includes(INVISIBLE_MARK) ? [] : wordsOf(own);
    const { sure, mayHave, isOpen } = both(this.classes);
    const classes = [...new Set([...written, ...sure])];
    const isAny = isOpen || this.prints;
    return {
      sometimes: new Set(),
      prints: this.prints,
      classes,
      mayHave: isAny ? undefined : mayHave.filter((word) => !classes.includes(word)),
    };
  }
}

/** Behind the start tag that an element begins with. In: where its last attribute, or else its name, ends. */
export function tagEndAt(text: string, from: number): number {
  const end = text.indexOf('>', from);
  return end < 0 ? text.length : end + 1;
}
