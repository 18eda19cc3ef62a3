// The site as it will be after an update.

import { SiteModel, type SiteSources, type Weighed } from '../../cascade/index.js';

export function laterModel(
  model: SiteModel,
  sheets: ReadonlyMap<string, string>,
  pages: ReadonlyMap<string, string>,
): SiteModel {
  const sources: SiteSources = {
    ...model.sources,
    sheets: new Map([...model.sources.sheets, ...sheets]),
    pages: new Map([...model.sources.pages, ...pages]),
  };
  return new SiteModel(sources, model.table, model);
}

export function isOfPlatform({ origin }: Weighed, isPlatform: (path: string) => boolean): boolean {
  return origin.kind === 'rule' && isPlatform(origin.use.source.path);
}
