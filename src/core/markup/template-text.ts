// Template text of the common families inside markup: never touched, and what it may produce is unknown.

const MARKERS = /\{\{[\s\S]*?\}\}|\{%[\s\S]*?%\}|<%[\s\S]*?%>|<\?[\s\S]*?\?>|\$\{[^}]*\}/;

/** Whether a text contains `{{ }}`, `{% %}`, `<% %>`, `<?php ?>` or `${ }`. */
export function hasTemplateText(text: string): boolean {
  return (text.includes('{') || text.includes('<')) && MARKERS.test(text);
}
