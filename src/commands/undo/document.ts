// The document of `acervus undo --json`.

import { z } from 'zod';
import type { DocumentOf } from '../shared/document-parts.js';

export const undoDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('undo'),
    undone: z.boolean(),
    restored: z.array(z.string()),
    removed: z.array(z.string()),
  })
  .describe('acervus undo --json');

export type UndoDocument = DocumentOf<typeof undoDocument>;
