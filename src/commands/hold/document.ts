// The document of `acervus hold --json`.

import { z } from 'zod';
import { BUDGET_NAMES, DEBT_KINDS } from '../../core/ask/hold/index.js';
import { type DocumentOf, place } from '../shared/document-parts.js';

export const holdDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('hold'),
    first: z.boolean().describe('Whether nothing was written down before: then all that is there was.'),
    since: z.string().optional(),
    files: z.int().describe('Pages and sheets that were looked at.'),
    written: z.boolean().describe('Whether acervus-hold.json was written.'),
    fresh: z
      .array(
        z.strictObject({
          kind: z.enum(DEBT_KINDS),
          item: z.string(),
          place,
          home: z.strictObject({
            todo: z.string(),
            place: place.optional(),
            command: z.string().optional(),
          }),
        }),
      )
      .describe('What is new, with the home that it should have had.'),
    held: z.array(z.strictObject({ kind: z.enum(DEBT_KINDS), count: z.int(), less: z.int() })),
    budgets: z.array(
      z.strictObject({
        name: z.enum(BUDGET_NAMES),
        allowed: z.string(),
        spent: z.string(),
        over: z.boolean(),
        at: z.string().optional(),
      }),
    ),
    exceptions: z.array(z.strictObject({ place, reason: z.string() })),
  })
  .describe('acervus hold --json');

export type HoldDocument = DocumentOf<typeof holdDocument>;
