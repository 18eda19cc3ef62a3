// Questions about text that are answered character by character: what it is made of, how it begins and ends.
// Characters are UTF-16 units, as in the standard's tokenizers; a set of them is a string that lists them, or a test.

/** A set of characters: all that stand in the string, or all that the function takes. */
export type Characters = string | ((character: string) => boolean);

export const DIGIT: Characters = (one) => one >= '0' && one <= '9';
export const LOWER: Characters = (one) => one >= 'a' && one <= 'z';
export const UPPER: Characters = (one) => one >= 'A' && one <= 'Z';
export const LETTER: Characters = either(LOWER, UPPER);
/** What a programming language takes for a word: letters, digits, underscore. */
export const WORD: Characters = either(LETTER, DIGIT, '_');
/** What the names of classes, properties and files are made of, where they need no escape. */
export const NAME: Characters = either(WORD, '-');
/** All white space that JavaScript knows, which is more than CSS and HTML know. */
export const SPACE: Characters = (one) => one.trim() === '';

/** White space as CSS and HTML know it: no-break space and vertical tab are none. */
export const CSS_SPACE: Characters = ' \t\n\r\f';

/** Whether the character is in the set; none (past the end of a text) is in no set. */
export function isIn(character: string | undefined, set: Characters): boolean {
  if (character === undefined || character === '') return false;
  return typeof set === 'string' ? set.includes(character) : set(character);
}

export function either(...sets: readonly Characters[]): Characters {
  return (one) => sets.some((set) => isIn(one, set));
}

export function not(set: Characters): Characters {
  return (one) => !isIn(one, set);
}

/** Whether there is text, and all of it is of the set. */
export function isMadeOf(text: string, set: Characters): boolean {
  return text !== '' && endOfRun(text, 0, set) === text.length;
}

export function hasOneOf(text: string, set: Characters): boolean {
  return endOfRun(text, 0, not(set)) < text.length;
}

export function startsWithOneOf(text: string, set: Characters): boolean {
  return isIn(text[0], set);
}

export function endsWithOneOf(text: string, set: Characters): boolean {
  return isIn(text[text.length - 1], set);
}

/** Where the characters of the set that begin at `start` end: `start` itself if there are none. */
export function endOfRun(text: string, start: number, set: Characters): number {
  let at = start;
  while (at < text.length && isIn(text[at], set)) at++;
  return at;
}

/** Where the characters of the set that end before `end` begin: `end` itself if there are none. */
export function startOfRun(text: string, end: number, set: Characters): number {
  let at = end;
  while (at > 0 && isIn(text[at - 1], set)) at--;
  return at;
}

/** The text without the characters of the set at its beginning. */
export function trimmedBefore(text: string, set: Characters): string {
  return text.slice(endOfRun(text, 0, set));
}

/** The text without the characters of the set at its end. */
export function trimmedAfter(text: string, set: Characters): string {
  return text.slice(0, startOfRun(text, text.length, set));
}

/** The text without the characters of the set at both ends. */
export function trimmed(text: string, set: Characters): string {
  return trimmedAfter(trimmedBefore(text, set), set);
}

/** The text without any character of the set. */
export function without(text: string, set: Characters): string {
  return Array.from({ length: text.length }, (_, at) => text[at]!)
    .filter((one) => !isIn(one, set))
    .join('');
}

/** A name of plain letters, digits, hyphens and underscores that begins with a letter or an underscore. */
export function isPlainName(text: string): boolean {
  return startsWithOneOf(text, either(LETTER, '_')) && isMadeOf(text, NAME);
}
