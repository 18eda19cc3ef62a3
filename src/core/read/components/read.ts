// Which files are components, and who reads them.

import { BoundedMap } from '../../base/bounded.js';
import { type ComponentKind, componentKind } from '../kinds/index.js';
import { readAstro } from './astro.js';
import { readJsx } from './jsx.js';
import type { ComponentFile } from './model.js';
import { NoCompiler } from './parsers.js';
import { readSvelte } from './svelte.js';
import { readVue } from './vue.js';

/** Where a value may begin, a tag. */
const TAG = /(?:\breturn|=>|[=(?:,]|&&|\|\|)\s*<(?:[A-Za-z]|>)/;

/** Whether a script holds markup, as far as a compiler would take it. In: its path and text. */
export function isTagged(path: string, text: string): boolean {
  return TAG.test(text) && (readComponent(path, text)?.roots.length ?? 0) > 0;
}

const files = new BoundedMap<string, ComponentFile | undefined>(500);

/** Out: `undefined` for a text that no compiler would take, or whose compiler is not there: see `componentProblem`. */
export function readComponent(path: string, text: string): ComponentFile | undefined {
  const kind = componentKind(path);
  if (kind === undefined) return undefined;
  return files.get(`${path}\0${text}`, () => {
    try {
      return inOrder(readAs(kind, path, text));
    } catch (error) {
      problems.set(path, problemIn(error));
      return undefined;
    }
  });
}

const problems = new BoundedMap<string, string>(1000);

/** What is wrong with a component that was not read, and where. In: its path. */
export function componentProblem(path: string): string {
  return problems.peek(path) ?? 'cannot be compiled';
}

/** In: what a compiler has thrown; each says in its own way where. */
function problemIn(error: unknown): string {
  if (error instanceof NoCompiler) return `needs ${error.message} installed beside Acervus`;
  const {
    message = '',
    loc,
    start,
  } = (error ?? {}) as {
    readonly message?: string;
    readonly loc?: { readonly line?: number; readonly start?: { readonly line?: number } };
    readonly start?: { readonly line?: number };
  };
  const line = loc?.line ?? loc?.start?.line ?? start?.line;
  const what = message.split(/[\r\n]/)[0]?.replace(/\s*\(\d+:\d+\)$/, '') ?? '';
  return `cannot be compiled${line === undefined ? '' : `, line ${line}`}: ${what}`;
}

function readAs(kind: ComponentKind, path: string, text: string): ComponentFile | undefined {
  switch (kind) {
    case 'jsx':
      return readJsx(path, text);
    case 'vue':
      return readVue(text);
    case 'svelte':
      return readSvelte(text);
    case 'astro':
      return readAstro(path, text);
  }
}

/** What stands in a component is found before what stands around it. */
function inOrder(file: ComponentFile | undefined): ComponentFile | undefined {
  const start = (node: ComponentFile['roots'][number]): number =>
    node.kind === 'text' ? -1 : node.tag.start;
  return file && { ...file, roots: [...file.roots].sort((a, b) => start(a) - start(b)) };
}
