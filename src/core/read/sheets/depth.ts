// How deep brackets are nested: what nobody writes, and no recursion survives, is not decided.

/** Far beyond what is written, far below what overflows a stack. */
export const DEEPEST = 400;

/** Whether brackets of any kind stand in each other more than `DEEPEST` deep. Those in strings count too. */
export function isTooDeep(text: string): boolean {
  if (text.length <= DEEPEST) return false;
  let depth = 0;
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    // ( [ {
    if (code === 40 || code === 91 || code === 123) {
      if (++depth > DEEPEST) return true;
    } else if ((code === 41 || code === 93 || code === 125) && depth > 0) depth--;
  }
  return false;
}
