// Style blocks and scripts: what engines whose marks are plain letters leave alone there.

export interface RawRanges {
  /** Whether an offset stands inside one. */
  holds(offset: number): boolean;
}

export function rawRanges(text: string): RawRanges {
  const ranges: (readonly [start: number, end: number])[] = [];
  for (const { 0: tag, 1: name, index } of text.matchAll(/<(script|style)\b/gi)) {
    if (index < (ranges.at(-1)?.[1] ?? 0)) continue;
    const end = endOf(text, name!.toLowerCase(), index + tag.length);
    if (end !== undefined) ranges.push([index, end]);
  }
  return { holds: (offset) => ranges.some(([start, end]) => start < offset && offset < end) };
}

function endOf(text: string, name: string, from: number): number | undefined {
  for (let at = text.indexOf('</', from); at >= 0; at = text.indexOf('</', at + 2)) {
    const end = at + 2 + name.length;
    if (text.slice(at + 2, end).toLowerCase() === name) return end;
  }
  return undefined;
}
