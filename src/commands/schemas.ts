// Every published document: file name in docs/schemas to its type.

import { heldSchema } from '../core/ask/hold/index.js';
import { wishesSchema } from '../core/ask/starter/index.js';
import { familySchema } from '../core/change/family/table-file.js';
import { draftSchema } from '../core/edit/draft/index.js';
import { configSchema } from '../site/config.js';
import { partDocument } from '../site/threads/part-file.js';
import { manifestSchema } from '../site/visiting/manifest.js';
import { workListSchema } from '../site/visiting/work-list.js';
import { adoptDocument } from './adopt/document.js';
import { draftDocument } from './draft/document.js';
import { explainDocument } from './explain/document.js';
import { familyDocument } from './family/document.js';
import { holdDocument } from './hold/document.js';
import { outlastDocument } from './outlast/document.js';
import { overrideDocument } from './override/document.js';
import { proveDocument } from './prove/document.js';
import { reachDocument } from './reach/document.js';
import { renameDocument } from './rename/document.js';
import { restyleDocument } from './restyle/document.js';
import { samplerDocument } from './sampler/document.js';
import { starterDocument } from './starter/document.js';
import { surveyDocument } from './survey/document.js';
import { undoDocument } from './undo/document.js';
import { valuesDocument } from './values/document.js';
import { visitDocument } from './visit/document.js';

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
