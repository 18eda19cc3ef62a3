// What kind of file a path names, told by its ending. Nobody else lists endings, but for those of template engines, which are
// told with all else of them in `templates/engines`; `whole-page.ts` beside this one tells what marks a text as a whole page.

import { BUILD_ENDINGS, engineOf, TEMPLATE_ENDINGS } from '../templates/index.js';

export { type PageEvidence, pageEvidence } from './whole-page.js';

const of = (endings: string): ReadonlySet<string> => new Set(endings.split(' '));

/** What a browser opens as HTML, and is read as a page unless somebody says otherwise. */
const PAGES = of('html htm shtml');
/** Pages that only a build makes are not among the site's by themselves. */
const BUILT_PAGES = of('html htm shtml xhtml');
const COMPONENTS: ReadonlyMap<string, ComponentKind> = new Map([
  ['vue', 'vue'],
  ['svelte', 'svelte'],
  ['astro', 'astro'],
  ['jsx', 'jsx'],
  ['tsx', 'jsx'],
]);
/** Sheets of preprocessors that are compiled here. */
const COMPILED = of('scss sass less');
const SCRIPTS = of('js mjs');
const MODULES = of('js mjs jsx ts mts tsx');
const CODE = of('php phtml inc rb rake py js mjs cjs ts java kt cs vb go pl pm ex exs lua scala');
/** Templates and components that are not read. */
const UNREAD = of(
  'pug jade haml slim ftl ftlh vm mako eta marko razor aspx ascx master cfm riot hamlet mjml latte edge gohtml tmpl heex leex eex ' +
    'rhtml xhtml styl',
);
/** Documents that are not read, and may load a sheet all the same. */
const OTHER_DOCUMENTS = of(
  'xhtml xht xml svg php3 php4 php5 php7 php8 inc asp aspx jspx cfm md markdown mdx',
);
/** What builders take as markup beside pages, templates and components. */
const BUILT_MARKUP = of('xhtml md markdown mdx mkd webc js');
/** What something other than a template engine fills where it lies. */
const SERVED_IN_PLACE = of('html htm shtml xhtml php3 php4 php5 php7 php8 jspx asp aspx cfm');

/** Endings of what comes of a template that is no page: `mail.txt.erb`, `menu.js.ejs`. */
const NO_PAGE = of(
  'txt text js mjs json css scss less xml yml yaml rss atom csv md conf ini sh sql rb py ics svg',
);
/** Components that only tests or a catalogue of parts show: `fare.test.tsx`. */
const APART = of('test spec stories');

export type ComponentKind = 'vue' | 'svelte' | 'astro' | 'jsx';

/** The last ending of a path, in small letters, without its dot; empty for none. */
export function endingOf(path: string): string {
  const name = path.slice(path.lastIndexOf('/') + 1);
  const dot = name.lastIndexOf('.');
  return dot < 0 ? '' : name.slice(dot + 1).toLowerCase();
}

/** A path without its last ending. */
function withoutEnding(path: string): string {
  const ending = endingOf(path);
  return ending === '' ? path : path.slice(0, -ending.length - 1);
}

export function isBuiltPage(file: string): boolean {
  return BUILT_PAGES.has(endingOf(file));
}

/** Patterns of all that is read as a page, a template or a component by its ending. */
export const PAGE_PATTERNS: readonly string[] = [...PAGES, ...TEMPLATE_ENDINGS, ...COMPONENTS.keys()].map(
  (ending) => `**/*.${ending}`,
);

/** In: the path of a page, or of a source of one: of a site's scripts only those are components that hold markup. */
export function componentKind(path: string): ComponentKind | undefined {
  const ending = endingOf(path);
  return ending === 'js' ? 'jsx' : COMPONENTS.get(ending);
}

export function isComponentFile(path: string): boolean {
  return componentKind(path) !== undefined;
}

/** A component in a file of its own kind, not in a script. */
export function isComponentByName(path: string): boolean {
  return COMPONENTS.has(endingOf(path));
}

/** A component whose style blocks may be those of a preprocessor. */
export function hasStyleBlocks(path: string): boolean {
  const kind = COMPONENTS.get(endingOf(path));
  return kind !== undefined && kind !== 'jsx';
}

