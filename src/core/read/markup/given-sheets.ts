// Sheets that the configuration says are there, in place of those that a page links.

import { isGiven, type Page, type SheetReference } from './page.js';

/** The site paths of the sheets that a person says style a page; `undefined` where nobody does. */
export function givenSheets({ sheets }: Pick<Page, 'sheets'>): string[] | undefined {
  const given = sheets.flatMap((one) => (one.kind === 'link' && isGiven(one) ? one.address.slice(1) : []));
  return given.length === 0 ? undefined : given;
}

/** In: what the page itself refers to; the site paths that are given. */
export function withGiven(own: readonly SheetReference[], paths: readonly string[]): SheetReference[] {
  const given = paths.map(
    (path): SheetReference => ({
      ...{ kind: 'link', element: -1, address: `/${path}`, media: '', title: '', by: 'configuration' },
      ...{ alternate: false, disabled: false, scriptingOff: false, range: { start: 0, end: 0 } },
    }),
  );
  return [...given, ...own.filter(({ kind }) => kind === 'block')];
}
