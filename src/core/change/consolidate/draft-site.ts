// A site as a draft sees it: without a disk.

import type { SiteModel } from '../../cascade/index.js';
import type { NamingOptions, OwnedSheet } from '../../edit/draft/index.js';
import type { SharedSheet } from '../../read/sheets/shared-sheet.js';
import type { SiteScripts, StyledTagOptions } from '../../stock/index.js';
import type { Excerpts, WholePages } from '../excerpt/index.js';

/** A site as a draft sees it. */
export interface DraftSite {
  readonly model: SiteModel;
  /** Where the pages of `model` are excerpts: the whole ones, and what was kept of them. */
  readonly whole?: { readonly pages: WholePages; readonly excerpts: Excerpts } | undefined;
  readonly scripts: SiteScripts;
  readonly sheets: readonly OwnedSheet[];
  readonly shared: SharedSheet;
  /** Whether a person says which sheet it is: then it is one for the whole site. */
  readonly sharedIsGiven: boolean;
  /** Sheets that documents load which were not read, with the texts of these. */
  readonly unseen: ReadonlyMap<string, readonly string[]>;
  readonly naming: NamingOptions;
  readonly styledTags: StyledTagOptions;
}
