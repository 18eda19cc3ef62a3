// `${fare}`: what template strings of scripts, FreeMarker, Mako and others print.

import { type EngineSource, type FoundPiece, type TemplateEngine, words } from './engine.js';
import { jinja } from './jinja.js';

/** It ends on its line. */
function read({ text }: EngineSource, start: number): FoundPiece | undefined {
  for (let at = start + 2; at < text.length && text[at] !== '\n'; at++)
    if (text[at] === '}')
      return { start, end: at + 1, role: 'none', prints: true, code: text.slice(start + 2, at) };
  return undefined;
}

export const interpolation: TemplateEngine = {
  name: 'interpolation',
  endings: [],
  marks: [{ open: '${', close: '}', read }],
  comments: [],
  always: words(''),
  names: jinja.names,
  wraps: () => undefined,
  looksFromTop: false,
  isServedInPlace: false,
};
