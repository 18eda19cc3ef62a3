// The common look of result pages: an account read down its left edge, one column of figures, generous space.

import { createHash } from 'node:crypto';
import { grouped } from '../core/base/grouped.js';

/** Text of a site or a person, for content and attributes. */
export function escapeHtml(text: string): string {
  return text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
    .replaceAll("'", '&#39;');
}

/** Counts right-aligned in a column, what they count beside them. */
export function figures(rows: readonly (readonly [count: number, what: string])[]): string {
  const lines = rows.map(
    ([count, what]) => `<tr><td class="count">${grouped(count)}</td><td>${escapeHtml(what)}</td></tr>`,
  );
  return `<table class="figures">${lines.join('')}</table>`;
}

export interface PageExtras {
  /** Rules behind those that all pages have. */
  readonly style?: string;
  /** A script of ours, which the page can be read without. */
  readonly script?: string;
  /** Whether frames show documents of the site, with its own sheets, fonts and pictures. */
  readonly framesSite?: boolean;
}

/** In: the title as text; the body as HTML. */
export function page(
  title: string,
  body: string,
  { style = '', script, framesSite }: PageExtras = {},
): string {
  // A document in a frame keeps to the policy of the page around it.
  const own = framesSite === true ? "'self' file: data:" : "'self' file:";
  const policy = [
    "default-src 'none'",
    `img-src ${own}`,
    ...(framesSite === true
      ? [`style-src 'unsafe-inline' ${own}`, `font-src ${own}`]
      : ["style-src 'unsafe-inline'"]),
    ...(script === undefined
      ? []
      : [`script-src 'sha256-${createHash('sha256').update(script).digest('base64')}'`]),
  ].join('; ');
  return `<!DOCTYPE html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="${policy}">
<title>${escapeHtml(title)}</title>
<style>${STYLE}${style}</style>
</head>
<body>
${body}${script === undefined ? '' : `\n<script>${script}</script>`}
</body>
</html>
`;
}

const STYLE = `
:root { color-scheme: light dark; --ink: #22262b; --soft: #636b74; --paper: #fbfaf7; --line: #dcd8cf; --amber: #9a5b00; }
@media (prefers-color-scheme: dark) {
  :root { --ink: #e4e1da; --soft: #9a9da1; --paper: #17191c; --line: #3a3d42; --amber: #e0a040; }
}
body { margin: 0 auto; max-width: 72rem; padding: 3rem 2rem 6rem; background: var(--paper); color: var(--ink);
  font: 1rem/1.55 "Iowan Old Style", "Palatino Linotype", Palatino, "DejaVu Serif", Georgia, serif; }
.kind { margin: 0; color: var(--soft); }
h1 { margin: 0 0 .5rem; font-size: 1.9rem; font-weight: 600; line-height: 1.2; }
h2 { margin: 3.5rem 0 1rem; padding-bottom: .4rem; border-bottom: 1px solid var(--line); font-size: 1.25rem; }
h3 { margin: 2.5rem 0 .25rem; font-size: 1.1rem; color: var(--amber); overflow-wrap: anywhere; }
h4 { margin: 1.5rem 0 .5rem; font-size: 1rem; font-weight: 600; }
a { color: inherit; text-underline-offset: .2em; text-decoration-color: var(--line); }
code { font: .875em "DejaVu Sans Mono", ui-monospace, monospace; }
table { border-collapse: collapse; font-variant-numeric: tabular-nums; }
.figures { margin: 2rem 0; }
.figures td { padding: .15rem 0; vertical-align: baseline; }
.figures .count { min-width: 6rem; padding-right: 1rem; text-align: right; font-size: 1.25rem; }
section table { width: 100%; font-size: .9rem; }
section th { color: var(--soft); font-weight: normal; text-align: left; }
section th, section td { padding: .3rem 1rem .3rem 0; border-bottom: 1px solid var(--line); vertical-align: top; overflow-wrap: anywhere; }
.work td:first-child { width: 1.5rem; }
.work td:nth-child(2) { width: 45%; }
.work ul { margin: 0; padding-left: 1.1rem; }
figure { margin: 0; }
figcaption { margin-top: .35rem; font-size: .875rem; overflow-wrap: anywhere; }
.aside { color: var(--soft); font-size: .875rem; }
.pictures { display: grid; grid-template-columns: repeat(3, 1fr); gap: 1.5rem; margin-bottom: 1rem; }
.small { display: grid; grid-template-columns: repeat(auto-fill, minmax(12rem, 1fr)); gap: 2rem 1.5rem; }
img { display: block; width: 100%; height: 14rem; object-fit: cover; object-position: top left; border: 1px solid var(--line); background: #fff; }
.small img { height: 9rem; }
.whole { grid-template-columns: repeat(2, 1fr); }
.whole img { height: auto; }
@media (max-width: 44rem) { .pictures { grid-template-columns: 1fr; } body { padding: 1.5rem 1rem; } }
@media print { body { max-width: none; padding: 0; } section, figure { break-inside: avoid; } }
`;
