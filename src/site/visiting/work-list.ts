// The work list of a visited site: what only the platform's own editor can do, page by page; kept beside the pages, so that
// the next visit can tell what is done.

import { z } from 'zod';
import { stateOfWork, workBetween } from '../../core/ask/visit/work.js';
import { comparePaths } from '../../core/base/source.js';
import { applyEdits } from '../../core/edit/text/edit.js';
import { parsePage } from '../../core/read/markup/index.js';
import type { SiteFiles } from '../files/files.js';
import { readText } from '../files/text.js';
import type { FileChange } from '../ledger/change.js';
import { WORK_FILE } from './keeper.js';
import type { Visited } from './with-boxes.js';

const item = z.strictObject({
  page: z.string(),
  address: z.string(),
  anchor: z.string().optional(),
  heading: z.string().optional(),
  text: z.string(),
  element: z.string(),
  path: z.array(z.int()),
  styleOut: z.array(z.string()),
  styleLeft: z.string(),
  classIn: z.array(z.string()),
  classOut: z.array(z.string()),
  attributesOut: z.array(z.string()),
  state: z.enum(['open', 'done', 'gone']),
});

export const workListSchema = z
  .strictObject({ format: z.literal(1), items: z.array(item) })
  .describe('work-list.json: what is left for the editor of a running system');

export type WorkList = z.infer<typeof workListSchema>;
export type WorkItem = WorkList['items'][number];

/** In: the changes of an adoption. Out: what they ask of the pages. */
export function workListOf(visited: Visited, changes: readonly FileChange[]): WorkList {
  const items = changes
    .filter((one) => visited.addressOf.has(one.path))
    .sort((a, b) => comparePaths(a.path, b.path))
    .flatMap((change): WorkItem[] => {
      const before = parsePage(change.path, change.text);
      const after = parsePage(change.path, applyEdits(change.text, change.edits));
      const address = visited.addressOf.get(change.path)!;
      return workBetween(before, after).map((work) => ({
        page: change.path,
        address,
        ...(work.anchor === undefined ? {} : { anchor: work.anchor }),
        ...(work.heading === undefined ? {} : { heading: work.heading }),
        ...{ text: work.text, element: work.element, path: [...work.path], styleLeft: work.styleLeft },
        ...{ styleOut: [...work.styleOut], classIn: [...work.classIn], classOut: [...work.classOut] },
        attributesOut: [...work.attributesOut],
        state: 'open',
      }));
    });
  return { format: 1, items };
}

/** The list that is there; `undefined` where there is none, or somebody wrote something else into it. */
export function readWorkList(files: SiteFiles): WorkList | undefined {
  const text = readText(files, WORK_FILE)?.text;
  if (text === undefined) return undefined;
  try {
    const read = workListSchema.safeParse(JSON.parse(text));
    return read.success ? read.data : undefined;
  } catch {
    return undefined;
  }
}

/** The list with what the pages say now of each piece of work. */
export function tickedBy(files: SiteFiles, { items }: WorkList): WorkList {
  const pages = new Map<string, ReturnType<typeof parsePage> | undefined>();
  const pageAt = (file: string) => {
    if (!pages.has(file)) {
      const text = readText(files, file)?.text;
      pages.set(file, text === undefined ? undefined : parsePage(file, text));
    }
    return pages.get(file);
  };
  return { format: 1, items: items.map((one) => ({ ...one, state: stateOfWork(one, pageAt(one.page)) })) };
}
