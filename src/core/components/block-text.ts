// Style blocks in the language of a preprocessor, as its own compiler makes them.

import { parserNamed } from './parsers.js';

interface Sass {
  readonly compileString: (text: string, options: object) => { readonly css: string };
  readonly Logger: { readonly silent: unknown };
}

/** Out: `undefined` for another language, and for what needs something that stands in other files. */
export function compiledBlock(text: string, lang: string): string | undefined {
  if (lang !== 'scss' && lang !== 'sass') return undefined;
  const sass = parserNamed('sass') as Sass | undefined;
  try {
    return sass?.compileString(text, {
      syntax: lang === 'sass' ? 'indented' : 'scss',
      charset: false,
      logger: sass.Logger.silent,
      quietDeps: true,
    }).css;
  } catch {
    return undefined;
  }
}
