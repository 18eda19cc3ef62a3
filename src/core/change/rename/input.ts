// What is to be renamed, and what nobody can be sure of.

import type { Place } from '../../base/source.js';
import type { SiteModel } from '../../cascade/index.js';

export interface RenameInput {
  readonly model: SiteModel;
  readonly themes: readonly string[];
  /** Texts of local scripts, by path; those of libraries are not edited. */
  readonly scripts: ReadonlyMap<string, string>;
  readonly isLibrary: (path: string) => boolean;
  /** Texts of files that are neither page, sheet nor script of a page, and hold the name. */
  readonly others: ReadonlyMap<string, string>;
  readonly from: string;
  readonly to: string;
  /** The new name is there already, and the two are to be one. */
  readonly merge: boolean;
  /** Rename in strings that only might mean the class, too. */
  readonly unsure: boolean;
}

export interface UnsurePlace {
  readonly place: Place;
  readonly what: string;
  /** Whether it may be edited at all. */
  readonly editable: boolean;
}
