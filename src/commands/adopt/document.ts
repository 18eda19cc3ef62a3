// The document of `acervus adopt --json`.

import { z } from 'zod';
import { adoptionSchema } from '../../core/edit/draft/schema.js';
import type { DocumentOf } from '../shared/document-parts.js';

export const adoptDocument = z
  .strictObject({
    format: z.literal(2),
    command: z.literal('adopt'),
    written: z.boolean(),
    ...adoptionSchema.shape,
    files: z.array(z.string()),
    patch: z.string().optional(),
    workList: z
      .strictObject({
        file: z.string(),
        items: z.int(),
        early: z
          .int()
          .describe('Elements that look otherwise once the boxes are pasted, until the list is done.'),
      })
      .optional()
      .describe('Of a running system: what only its own editor can do.'),
  })
  .describe('acervus adopt --json');

export type AdoptDocument = DocumentOf<typeof adoptDocument>;
