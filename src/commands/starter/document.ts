// The document of `acervus starter --json`.

import { z } from 'zod';
import { REASONS, wishesSchema } from '../../core/ask/starter/index.js';
import { type DocumentOf, place } from '../shared/document-parts.js';

export const starterDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('starter'),
    file: z.string().describe('The house sheet that was written.'),
    wishes: wishesSchema,
    values: z.array(z.string()),
    rules: z.array(
      z.strictObject({
        part: z.enum(['values', 'elements', 'helpers', 'media']),
        selectors: z.array(z.string()),
        place,
      }),
    ),
    left: z
      .array(z.strictObject({ reason: z.enum(REASONS), name: z.string(), pages: z.int(), place }))
      .describe('What was left out, and why.'),
    revision: z
      .strictObject({ came: z.array(z.string()), went: z.array(z.string()), same: z.int() })
      .optional()
      .describe('Against the house sheet that was there.'),
    words: z
      .strictObject({ folder: z.string(), words: z.record(z.string(), z.string()) })
      .optional()
      .describe('Editor snippets: by what they call up, their short words.'),
  })
  .describe('The sheet that the next site begins with.');

export type StarterDocument = DocumentOf<typeof starterDocument>;
