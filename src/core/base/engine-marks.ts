// How engine text is told wherever a value goes: by the marks that no other text has, or by one that was put around it.

/** A mark without width (U+2060, word joiner) around engine text that nothing else tells from other text. */
export const INVISIBLE_MARK = '\u2060';

/** Begin and end. `<?xml` begins nothing. */
const MARKS: readonly (readonly [begin: string, end: string])[] = [
  [INVISIBLE_MARK, INVISIBLE_MARK],
  ['{{', '}}'],
  ['{%', '%}'],
  ['<%', '%>'],
  ['<?', '?>'],
  ['${', '}'],
];

export interface Span {
  readonly start: number;
  readonly end: number;
}

/** Every stretch of engine text in a text, in order. One that never ends is none. */
export function engineSpans(text: string): Span[] {
  const found: Span[] = [];
  for (let span = nextSpan(text, 0); span !== undefined; span = nextSpan(text, span.end)) found.push(span);
  return found;
}

/** Whether a text holds engine text. */
export function holdsEngineSpan(text: string): boolean {
  return nextSpan(text, 0) !== undefined;
}

function nextSpan(text: string, from: number): Span | undefined {
  let best: Span | undefined;
  for (const [begin, end] of MARKS) {
    for (let at = text.indexOf(begin, from); at >= 0; at = text.indexOf(begin, at + 1)) {
      if (best !== undefined && at >= best.start) break;
      if (begin === '<?' && /^xml(?:[\s?]|$)/.test(text.slice(at + 2, at + 6))) continue;
      const close = text.indexOf(end, at + begin.length);
      if (close < 0) break;
      best = { start: at, end: close + end.length };
      break;
    }
  }
  return best;
}

/** An address that an engine writes leads nowhere before it has: one that begins as engine text does. */
export function holdsEngineMark(address: string): boolean {
  return MARKS.some(([begin]) => begin !== '${' && address.includes(begin));
}
