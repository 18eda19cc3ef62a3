// The document of `acervus family --json`.

import { z } from 'zod';
import { carriedOut, type DocumentOf, pageCounts, place } from '../shared/document-parts.js';

export const familyDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('family'),
    families: z.array(
      z.strictObject({
        name: z.string(),
        into: z.string(),
        table: z.string().optional().describe('With --find: the table file that was written.'),
        rows: z.array(z.strictObject({ name: z.string(), values: z.record(z.string(), z.string()) })),
        rules: z
          .array(z.strictObject({ selector: z.string(), declarations: z.array(z.string()) }))
          .describe('Rules that were written; with --find those of the table.'),
        same: z.int().describe('Rules that were there already.'),
        byHand: z.array(
          z.strictObject({ what: z.enum(['changed', 'added', 'taken out']), selector: z.string(), place }),
        ),
        empty: z.array(z.string()).describe('Rows that no element belongs to.'),
        places: z.strictObject({ before: z.int(), after: z.int() }).optional(),
        refused: z.boolean(),
      }),
    ),
    moved: z.strictObject({ elements: z.int(), pages: pageCounts }),
    ...carriedOut,
  })
  .describe('acervus family --json');

export type FamilyDocument = DocumentOf<typeof familyDocument>;
