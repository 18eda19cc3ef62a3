// Files that template engines read: which they are, and which of them are whole pages.

import { isComponentFile, readComponent } from '../../core/read/components/index.js';
import {
  enginePieces,
  holdsEngineText,
  inclusionsOf,
  maskPieces,
  mayHoldEngineText,
} from '../../core/read/templates/index.js';

const ENDINGS =
  'php phtml twig erb ejs hbs handlebars mustache njk jinja jinja2 j2 liquid tpl cshtml jsp vue svelte astro jsx tsx'.split(
    ' ',
  );

/** Every file that a template engine may make a page of. */
export const TEMPLATES: readonly string[] = ENDINGS.map((ending) => `**/*.${ending}`);

const TEMPLATE = new RegExp(`\\.(${ENDINGS.join('|')})$`, 'i');
/** `mail.txt.erb`, `menu.js.ejs`, `fare.test.tsx`: what comes of it is no page. */
const NO_PAGE = new RegExp(
  `\\.(test|spec|stories)\\.([jt]sx|vue|svelte)$|\\.(te?xt|js|mjs|json|css|s?css|less|xml|ya?ml|rss|atom|csv|md|conf|ini|sh|sql|rb|py|ics|svg)\\.(${ENDINGS.join('|')})$`,
  'i',
);

export function isTemplate(file: string): boolean {
  return TEMPLATE.test(file) && !NO_PAGE.test(file);
}

export function makesNoPage(file: string): boolean {
  return NO_PAGE.test(file);
}

/** What no part of a page has. */
const WHOLE = /<!doctype|<html[\s>]|<body[\s>]|<frameset[\s>]/i;

/** Whether nothing marks a text as a whole page. */
export function isBare(file: string, text: string): boolean {
  return !WHOLE.test(withoutEngine(file, text));
}

/** Whether an engine fills a text, or a framework of scripts. */
export function isFilled(file: string, text: string): boolean {
  return holdsEngineText(text) || isFilledByScripts(file, text);
}

/** Whether a framework of scripts fills a part in the browser, and nobody opens it by itself. */
function isFilledByScripts(file: string, text: string): boolean {
  // Of a component in a file of its own the sheet beside it styles nothing else: that is not known here.
  return (
    text.includes('ng-') && DIRECTIVES.test(text) && !WHOLE.test(text) && !/\.component\.html?$/i.test(file)
  );
}

const DIRECTIVES = /<[a-z][^<>]*\s(?:data-)?ng-[a-z][\w-]*(?=[\s=>])/i;

/** Whether a text is a part that pages include: an engine reads it, and nothing marks it as a whole page. */
export function isPart(file: string, text: string): boolean {
  if (isComponentFile(file)) return true;
  if (isFilledByScripts(file, text)) return true;
  if (!TEMPLATE.test(file) && !mayHoldEngineText(text, file)) return false;
  const pieces = mayHoldEngineText(text, file) ? enginePieces(text, file) : [];
  if (pieces.length === 0) return TEMPLATE.test(file) && !WHOLE.test(text);
  // What extends a layout fills it, be it with a whole body.
  const isFilling = inclusionsOf(text, pieces).some(({ kind, end }) => kind === 'extends' && end > 0);
  return isFilling || !WHOLE.test(maskPieces(text, pieces).text);
}

/** Whether a template holds markup at all: much of a theme in PHP is code alone. */
export function holdsMarkup(file: string, text: string): boolean {
  if (isComponentFile(file))
    return readComponent(file, text)?.roots.some(({ kind }) => kind === 'element') === true;
  return /<[a-z!/]/i.test(withoutEngine(file, text));
}

/** A text as a markup parser gets it: what an engine reads may speak of anything. */
function withoutEngine(file: string, text: string): string {
  const pieces = mayHoldEngineText(text, file) ? enginePieces(text, file) : [];
  return pieces.length === 0 ? text : maskPieces(text, pieces).text;
}

/** Kinds of templates and components that are not read, by ending. */
const UNREAD =
  /\.(pug|jade|haml|slim|ftl|ftlh|vm|mako|eta|marko|razor|aspx|ascx|master|cfm|riot|hamlet|mjml|latte|edge|gohtml|tmpl|heex|leex|eex|rhtml|xhtml|styl)$/i;

/** In: the files of a site. Out: how many of each such ending there are, most first. */
export function unreadEndings(files: readonly string[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const file of files) {
    const ending = UNREAD.exec(file)?.[0].toLowerCase();
    if (ending !== undefined) counts.set(ending, (counts.get(ending) ?? 0) + 1);
  }
  return new Map([...counts].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1)));
}
