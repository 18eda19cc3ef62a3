// A site that is looked at as a whole: its pages as they stand, or as its build makes them.

import path from 'node:path';
import type { Place } from '../../core/base/source.js';
import { openFolder } from '../files/files.js';
import { loadSite, type Site } from '../rendering/load.js';
import { loadBuilt, openBuilt } from './build.js';
import { sourcePlaces } from './places.js';

export interface ReadSite {
  readonly site: Site;
  /** Where the files of its pages lie. */
  readonly folder: string;
  /** A place on its pages, or in its sheets, as a place in what a person writes. */
  readonly sourceOf: (place: Place) => Place;
}

/** In: the site's folder, and who hears what is done. Throws `UsageError` for what cannot be a site, and a build that fails. */
export async function openForReading(
  folder: string,
  onStep: (step: string) => void = () => {},
): Promise<ReadSite> {
  const files = openFolder(folder);
  const built = await openBuilt(folder, files, onStep);
  if (built === undefined) {
    const site = loadSite(files);
    return { site, folder: path.resolve(folder), sourceOf: site.writtenAt };
  }
  return { site: loadBuilt(built), folder: built.folder, sourceOf: sourcePlaces(built) };
}
