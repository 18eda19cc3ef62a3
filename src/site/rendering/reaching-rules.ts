// What a scoped block says of elements of other components, as a sheet that these may have.

import { DEEP, GLOBAL, reachesOut } from '../../core/read/components/index.js';
import { parseSheet } from '../../core/read/sheets/parse.js';

/**
 * In: a block as CSS. Out: its rules for elements of other components, as strong as the framework makes them; empty where there are
 * none. They hold where such elements stand in the component, and that is not known: in a condition that nothing decides.
 */
export function reachingRules(css: string): string {
  const rules = parseSheet(css).rules.flatMap(({ nesting, conditions, declarations }) => {
    const levels = levelsOf(nesting);
    if (levels === undefined) return [];
    const said = declarations.map(
      ({ property, value, important }) => `${property}: ${value}${important ? ' !important' : ''}`,
    );
    const around = [...conditions.map(({ kind, text }) => `@${kind} ${text}`), ...levels];
    return `${around.map((one) => `${one} {`).join(' ')} ${said.join('; ')} ${'}'.repeat(around.length)}`;
  });
  return rules.length === 0 ? '' : `@media (--in-its-component) {\n${rules.join('\n')}\n}`;
}

/** The selectors of a rule and of those that it stands in, as browsers get them; `undefined` where they reach out of nothing. */
function levelsOf(lists: readonly string[]): string[] | undefined {
  let isReaching = false;
  const levels = lists.map((list, at) => {
    const all = selectorsIn(list);
    // Around what reaches out there is what is the component's own.
    const meant = isReaching ? all : all.filter(reachesOut);
    isReaching ||= meant.length > 0;
    return (meant.length === 0 ? all : meant).flatMap((one) => inFull(one, at > 0)).join(', ');
  });
  return isReaching && levels.every((one) => one !== '') ? levels : undefined;
}

/** The attribute of its own that a framework puts on an element: it matches any here, and weighs as much. */
const OWN = ':is([data-own], *)';

/** A selector as browsers get it; none for one that cannot be told. In: whether it stands in a rule. */
function inFull(selector: string, isNested: boolean): string[] {
  const isGlobal = GLOBAL.test(selector);
  const match = (isGlobal ? GLOBAL : DEEP).exec(selector);
  if (match === null) return [selector];
  const before = selector.slice(0, match.index).trim();
  const behind = selector.slice(match.index + match[0].length);
  const inner = behind.startsWith('(') ? argumentAt(behind) : undefined;
  const target = (inner === undefined ? behind : `${inner}${behind.slice(inner.length + 2)}`).trim();
  if (reachesOut(target)) return [];
  const [combinator = ''] = /[>+~]$/.exec(before) ?? [];
  const holder = before.slice(0, before.length - combinator.length).trimEnd() || (isNested ? '&' : '');
  // `:global { }`: all that stands in it.
  if (target === '' && isGlobal)
    return [holder === '' ? ':is(html, *)' : holder === '&' ? '&' : holder + OWN];
  if (target === '') return [];
  const full = `${holder}${OWN} ${combinator} ${target}`;
  if (!isGlobal) return [full];
  // Of some frameworks what stands in front counts, of others it does not.
  return holder === '' ? [target] : [target, full];
}

/** What stands between the brackets that a text begins with. */
function argumentAt(text: string): string | undefined {
  let depth = 0;
  for (let at = 0; at < text.length; at++) {
    if (text[at] === '(') depth++;
    else if (text[at] === ')' && --depth === 0) return text.slice(1, at);
  }
  return undefined;
}

/** A list of selectors, one by one. */
function selectorsIn(list: string): string[] {
  const found: string[] = [''];
  let depth = 0;
  for (const char of list) {
    if (char === '(' || char === '[') depth++;
    else if (char === ')' || char === ']') depth--;
    if (char === ',' && depth === 0) found.push('');
    else found[found.length - 1] += char;
  }
  return found.map((one) => one.trim());
}
