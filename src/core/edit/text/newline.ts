// The line ends of a text: what is added has those that are there.

/** The first line end of a text; LF where it has none. */
export function newline(text: string): string {
  return /\r\n|\n|\r/.exec(text)?.[0] ?? '\n';
}
