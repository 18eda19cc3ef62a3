// The site as it will be after an update.

import { SiteModel, type SiteSources, type Weighed } from '../../cascade/index.js';

/** What is otherwise after an update. */
export interface Update {
  /** Path of a platform sheet to its new text. */
  readonly sheets: ReadonlyMap<string, string>;
  /** Path of a page to its markup after the update; empty where that is not known. */
  readonly pages: ReadonlyMap<string, string>;
  /** Where addresses in the new markup lead, that lead nowhere by themselves. */
  readonly copies?: ReadonlyMap<string, string> | undefined;
}

export function laterModel(model: SiteModel, { sheets, pages, copies }: Update): SiteModel {
  const sources: SiteSources = {
    ...model.sources,
    sheets: new Map([...model.sources.sheets, ...sheets]),
    pages: new Map([...model.sources.pages, ...pages]),
    copies: new Map([...model.sources.copies, ...(copies ?? [])]),
  };
  return new SiteModel(sources, model.table, model);
}

export function isOfPlatform({ writtenIn }: Weighed, isPlatform: (path: string) => boolean): boolean {
  return writtenIn.kind === 'rule' && isPlatform(writtenIn.use.source.path);
}
