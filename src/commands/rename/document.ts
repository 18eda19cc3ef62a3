// The document of `acervus rename --json`.

import { z } from 'zod';
import { carriedOut, type DocumentOf, place } from '../shared/document-parts.js';

export const renameDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('rename'),
    from: z.string(),
    to: z.string(),
    refused: z
      .enum([
        'the platform styles it',
        'the new name is taken',
        'not every place is sure',
        'it would look different',
      ])
      .optional(),
    counts: z.strictObject({
      markup: z.int(),
      sheets: z.int(),
      scripts: z.int(),
      removed: z.int().describe('Rules that the other name has already, with --merge.'),
    }),
    taken: z.array(place).describe('Where the new name stands already.'),
    unsure: z.array(z.strictObject({ place, what: z.string(), editable: z.boolean() })),
    platform: z.array(place).describe('Rules of the platform that name the class.'),
    ...carriedOut,
  })
  .describe('acervus rename --json');

export type RenameDocument = DocumentOf<typeof renameDocument>;
