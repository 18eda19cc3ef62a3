// What somebody asks the reach of: a rule by its place, a custom property, a selector, a value, or a declaration.

import { isMadeOf, LETTER } from '../../base/characters.js';
import { type ComplexSelector, compileSelectorList } from '../../cascade/index.js';
import { canonicalProperty, isKnownProperty, normalValue } from '../../read/sheets/index.js';

export type Asked =
  | {
      readonly kind: 'rule';
      readonly path: string;
      readonly line: number;
      /** Where it is not declared, all that stands on the line is meant. */
      readonly column: number | undefined;
    }
  | { readonly kind: 'custom property'; readonly name: string }
  | { readonly kind: 'selector'; readonly text: string; readonly selectors: readonly ComplexSelector[] }
  | { readonly kind: 'declaration'; readonly property: string; readonly form: string; readonly text: string }
  | { readonly kind: 'value'; readonly form: string; readonly text: string };

/**
 * In: what was typed; whether a name is that of a file of the site; sheets whose classes code asks for: what is typed may be one of
 * theirs, too. Out: `undefined` for what is none of these.
 */
export function readAsked(
  text: string,
  isFile: (path: string) => boolean,
  modules: readonly string[] = [],
): Asked | undefined {
  if (text.trim() === '') return undefined;
  const [whole, path = '', line, column] = /^(.+?):(\d+)(?::(\d+))?$/.exec(text) ?? [];
  if (whole !== undefined && isFile(path))
    return {
      kind: 'rule',
      path,
      line: Number(line),
      column: column === undefined ? undefined : Number(column),
    };
  if (/^--[\w-]+$/.test(text)) return { kind: 'custom property', name: text };
  const pair = /^([\w-]+)\s*:\s*([^:].*)$/.exec(text);
  if (pair !== null && isKnownProperty(pair[1]!.toLowerCase())) {
    const property = canonicalProperty(pair[1]!.toLowerCase());
    return { kind: 'declaration', property, form: normalValue(property, pair[2]!, ''), text };
  }
  // `#fff` is a colour, `#top` an id: three, four, six or eight hexadecimal digits are a colour.
  if (
    !/^#([0-9a-f]{3,4}|[0-9a-f]{6}|[0-9a-f]{8})$/i.test(text) &&
    !/^[-+]?\.?\d|\(|,\s/.test(text.replace(/\[.*\]|:[\w-]+\(.*\)/g, ''))
  ) {
    const list = compileSelectorList(text);
    const isElement = !isMadeOf(text, LETTER) || list.kind === 'invalid' || ELEMENTS.has(text.toLowerCase());
    if (list.kind === 'list' && isElement) {
      const inModules = text.includes('.') ? modules : [];
      const others = inModules.flatMap((sheet) => {
        const own = compileSelectorList(text, { local: { sheet, isOpen: false } });
        return own.kind === 'list' ? own.selectors : [];
      });
      return { kind: 'selector', text, selectors: [...list.selectors, ...others] };
    }
  }
  return { kind: 'value', form: valueForm(text), text };
}

/** A bare word is an element's name before it is a keyword. */
const ELEMENTS = new Set(
  (
    'html head body a abbr address article aside b blockquote button caption center cite code dd del details dfn div dl dt ' +
    'em fieldset figcaption figure font footer form h1 h2 h3 h4 h5 h6 header hr i iframe img input kbd label legend li ' +
    'main mark nav ol option p pre q s section select small span strong sub summary sup svg table tbody td textarea tfoot ' +
    'th thead tr u ul video'
  ).split(' '),
);

/** Words of a value that compare equal however they are spelled. */
export function valueForm(text: string): string {
  return normalValue('background-color', text, '');
}

/** Whether a declaration's value is, or holds, a value. */
export function holdsValue(value: string, form: string): boolean {
  if (valueForm(value) === form) return true;
  const words = value.match(/#[0-9a-f]{3,8}\b|[a-z-]+\([^()]*\)|[^\s,()/]+/gi) ?? [];
  return words.some((word) => valueForm(word) === form);
}
