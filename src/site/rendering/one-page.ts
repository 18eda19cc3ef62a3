// One page and the sheets it uses, and nothing else of its site: for questions about one element.

import { withoutStart } from '../../core/base/phrases.js';
import type { Place } from '../../core/base/source.js';
import { UsageError } from '../../core/base/usage-error.js';
import { OutcomeTable, SiteStyles, StyleReader, TruthTable } from '../../core/cascade/index.js';
import { inclusionsIn } from '../../core/read/templates/index.js';
import { openFolder } from '../files/files.js';
import { leftOutSoFar } from '../files/notices.js';
import { readConfig } from '../files/pages.js';
import { ownSources } from './compiled-sheets.js';
import { parseAlone } from './placing.js';
import { SiteReader } from './reader.js';

export interface OpenedPage {
  readonly reader: StyleReader;
  readonly isPlatform: (path: string) => boolean;
  /** Where a rule or declaration is written; itself where it is written where it stands. */
  readonly writtenAt: (place: Place) => Place;
  /** Sheets on other hosts that the page links. */
  readonly unread: readonly string[];
  /** For a component: how many different sets of sheets it may be shown with; the first is taken. */
  readonly settings: number;
  /** Whether any of a list of names stands in each page of the site, by text alone: how many pages. */
  readonly pagesWith: (names: readonly string[]) => { readonly pages: number; readonly of: number };
}

/** In: the site's folder; the page's path inside it. Throws `UsageError`. */
export async function openPage(folder: string, path: string): Promise<OpenedPage> {
  const files = openFolder(folder);
  const config = await readConfig(files);
  const file = withoutStart(path.replaceAll('\\', '/'), './');
  if (files.read(file) === undefined)
    throw new UsageError('not-a-page', {
      file,
      site: folder,
      hint: nearPages(file, new SiteReader(files, config).pagePaths),
    });
  const own = new SiteReader(files, config, [file]);
  const pagesWith: OpenedPage['pagesWith'] = (names) => {
    const all = new SiteReader(files, config);
    const texts = all.pagePaths.map((one) => all.page(one) ?? '');
    const written = names.map(
      (name) => new RegExp(`(?<![\\w-])${name.replace(/[^\w-]/g, '\\$&')}(?![\\w-])`),
    );
    return {
      pages: texts.filter((text) => written.every((one) => one.test(text))).length,
      of: texts.length,
    };
  };
  const isOwn = ownSources(config, files);
  // What is made of the site's own sources is changed there.
  const isPlatform = (sheet: string): boolean =>
    own.isPlatform(sheet) && own.compiled.sourceOf(sheet, isOwn) === undefined;
  const asked = { isPlatform, pagesWith, writtenAt: (place: Place) => own.sheetPlaces.of(place) ?? place };
  // What stands around a part, and what a page has of its parts, other files tell.
  if (own.isComponent(file) || inclusionsIn(own.page(file) ?? '', file).length > 0) {
    const { loadSite } = await import('./load.js');
    const { model } = loadSite(files);
    const page = model.page(file);
    if (page === undefined) throw new UsageError('page-empty', { file });
    const [reader, ...others] = model.readersOf(page);
    if (reader === undefined) throw new UsageError('component-unused', { file });
    return { ...asked, reader, unread: [], settings: others.length + 1 };
  }
  const text = own.page(file);
  if (text === undefined)
    throw new UsageError(leftOutSoFar().has(file) ? 'not-html' : 'page-empty', { file });
  const table = new OutcomeTable(new TruthTable());
  const styles = new SiteStyles(own, table);
  const page = parseAlone(own, file, text);
  const sheetOrder = styles.sheetOrderOf(page);
  const unread = sheetOrder.unread.map(({ address }) => address);
  return { ...asked, reader: new StyleReader(page, sheetOrder, table), unread, settings: 1 };
}

/** Pages that the name may mean. */
function nearPages(file: string, paths: readonly string[]): string {
  const name = file.split('/').at(-1);
  const near = paths.filter((one) => one.split('/').at(-1) === name);
  return near.length > 0
    ? near.slice(0, 3).join(', ')
    : `one of its ${paths.length} pages, such as ${paths[0]}`;
}
