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

function inOrder(edits: readonly Edit[]): Edit[] {
  return [...edits].sort((a, b) => a.start - b.start || a.end - b.end);
}
