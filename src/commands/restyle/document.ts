// The document of `acervus restyle --json`.

import { z } from 'zod';
import { carriedOut, type DocumentOf, pageCounts, place } from '../shared/document-parts.js';

export const restyleDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('restyle'),
    selector: z.string(),
    asked: z.array(z.string()),
    refused: z.enum(['it would change what was not asked', 'it would not reach all']).optional(),
    rules: z.array(z.strictObject({ selector: z.string(), place, did: z.enum(['changed', 'split off']) })),
    meant: z.int().describe('Elements that the selector matches.'),
    moved: z.strictObject({ elements: z.int(), pages: pageCounts }),
    through: z
      .array(z.strictObject({ name: z.string(), others: z.int() }))
      .describe(
        'Custom properties that were changed, and elements not meant that use each and move with it.',
      ),
    unmoved: z.array(
      z.strictObject({
        property: z.string(),
        value: z.string().describe('What they have instead.'),
        why: z.enum([
          'style attribute',
          'old attribute',
          'stronger rule',
          '!important',
          'platform rule',
          'sheet not linked',
        ]),
        selector: z.string(),
        place,
        elements: z.int(),
        pages: z.int(),
      }),
    ),
    ...carriedOut,
  })
  .describe('acervus restyle --json');

export type RestyleDocument = DocumentOf<typeof restyleDocument>;
