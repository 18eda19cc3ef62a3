// The document of `acervus outlast --json`.

import { z } from 'zod';
import { carriedOut, type DocumentOf, pageCounts, place } from '../shared/document-parts.js';

export const outlastDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('outlast'),
    platform: z.array(z.string()).describe('Sheets that are updated.'),
    markup: z.int().describe('Pages whose markup after the update is known.'),
    rules: z
      .array(
        z.strictObject({
          selector: z.string(),
          place,
          times: z.int().describe('Style blocks that hold it, 1 for a sheet.'),
          elements: z.int().describe('Elements that it reaches now.'),
          pages: z.int(),
          fate: z.enum(['holds', 'name gone', 'matches nothing', 'beaten', 'not needed']),
          names: z.array(z.string()).optional().describe('Classes that the new platform does not name.'),
          likely: z.string().optional().describe('The selector that would hold.'),
          properties: z.array(z.string()).optional().describe('Those that lose.'),
          important: z.array(z.string()).optional().describe('Properties that would take !important.'),
          by: z.strictObject({ selector: z.string(), value: z.string(), place }).optional(),
          lost: z.int().optional().describe('Elements on which it wins no more.'),
        }),
      )
      .describe('Rules of the theme that name a class of the platform, or beat one of its rules.'),
    gone: z.array(z.strictObject({ old: z.string(), likely: z.string().optional() })),
    changes: z
      .array(
        z.strictObject({
          property: z.string(),
          target: z.string(),
          before: z.string(),
          after: z.string(),
          selector: z.string(),
          shown: z.string(),
          elements: z.int(),
          pages: pageCounts,
        }),
      )
      .describe('What looks different after the update, in spite of every override.'),
    mended: z
      .array(
        z.strictObject({
          place,
          selector: z.string(),
          important: z.array(z.string()).optional().describe('Properties that are !important now.'),
        }),
      )
      .optional(),
    left: z.array(z.strictObject({ place, why: z.string() })).optional(),
    ...carriedOut,
  })
  .describe('acervus outlast --json');

export type OutlastDocument = DocumentOf<typeof outlastDocument>;
