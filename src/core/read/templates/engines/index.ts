// Every template engine that is read. One more is a file beside this one, an entry here, and a test.

import { blade } from './blade.js';
import type { TemplateEngine } from './engine.js';
import { erb } from './erb.js';
import { handlebars } from './handlebars.js';
import { interpolation } from './interpolation.js';
import { jinja } from './jinja.js';
import { jsp } from './jsp.js';
import { pandoc } from './pandoc.js';
import { php } from './php.js';
import { razor } from './razor.js';
import { smarty } from './smarty.js';
import { tagLibrary } from './tag-library.js';

/** In the order in which they are asked. */
export const ENGINES: readonly TemplateEngine[] = [
  handlebars,
  jinja,
  blade,
  erb,
  jsp,
  php,
  interpolation,
  smarty,
  razor,
  tagLibrary,
  pandoc,
];

/** Endings of templates, without the first dot. */
export const TEMPLATE_ENDINGS: readonly string[] = ENGINES.flatMap(({ endings }) => endings);

/** Endings of what only a build reads as templates. */
export const BUILD_ENDINGS: readonly string[] = ENGINES.flatMap(({ buildEndings }) => buildEndings ?? []);

/** The engine that the ending of a file tells, the longest ending first: `.blade.php` before `.php`. */
export function engineOf(path: string): TemplateEngine | undefined {
  const file = path.toLowerCase();
  let best: { readonly engine: TemplateEngine; readonly length: number } | undefined;
  for (const engine of ENGINES)
    for (const ending of engine.endings)
      if (file.endsWith(`.${ending}`) && ending.length > (best?.length ?? 0))
        best = { engine, length: ending.length };
  return best?.engine;
}

/** Whether a value of an attribute, marked as engine text, makes a branch or ends one. */
export function beginsBranch(text: string): boolean {
  return ENGINES.some((engine) => engine.beginsBranch?.(text) === true);
}

/** Begin and end of the comments of all engines, longest first where one begins like another. */
export const COMMENTS: readonly (readonly [begin: string, end: string])[] = ENGINES.flatMap(
  ({ comments }) => comments,
).sort((a, b) => b[0].length - a[0].length);
