// What is not written out in a value: see `markup/template-text.ts`.

export const UNSEEN = '\u2060';

export function unwritten(code: string): string {
  return `${UNSEEN}${code}${UNSEEN}`;
}
