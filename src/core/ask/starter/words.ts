// Short words that call up a part or a shared style in an editor.

import { inOneLine } from '../../base/phrases.js';
import { isVoid } from '../../base/void-elements.js';
import type { SiteModel } from '../../cascade/index.js';
import type { StarterRule } from './choose.js';
import { ruleText } from './sheet.js';

/** In the JSON form that several editors read. */
export interface Snippet {
  readonly prefix: string;
  readonly scope: 'css' | 'html';
  readonly body: readonly string[];
  readonly description: string;
}

/** By name: each part of the sheet, and each shared style as a tag that has it. Every word stands once. */
export function snippetsOf(
  model: SiteModel,
  parts: ReadonlyMap<string, string>,
  rules: readonly StarterRule[],
): Map<string, Snippet> {
  const found = new Map<string, Snippet>();
  const used = new Set<string>();
  for (const [part, text] of parts)
    found.set(`part: ${part}`, {
      prefix: wordFor(`house-${part}`, used),
      scope: 'css',
      body: escaped(text.trimEnd()).split('\n'),
      description: `The ${part} of the house sheet`,
    });
  const names = [...new Set(rules.flatMap(({ names: own }) => own))]
    .filter((name) => name.startsWith('.'))
    .sort();
  const tags = tagsOf(model, new Set(names));
  for (const name of names) {
    const own = rules.filter((rule) => rule.names.includes(name));
    const tag = tags.get(name) ?? 'div';
    const open = `<${tag} class="${escaped(name.slice(1))}">`;
    found.set(name, {
      prefix: wordFor(name.slice(1), used),
      scope: 'html',
      body: [isVoid(tag) ? open : `${open}$0</${tag}>`],
      description: inOneLine(ruleText(own[0]!)),
    });
  }
  return found;
}

/** A snippet's own signs stand for themselves. */
function escaped(text: string): string {
  return text.replace(/[\\$]/g, '\\$&');
}

/** The first letters of a name; more of its last word as long as another has them. */
function wordFor(name: string, used: Set<string>): string {
  const words = name
    .toLowerCase()
    .split(/[-_]+|(?<=[a-z])(?=[A-Z])/)
    .filter((one) => one !== '');
  const last = words.pop() ?? 'x';
  const front = words.map((one) => one[0]).join('');
  const wanted = Array.from({ length: last.length }, (_, at) => front + last.slice(0, at + 1));
  const long = [...wanted, name.toLowerCase()];
  let word = long.find((one) => one.length > 1 && !used.has(one));
  for (let number = 2; word === undefined; number++)
    if (!used.has(`${name.toLowerCase()}${number}`)) word = `${name.toLowerCase()}${number}`;
  used.add(word);
  return word;
}

/** The type of element that has a class most often. */
function tagsOf(model: SiteModel, names: ReadonlySet<string>): Map<string, string> {
  const counts = new Map<string, Map<string, number>>();
  for (const page of model.pages)
    for (const { name: tag, classes } of page.elements)
      for (const one of classes) {
        if (!names.has(`.${one}`)) continue;
        const own = counts.get(`.${one}`) ?? new Map<string, number>();
        counts.set(`.${one}`, own.set(tag, (own.get(tag) ?? 0) + 1));
      }
  return new Map(
    [...counts].map(([name, own]) => [name, [...own].reduce((a, b) => (b[1] > a[1] ? b : a))[0]]),
  );
}
