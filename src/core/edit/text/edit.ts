// Edits by offset on the original text: every byte outside them stays.

/** Replaces the text from `start` to `end` (UTF-16 offsets in the original) by `text`. */
export interface Edit {
  readonly start: number;
  readonly end: number;
  readonly text: string;
}

/** Applies edits that do not overlap, in any order. Two at one place keep their given order. */
export function applyEdits(text: string, edits: readonly Edit[]): string {
  let result = '';
  let at = 0;
  for (const edit of inOrder(edits)) {
    if (edit.start < at || edit.end < edit.start || edit.end > text.length) {
      throw new RangeError(`edits overlap or leave the text at offset ${edit.start}`);
    }
    result += text.slice(at, edit.start) + edit.text;
    at = edit.end;
  }
  return result + text.slice(at);
}

/** The edits that turn the edited text back: offsets are those of the edited text. */
export function reverseEdits(text: string, edits: readonly Edit[]): Edit[] {
  let shift = 0;
  return inOrder(edits).map((edit) => {
    const start = edit.start + shift;
    shift += edit.text.length - (edit.end - edit.start);
    return { start, end: start + edit.text.length, text: text.slice(edit.start, edit.end) };
  });
}

/** What two edits both take out is taken out once: two rules may each take the empty line between them. */
function inOrder(edits: readonly Edit[]): Edit[] {
  const sorted = [...edits].sort((a, b) => a.start - b.start || a.end - b.end);
  const joined: Edit[] = [];
  for (const edit of sorted) {
    const last = joined.at(-1);
    if (
      last !== undefined &&
      edit.start < last.end &&
      last.text === '' &&
      edit.text === '' &&
      edit.end > edit.start
    )
      joined[joined.length - 1] = { start: last.start, end: Math.max(last.end, edit.end), text: '' };
    else joined.push(edit);
  }
  return joined;
}

/**
 * One list of edits for two that follow each other.
 * In: the original text; edits on it; edits on what they lead to. Out: edits on the original with the same result.
 */
export function composeEdits(text: string, first: readonly Edit[], second: readonly Edit[]): Edit[] {
  // Pieces of the text between the two: kept ones know where they come from.
  const pieces: { start: number; text: string; from: number | undefined }[] = [];
  let at = 0;
  let length = 0;
  const keep = (end: number): void => {
    if (end > at) pieces.push({ start: length, text: text.slice(at, end), from: at });
    length += end - at;
  };
  for (const edit of inOrder(first)) {
    keep(edit.start);
    if (edit.text !== '') pieces.push({ start: length, text: edit.text, from: undefined });
    length += edit.text.length;
    at = edit.end;
  }
  keep(text.length);
  const result: Edit[] = [];
  let done = 0;
  let pending = '';
  const takeKept = (from: number, to: number): void => {
    if (pending !== '' || from > done) result.push({ start: done, end: from, text: pending });
    pending = '';
    done = to;
  };
  const copy = (from: number, to: number): void => {
    for (const piece of pieces) {
      const start = Math.max(from, piece.start);
      const end = Math.min(to, piece.start + piece.text.length);
      if (start >= end) continue;
      const offset = start - piece.start;
      if (piece.from === undefined) pending += piece.text.slice(offset, end - piece.start);
      else takeKept(piece.from + offset, piece.from + end - piece.start);
    }
  };
  let place = 0;
  for (const edit of inOrder(second)) {
    copy(place, edit.start);
    pending += edit.text;
    place = edit.end;
  }
  copy(place, length);
  if (pending !== '' || done < text.length) result.push({ start: done, end: text.length, text: pending });
  return result;
}

/** Where an offset in the edited text stands in the original; inside inserted text, where that was put. */
export function originalOffset(edits: readonly Edit[], offset: number): number {
  let shift = 0;
  for (const edit of inOrder(edits)) {
    const start = edit.start + shift;
    if (offset < start) break;
    if (offset < start + edit.text.length) return edit.start;
    shift += edit.text.length - (edit.end - edit.start);
  }
  return offset - shift;
}
