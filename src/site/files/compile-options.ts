// What compilers of sheets read of a site, and how they are asked.

import { startsWithAny } from '../../core/base/phrases.js';
import type { SiteFiles } from './files.js';

/** What compilers read of a site. */
export type Files = Pick<SiteFiles, 'read'>;

export type OutputStyle = 'expanded' | 'compressed';

export interface CompileOptions {
  readonly style?: OutputStyle;
  /** A part that is taken to hold nothing. */
  readonly without?: string | undefined;
}

/** Whether a path that a sheet makes up stays in the site. */
export function isInside(file: string): boolean {
  return !startsWithAny(file, ['..', '/']);
}
