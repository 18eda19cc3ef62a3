// Brings the pages of a running system into a folder.

import { openFolder } from '../../site/files/files.js';
import { WORK_FILE } from '../../site/visiting/keeper.js';
import { type VisitResult, type VisitTask, visitSite } from '../../site/visiting/visit.js';
import type { VisitDocument } from './document.js';

export type { VisitOptions } from '../../site/visiting/options.js';

const SOME = 12;

/**
 * Brings pages, and the sheets and scripts that they load, into a folder that every other command takes as a site.
 * In: an address, a file of addresses or an HTTP archive, `undefined` to visit again what the folder holds; the folder.
 * Throws `UsageError`.
 * @internal
 */
export async function visit(
  from: string | undefined,
  folder: string,
  options: VisitTask = {},
): Promise<VisitDocument> {
  const openRenderer: VisitTask['openRenderer'] = async (input) =>
    (await import('../../browser/render.js')).openRenderer(input);
  const result = await visitSite(from, folder, { ...options, openRenderer });
  const files = openFolder(folder);
  if (files.read(WORK_FILE) === undefined) return documentOf(folder, result);
  const { readWorkList, tickedBy } = await import('../../site/visiting/work-list.js');
  const { keepWorkList, WORK_PAGE } = await import('../../report/work-list.js');
  const list = readWorkList(files);
  if (list === undefined) return documentOf(folder, result);
  const ticked = tickedBy(files, list);
  keepWorkList(result.folder, ticked, result.manifest.origin);
  const open = ticked.items.filter(({ state }) => state === 'open').length;
  const workList = { file: WORK_PAGE, open, done: ticked.items.length - open };
  return { ...documentOf(folder, result), workList };
}

function documentOf(folder: string, result: VisitResult): VisitDocument {
  const { manifest, crawled, changes, madeUp } = result;
  const countOf = (kind: string): number => manifest.files.filter((one) => one.kind === kind).length;
  return {
    format: 1,
    command: 'visit',
    from: manifest.start,
    origin: manifest.origin,
    folder,
    pages: manifest.pages.length,
    sheets: countOf('sheet'),
    scripts: countOf('script'),
    others: countOf('other'),
    requests: result.requests,
    bytes: result.bytes,
    unchanged: crawled.unchanged,
    resumed: result.goesOn,
    failed: [...crawled.failed].map(([address, why]) => ({ address, why })).sort(byAddress),
    barred: result.barred,
    left: crawled.left,
    ...(crawled.usedUp === undefined ? {} : { stopped: crawled.usedUp }),
    ...(changes === undefined
      ? {}
      : {
          changes: {
            pages: movedOf(changes.pages),
            sheets: movedOf(changes.sheets),
            namesGone: [...changes.namesGone],
            namesNew: changes.namesNew,
          },
        }),
    boxes: result.boxes.map((one) => ({ ...one })),
    likely: result.likely.map(({ box, why }) => ({ box, why })),
    madeUp: { count: madeUp.length, some: madeUp.slice(0, SOME) },
  };
}

function movedOf({ fresh, gone, changed }: NonNullable<VisitResult['changes']>['pages']) {
  return { new: [...fresh], gone: [...gone], changed: [...changed] };
}

function byAddress(a: { readonly address: string }, b: { readonly address: string }): number {
  return a.address < b.address ? -1 : 1;
}
