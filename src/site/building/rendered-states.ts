// Two states of a site that are compared: of one that is built, what the build makes of each.

import { cpSync, existsSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { UsageError } from '../../core/base/usage-error.js';
import { openFolder } from '../files/files.js';
import { type BuiltSite, openBuilt } from './build.js';
import { settleUnsteady } from './unsteady.js';

export interface States {
  readonly folder: string;
  /** A folder or a commit. */
  readonly against: string;
}

/** In: the site's folder; the folder or commit to compare with. Out: the folders whose pages are compared. Throws `UsageError`. */
export async function renderedStates(
  folder: string,
  against: string,
  onStep?: (step: string) => void,
): Promise<States> {
  const built = await openBuilt(folder, openFolder(folder), onStep);
  const isFolder = existsSync(against) && statSync(against).isDirectory();
  if (built === undefined) return { folder, against };
  if (!isFolder) throw new UsageError('build-of-commit', { reference: against });
  const other = await openBuilt(against, openFolder(against), onStep);
  if (other === undefined) return { folder: built.plain, against };
  return { folder: settledCopy(built, other), against: other.plain };
}

/** The pages of a site, with what changes from build to build as it is in those of the other. */
function settledCopy({ plain }: BuiltSite, other: BuiltSite): string {
  const copy = path.join(path.dirname(plain), 'compared');
  rmSync(copy, { recursive: true, force: true });
  cpSync(plain, copy, { recursive: true });
  settleUnsteady(other.plain, other.folder, copy);
  return copy;
}