/** Whether a template engine or a framework of components makes pages of a file. */
export function isTemplate(file: string): boolean {
  return (engineOf(file) !== undefined || isComponentByName(file)) && !makesNoPage(file);
}

/** `mail.txt.erb`, `menu.js.ejs`, `fare.test.tsx`: what comes of it is no page. */
export function makesNoPage(file: string): boolean {
  const inner = endingOf(withoutEnding(file));
  if (isComponentByName(file) && endingOf(file) !== 'astro' && APART.has(inner)) return true;
  return (engineOf(file) !== undefined || isComponentByName(file)) && NO_PAGE.has(inner);
}

export function isStyleSheet(file: string): boolean {
  return endingOf(file) === 'css';
}

/** A sheet of a preprocessor that is compiled here. */
export function isCompiled(file: string): boolean {
  return COMPILED.has(endingOf(file));
}

/** A sheet that browsers get, or what one is made of. */
export function isAnySheet(file: string): boolean {
  return isStyleSheet(file) || isCompiled(file);
}

/** Endings of what sheets are made of; the last ones are compiled by others. */
export const SHEET_SOURCES: readonly string[] = [...COMPILED, 'styl', 'pcss'];

export function isSheetSource(file: string): boolean {
  return SHEET_SOURCES.includes(endingOf(file));
}

/** The path of a built sheet without what its sources need not have: `theme/line` of `theme/line.min.css`. */
export function sheetStem(file: string): string {
  const stem = isStyleSheet(file) ? withoutEnding(file) : file;
  return endingOf(stem) === 'min' ? withoutEnding(stem) : stem;
}

/** A script that pages load. */
export function isScript(file: string): boolean {
  return SCRIPTS.has(endingOf(file));
}

/** What imports other files for a bundler. */
export function isModule(file: string): boolean {
  return MODULES.has(endingOf(file)) || hasStyleBlocks(file);
}

/** What modules import, and is no script itself. */
export function isNoScript(file: string): boolean {
  const ending = endingOf(file);
  return (
    isComponentByName(file) ||
    isAnySheet(file) ||
    ending === 'styl' ||
    ['json', 'svg', 'png'].includes(ending)
  );
}

/** Source code, of any language that writes pages. */
export function isCode(file: string): boolean {
  return CODE.has(endingOf(file));
}

/** The ending of a template or component that is not read, with its dot; `undefined` for any other file. */
export function unreadEnding(file: string): string | undefined {
  const ending = endingOf(file);
  return UNREAD.has(ending) ? `.${ending}` : undefined;
}

/** Whether a file may be a document that loads sheets, read as a page or not. */
export function mayLoadSheets(file: string): boolean {
  const ending = endingOf(file);
  return (
    PAGES.has(ending) ||
    OTHER_DOCUMENTS.has(ending) ||
    UNREAD.has(ending) ||
    engineOf(file) !== undefined ||
    isComponentByName(file)
  );
}

/** What scripts import or fetch, or something makes pages of. */
export function isScriptText(file: string): boolean {
  const ending = endingOf(file);
  return MODULES.has(ending) || /^(?:c[jt]s|json|txt)$/.test(ending);
}

/** Whether a builder may take a file as markup. */
export function isBuilderMarkup(file: string): boolean {
  const ending = endingOf(file);
  return (
    PAGES.has(ending) ||
    BUILT_MARKUP.has(ending) ||
    BUILD_ENDINGS.includes(ending) ||
    engineOf(file) !== undefined ||
    isComponentByName(file)
  );
}

/** Whether a server fills a page where it lies: other templates lie somewhere else than what is made of them. */
export function isServedInPlace(file: string): boolean {
  return SERVED_IN_PLACE.has(endingOf(file)) || engineOf(file)?.isServedInPlace === true;
}

/** Whether names of files are looked for from the top of the engine's folders, wherever they are written. */
export function looksFromTop(file: string): boolean {
  return endingOf(file) === 'html' || endingOf(file) === 'htm' || engineOf(file)?.looksFromTop === true;
}
