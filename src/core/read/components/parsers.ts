// The parsers of the frameworks' own compilers. Each is loaded when the first file of its kind is read.

import { createRequire } from 'node:module';

const load = createRequire(import.meta.url);
const loaded = new Map<string, unknown>();

/** A package that reads one kind of component; `undefined` where it is not installed beside us. */
export function parserNamed(name: string): unknown {
  if (!loaded.has(name)) {
    let found: unknown;
    try {
      found = load(name);
    } catch {
      // Said by the survey, by the ending of the files.
      found = undefined;
    }
    loaded.set(name, found);
  }
  return loaded.get(name);
}

/** A compiler that is not installed; its name is the message. */
export class NoCompiler extends Error {}

/** Throws `NoCompiler`. */
export function compilerNamed(name: string): unknown {
  const found = parserNamed(name);
  if (found === undefined) throw new NoCompiler(name);
  return found;
}
