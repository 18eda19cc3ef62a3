// Questions about text that are answered by comparing pieces of it, and the few ways in which text is put in order.

export function startsWithAny(text: string, starts: readonly string[]): boolean {
  return starts.some((one) => text.startsWith(one));
}

export function endsWithAny(text: string, ends: readonly string[]): boolean {
  return ends.some((one) => text.endsWith(one));
}

export function includesAny(text: string, pieces: readonly string[]): boolean {
  return pieces.some((one) => text.includes(one));
}

/** The text without these characters at its beginning, if it begins with them. */
export function withoutStart(text: string, start: string): string {
  return text.startsWith(start) ? text.slice(start.length) : text;
}

/** The text without these characters at its end, if it ends with them. */
export function withoutEnd(text: string, end: string): string {
  return end !== '' && text.endsWith(end) ? text.slice(0, -end.length) : text;
}

/** The words of a text that spaces divide; none of an empty one. */
export function wordsOf(text: string): string[] {
  return text.split(/\s+/).filter((word) => word !== '');
}

/** The lines of a text, by whatever ends them. */
export function linesOf(text: string): string[] {
  return text.split(/\r\n|\n|\r/);
}

/** Every run of white space as one space. */
export function withSingleSpaces(text: string): string {
  return text.replace(/\s+/g, ' ');
}

/** The text in one line, without space around it. */
export function inOneLine(text: string): string {
  return withSingleSpaces(text).trim();
}
