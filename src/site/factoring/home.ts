// Where sets of declarations are defined, and how those who ask for them come by them.

import path from 'node:path';
import { commonFolder } from '../../core/base/addresses.js';
import { withoutEnd } from '../../core/base/phrases.js';
import type { FoundMixin, Run } from '../../core/edit/factor/index.js';
import { type Edit, indentUnit, newlineOf } from '../../core/edit/text/index.js';
import type { SheetImports } from './imports.js';

/** A file of the house for such, which most that ask take in already; else one that is to come. */
export function homeOf(
  mixins: readonly FoundMixin[],
  imports: SheetImports,
  isOwn: (file: string) => boolean,
): string {
  const asking = [...new Set(mixins.flatMap(({ places }) => places.map(fileOf)))];
  const seen = new Map<string, number>();
  for (const one of asking)
    for (const file of imports.reachedFrom(one))
      if (path.posix.basename(file).toLowerCase().includes('mixin') && isOwn(file) && imports.sees(one, file))
        seen.set(file, (seen.get(file) ?? 0) + 1);
  const known = [...seen].filter(([file, count]) => count * 2 >= asking.length && !asking.includes(file));
  const [house] = known.sort(
    ([a, many], [b, more]) => more - many || a.length - b.length || (a < b ? -1 : 1),
  );
  if (house !== undefined) return house[0];
  const folder = commonFolder(asking);
  const name = ['_mixins.scss', '_shared-mixins.scss', '_house-mixins.scss']
    .map((one) => path.posix.join(folder, one))
    .find((one) => imports.text(one) === '' && imports.text(one.replace('/_', '/')) === '');
  return name ?? path.posix.join(folder, '_more-mixins.scss');
}

export function fileOf([first]: Run): string {
  return first!.file;
}

/** The text that defines them, behind what is there. */
export function definitions(mixins: readonly FoundMixin[], before: string): string {
  const eol = newlineOf(before);
  const unit = before.trim() === '' ? '  ' : indentUnit(before);
  const blocks = mixins.map(
    ({ name, declarations }) =>
      `@mixin ${name} {${eol}${declarations.map((one) => `${unit}${one};${eol}`).join('')}}${eol}`,
  );
  const lead = before === '' ? '' : before.endsWith('\n') ? eol : eol + eol;
  return `${lead}${blocks.join(eol)}`;
}

/** How a file of modules calls what it takes in: what stands in front of the name. */
export function prefixIn(file: string, home: string, imports: SheetImports): string {
  if (!imports.isOfModules(file)) return '';
  const called = imports.of(file).find((one) => one.file === home && one.kind === 'use')?.called;
  if (called === '*') return '';
  return `${called ?? freeCall(file, home, imports)}.`;
}

function freeCall(file: string, home: string, imports: SheetImports): string {
  const own = path.posix.basename(home).replace(/^_|\.\w+$/g, '');
  const isTaken = imports.of(file).some(({ called }) => called === own);
  return isTaken ? `house-${own}` : own;
}

/** The line that takes a file in: as the others of that file, behind them. In: where it must stand in front of. */
export function importLine(file: string, home: string, imports: SheetImports, front?: number): Edit {
  const text = imports.text(file);
  const lines = imports.of(file);
  const quote = lines.length > 0 && text.includes('"') && !/@(?:import|use)\s+'/.test(text) ? '"' : "'";
  const relative = withoutEnd(
    path.posix.relative(path.posix.dirname(file), home).replace(/(^|\/)_(?=[^/]*$)/, '$1'),
    '.scss',
  );
  const hasDots = lines.some(({ name }) => name.startsWith('./'));
  const written = `${quote}${hasDots && !relative.startsWith('.') ? './' : ''}${relative}${quote}`;
  const isModular = imports.isOfModules(file);
  const called = isModular ? freeCall(file, home, imports) : '';
  const own = path.posix.basename(relative);
  const line = isModular ? `@use ${written}${called === own ? '' : ` as ${called}`};` : `@import ${written};`;
  const eol = newlineOf(text);
  if (front !== undefined) return { start: front, end: front, text: `${line}${eol}` };
  const last = lines.findLast(({ kind }) => (isModular ? kind !== 'import' : true));
  if (last !== undefined) return { start: last.range.end, end: last.range.end, text: `${eol}${line}` };
  const top = /^(?:\s*(?:\/\/[^\n]*\n|\/\*[\s\S]*?\*\/\s*|@charset[^;]*;\s*))*/.exec(text)![0].length;
  return { start: top, end: top, text: `${line}${eol}${eol}` };
}
