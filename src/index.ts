// What a script may import: the core's stages and the site's loading, without the terminal.

export { OutcomeTable, SiteModel, type SiteSources, TruthTable } from './core/cascade/index.js';
export { applyEdits, type Edit } from './core/edits/index.js';
export { type Page, parsePage } from './core/markup/index.js';
export { type Difference, type Proof, prove } from './core/proof/index.js';
export { parseSheet, type Sheet } from './core/sheets/index.js';
export { StockTaker, type Survey, type SurveyInput, takeStock } from './core/stock/index.js';
export { type Config, configSchema } from './site/config.js';
export { openCommit, openFolder, type SiteFiles } from './site/files/files.js';
export { loadSite, type Site } from './site/rendering/load.js';
export { type Proven, proveSite } from './site/threads/proving.js';
export { type SurveyedSite, surveySite } from './site/threads/surveying.js';
export { UsageError } from './core/usage-error.js';
