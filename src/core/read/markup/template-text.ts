// Template text of the common families inside markup: never touched, and what it may produce is unknown.

/** A mark without width (U+2060, word joiner) around engine text that nothing else tells from other text. */
export const UNSEEN = '\u2060';

export const TEMPLATE_TEXT =
  /\u2060[^\u2060]*\u2060|\{\{[\s\S]*?\}\}|\{%[\s\S]*?%\}|<%[\s\S]*?%>|<\?(?!xml[\s?])[\s\S]*?\?>|\$\{[^}]*\}/;

/** The text with every piece of template text written over by letters, so that offsets stay. */
export function maskTemplateText(text: string): string {
  return text.replace(new RegExp(TEMPLATE_TEXT, 'g'), (piece) => 'x'.repeat(piece.length));
}

/** Whether a text contains `{{ }}`, `{% %}`, `<% %>`, `<?php ?>` or `${ }`. */
export function hasTemplateText(text: string): boolean {
  return (text.includes('{') || text.includes('<') || text.includes(UNSEEN)) && TEMPLATE_TEXT.test(text);
}

/** The words inside template text: what it may produce could be made of them. */
export function templateWords(text: string): string[] {
  return (text.match(new RegExp(TEMPLATE_TEXT, 'g')) ?? []).flatMap(
    (piece) => piece.match(/[\p{L}\p{N}_-]+/gu) ?? [],
  );
}
