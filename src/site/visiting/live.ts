// The site as it runs now, fetched into a folder of its own beside what was visited: to see whether it is as was planned.

import { cpSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import { UsageError } from '../../core/base/usage-error.js';
import { openFolder } from '../files/files.js';
import { insideSite } from '../files/inside.js';
import { readText } from '../files/text.js';
import { isSameText, liveTexts } from './box-texts.js';
import { configOf } from './own-boxes.js';
import { type VisitTask, visitSite } from './visit.js';
import { readVisited } from './visited.js';
import { isBoxFile } from './with-boxes.js';

export interface LiveSite {
  /** A folder in `.acervus/`: whoever asked takes it away. */
  readonly folder: string;
  readonly pages: number;
  readonly failed: ReadonlyMap<string, string>;
  /** Each box, and whether it says on the site what it says here. */
  readonly boxes: readonly { readonly file: string; readonly isAsPlanned: boolean }[];
}

/** In: a folder that a visit filled. Throws `UsageError` for any other. */
export async function fetchLive(folder: string, options: VisitTask): Promise<LiveSite> {
  const here = openFolder(folder);
  const visited = readVisited(here, configOf(here));
  if (visited === undefined || visited.pages.length === 0)
    throw new UsageError('live-not-visited', { folder });
  const live = insideSite(folder, path.join('.acervus', 'live'));
  rmSync(live, { recursive: true, force: true });
  mkdirSync(live, { recursive: true });
  try {
    for (const name of readdirSync(folder))
      if (!name.startsWith('.')) cpSync(path.join(folder, name), path.join(live, name), { recursive: true });
    // Without what is written here, a box says what the site says.
    for (const file of openFolder(live).list()) if (isBoxFile(visited, file)) rmSync(path.join(live, file));
    const { crawled, manifest } = await visitSite(undefined, live, { ...options, onlyKnown: true });
    const texts = liveTexts(openFolder(live), visited);
    const boxes = here
      .list()
      .filter((file) => isBoxFile(visited, file))
      .map((file) => ({
        file,
        isAsPlanned: isSameText(readText(here, file)?.text ?? '', texts.get(file)?.css ?? ''),
      }));
    return { folder: live, pages: manifest.pages.length, failed: crawled.failed, boxes };
  } catch (error) {
    rmSync(live, { recursive: true, force: true });
    throw error;
  }
}
