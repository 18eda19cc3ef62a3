// Template text of the common families inside markup: never touched, and what it may produce is unknown.

import { engineSpans, holdsEngineSpan, INVISIBLE_MARK } from '../../base/engine-marks.js';

/** The text with every piece of template text written over by letters, so that offsets stay. */
export function maskTemplateText(text: string): string {
  let masked = '';
  let at = 0;
  for (const { start, end } of engineSpans(text)) {
    masked += text.slice(at, start) + 'x'.repeat(end - start);
    at = end;
  }
  return masked + text.slice(at);
}

/** Whether a text contains `{{ }}`, `{% %}`, `<% %>`, `<?php ?>` or `${ }`. */
export function hasTemplateText(text: string): boolean {
  return (text.includes('{') || text.includes('<') || text.includes(INVISIBLE_MARK)) && holdsEngineSpan(text);
}

/** The words inside template text: what it may produce could be made of them. */
export function templateWords(text: string): string[] {
  return engineSpans(text).flatMap(
    ({ start, end }) => text.slice(start, end).match(/[\p{L}\p{N}_-]+/gu) ?? [],
  );
}
