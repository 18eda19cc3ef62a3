// The document of `acervus values --json`.

import { z } from 'zod';
import { VALUE_KINDS } from '../../core/ask/values/index.js';
import { type DocumentOf, place } from '../shared/document-parts.js';

export const valuesDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('values'),
    named: z.array(
      z.strictObject({
        name: z.string(),
        kind: z.enum(VALUE_KINDS).optional(),
        value: z.string(),
        place,
        note: z.string().optional().describe('What a comment behind it says of it.'),
        sets: z
          .array(z.strictObject({ where: z.string(), value: z.string(), place }))
          .describe('Other values that it has in a scheme, a medium or a section.'),
        uses: z
          .int()
          .describe('How often something says var() of it, or asks for a variable of SCSS or Less.'),
      }),
    ),
    unnamed: z.array(
      z.strictObject({
        kind: z.enum(VALUE_KINDS),
        value: z.string(),
        times: z.int(),
        properties: z.array(z.string()),
        place,
        named: z.string().optional().describe('The custom property that has this value.'),
      }),
    ),
    near: z
      .array(
        z.strictObject({
          kind: z.enum(['colour', 'length']),
          from: z.string(),
          to: z.string(),
          times: z.int(),
          toTimes: z.int(),
          apart: z.number().describe('CIEDE2000 for colours, pixels for lengths.'),
          place,
        }),
      )
      .describe('Values that are all but the same as another in much wider use.'),
    pairs: z
      .array(
        z.strictObject({
          text: z.string(),
          ground: z.string(),
          contrast: z.number(),
          elements: z.int(),
          pages: z.int(),
          place: place.optional(),
        }),
      )
      .optional()
      .describe('With --pairs: colours that stand on each other, the least contrast first.'),
    out: z
      .strictObject({ file: z.string(), tokens: z.int(), left: z.array(z.string()) })
      .optional()
      .describe('With --out: how many were written, and which the format has no word for.'),
    in: z
      .strictObject({
        file: z.string(),
        changes: z.array(
          z.strictObject({
            property: z.string(),
            where: z.string().optional().describe('The scheme, medium or section that it is for.'),
            before: z.string().optional(),
            after: z.string(),
            elements: z.int(),
            pages: z.int(),
          }),
        ),
        renamed: z
          .array(z.strictObject({ from: z.string(), to: z.string(), places: z.int() }))
          .describe('Custom properties that get another name, in every place that says it.'),
        same: z.int(),
        unsaid: z.array(z.string()).describe('Values of the site that the file says nothing of.'),
        refused: z.array(z.strictObject({ property: z.string(), why: z.string() })),
        strays: z.int(),
      })
      .optional()
      .describe('With --in.'),
    written: z.boolean(),
    files: z.array(z.string()),
    patch: z.string().optional(),
  })
  .describe('acervus values --json');

export type ValuesDocument = DocumentOf<typeof valuesDocument>;
