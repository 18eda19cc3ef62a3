// Every published document: file name in docs/schemas to its type.

import { familySchema } from '../core/change/family/table-file.js';
import { draftSchema } from '../core/draft/index.js';
import { heldSchema } from '../core/hold/index.js';
import { wishesSchema } from '../core/starter/index.js';
import { configSchema } from '../site/config.js';
import { partDocument } from '../site/threads/part-file.js';
import { manifestSchema } from '../site/visiting/manifest.js';
import { workListSchema } from '../site/visiting/work-list.js';
import { adoptDocument } from './commands/adopt/document.js';
import { draftDocument } from './commands/draft/document.js';
import { explainDocument } from './commands/explain/document.js';
import { familyDocument } from './commands/family/document.js';
import { holdDocument } from './commands/hold/document.js';
import { outlastDocument } from './commands/outlast/document.js';
import { overrideDocument } from './commands/override/document.js';
import { proveDocument } from './commands/prove/document.js';
import { reachDocument } from './commands/reach/document.js';
import { renameDocument } from './commands/rename/document.js';
import { restyleDocument } from './commands/restyle/document.js';
import { samplerDocument } from './commands/sampler/document.js';
import { starterDocument } from './commands/starter/document.js';
import { surveyDocument } from './commands/survey/document.js';
import { undoDocument } from './commands/undo/document.js';
import { valuesDocument } from './commands/values/document.js';
import { visitDocument } from './commands/visit/document.js';

export const schemas = {
  'acervus.schema.json': configSchema,
  'acervus-draft.schema.json': draftSchema,
  'family-table.schema.json': familySchema,
  'survey.schema.json': surveyDocument,
  'draft.schema.json': draftDocument,
  'adopt.schema.json': adoptDocument,
  'prove.schema.json': proveDocument,
  'part.schema.json': partDocument,
  'undo.schema.json': undoDocument,
  'explain.schema.json': explainDocument,
  'reach.schema.json': reachDocument,
  'restyle.schema.json': restyleDocument,
  'rename.schema.json': renameDocument,
  'override.schema.json': overrideDocument,
  'outlast.schema.json': outlastDocument,
  'family.schema.json': familyDocument,
  'hold.schema.json': holdDocument,
  'sampler.schema.json': samplerDocument,
  'starter.schema.json': starterDocument,
  'acervus-starter.schema.json': wishesSchema,
  'values.schema.json': valuesDocument,
  'acervus-hold.schema.json': heldSchema,
  'visit.schema.json': visitDocument,
  'visited.schema.json': manifestSchema,
  'work-list.schema.json': workListSchema,
} as const;
