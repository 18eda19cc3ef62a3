// Text that a site or a person wrote, made fit for a terminal and a shell.

import { either, isMadeOf, WORD } from './characters.js';
import { INVISIBLE_MARK } from './engine-marks.js';

/** Text from a site, with nothing in it that a terminal would obey. */
export function clean(text: string): string {
  return text
    .replaceAll(INVISIBLE_MARK, '')
    .replace(/[\u0000-\u001f\u007f-\u009f\u200e\u200f\u202a-\u202e\u2066-\u2069]+/g, ' ');
}

/** A word for a shell to take as it is, whatever a site wrote into it. */
export function quoted(word: string): string {
  return `'${clean(word).replaceAll("'", "'\\''")}'`;
}

/** A word as a person types it: quoted only where a shell would make something else of it. */
export function asTyped(word: string): string {
  return isMadeOf(word, either(WORD, './:=-')) ? word : quoted(word);
}
