// What changes from build to build: times, digests, random names. It is told by two builds of the same sources, and set aside
// where it does not mention classes and styles.

import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { diffArrays } from 'diff';
import { isBuiltPage } from '../../core/read/kinds/index.js';
import { withoutMarks } from '../../core/read/markup/index.js';
import { openFolder } from '../files/files.js';

/** Tokens: where two builds are as different as that, they are two pages. */
const MOST = 2000;

/**
 * Gives the pages of a build what those of the first one have wherever two builds of the same sources differ.
 * In: the folders of the first build, of the same sources built once more, and of the one to settle. Out: how many pages were settled.
 */
export function settleUnsteady(first: string, again: string, folder: string): number {
  let count = 0;
  for (const file of openFolder(folder).list()) {
    if (!isBuiltPage(file)) continue;
    const [before, other, after] = [first, again, folder].map((one) => read(path.join(one, file)));
    if (before === undefined || other === undefined || after === undefined || before === after) continue;
    const steady = withoutMarks(other);
    if (steady === before) continue;
    const settled = settledText(before, steady, after);
    if (settled === undefined || settled === after) continue;
    writeFileSync(path.join(folder, file), settled, 'latin1');
    count++;
  }
  return count;
}

/**
 * In: a text, what another build made of the same, and the text to settle. Out: the last with what is unsteady as in the first;
 * `undefined` where the two are too different.
 */
export function settledText(before: string, other: string, after: string): string | undefined {
  const own = tokensOf(before);
  const unsteady = new Set<number>();
  const first = diffArrays(own, tokensOf(other), { maxEditLength: MOST });
  if (first === undefined) return undefined;
  let at = 0;
  for (const { added, removed, count = 0 } of first) {
    if (removed) for (let token = at; token < at + count; token++) unsteady.add(token);
    if (!added) at += count;
  }
  for (const token of unsteady) if (isOfStyle(own, token)) unsteady.delete(token);
  const second = diffArrays(own, tokensOf(after), { maxEditLength: MOST });
  if (second === undefined) return undefined;
  const result: string[] = [];
  at = 0;
  for (const [number, { added, removed, count = 0, value }] of second.entries()) {
    if (removed) {
      const isUnsteady = Array.from({ length: count }, (_, offset) => at + offset).every((one) =>
        unsteady.has(one),
      );
      if (isUnsteady) result.push(...value);
      at += count;
      const next = second[number + 1];
      if (isUnsteady && next?.added === true) next.value = [];
    } else {
      result.push(...value);
      if (!added) at += count;
    }
  }
  return result.join('');
}

function tokensOf(text: string): string[] {
  return text.split(/(?<=[\s"'<>=;,])|(?=[\s"'<>=;,])/);
}

/** Whether a token stands in a class, an id or a style: what that says decides how an element looks. */
function isOfStyle(tokens: readonly string[], at: number): boolean {
  const before = tokens.slice(Math.max(0, at - 200), at).join('');
  return (
    /\b(?:class|id|style)\s*=\s*(?:"[^"]*|'[^']*|[^\s"'>]*)$/i.test(before) ||
    /<style[^>]*>(?:(?!<\/style)[\s\S])*$/i.test(before)
  );
}

function read(file: string): string | undefined {
  try {
    // Letters of any encoding come back as they were.
    return readFileSync(file, 'latin1');
  } catch {
    return undefined;
  }
}
