// What a scoped block says of elements of other components: `.card :deep(.fare)`, `:global(.late)`, and how older versions write it.

import { generate, parse, walk } from 'css-tree/dist/csstree.esm';

const DEEP = /\s*(?:::v-deep|:deep|>>>|\/deep\/)\s*/;
const REACHES = /:deep\b|::v-deep|>>>|\/deep\/|:global\(/;

/** Whether a block says anything of elements of other components, as far as its text tells. */
export function reachesOut(css: string): boolean {
  return REACHES.test(css);
}

/**
 * In: a block as CSS. Out: its rules for elements of other components, as strong as the framework makes them. They hold where such
 * elements stand in the component, and that is not known: in a condition that nothing decides.
 */
export function reachingRules(css: string): string {
  let tree: ReturnType<typeof parse>;
  try {
    tree = parse(css, { parseRulePrelude: false, parseValue: false });
  } catch {
    return '';
  }
  let found = 0;
  walk(tree, (node, item, list) => {
    // What has a name is there already, and holds for all.
    if (node.type === 'Atrule' && !/^(media|supports|container|layer|scope)$/i.test(node.name))
      list?.remove(item);
    if (node.type !== 'Rule' || node.prelude.type !== 'Raw') return;
    const reaching = selectorsIn(node.prelude.value).flatMap((one) => (reachesOut(one) ? inFull(one) : []));
    found += reaching.length;
    if (reaching.length > 0) node.prelude.value = reaching.join(', ');
    // Rules in rules are kept with what they stand in.
    else if (generate(node.block).lastIndexOf('{') === 0) list?.remove(item);
  });
  return found === 0 ? '' : `@media (--in-its-component) {${generate(tree)}}`;
}

/** The attribute of its own that a framework puts on an element: it matches any here, and weighs as much. */
const OWN = ':is([data-own], *)';

/** A selector as browsers get it; none for one that cannot be told. */
function inFull(selector: string): string[] {
  const global = selector.indexOf(':global(');
  if (global >= 0) {
    const inner = argumentAt(selector, global + ':global'.length);
    if (inner === undefined) return [];
    const before = selector.slice(0, global).trimEnd();
    const rest = selector.slice(global + ':global()'.length + inner.length);
    // Of some frameworks what stands in front counts, of others it does not.
    return reachesOut(rest)
      ? []
      : [`${inner}${rest}`, ...(before === '' ? [] : [`${before}${OWN} ${inner}${rest}`])];
  }
  const [match] = DEEP.exec(selector) ?? [''];
  const at = selector.indexOf(match);
  const before = selector.slice(0, at).trim();
  const behind = selector.slice(at + match.length);
  const inner = behind.startsWith('(') ? argumentAt(behind, 0) : undefined;
  const target = inner === undefined ? behind : `${inner}${behind.slice(inner.length + 2)}`;
  if (target.trim() === '' || reachesOut(target)) return [];
  const [combinator = ''] = /[>+~]$/.exec(before) ?? [];
  const holder = before.slice(0, before.length - combinator.length).trimEnd();
  return [`${holder}${OWN} ${combinator} ${target.trim()}`];
}

/** What stands between the brackets that open at an offset. */
function argumentAt(text: string, open: number): string | undefined {
  let depth = 0;
  for (let at = open; at < text.length; at++) {
    if (text[at] === '(') depth++;
    else if (text[at] === ')' && --depth === 0) return text.slice(open + 1, at);
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
