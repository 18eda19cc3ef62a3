// The document of `acervus reach --json`.

import { z } from 'zod';
import { builtBy, type DocumentOf, place } from '../shared/document-parts.js';

export const reachDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('reach'),
    asked: z.string(),
    built: builtBy.optional(),
    kind: z.enum(['rule', 'custom property', 'selector', 'declaration', 'value']),
    elements: z.int().describe('Elements that match, or on which something asked about has a say.'),
    pages: z.array(z.strictObject({ path: z.string(), elements: z.int() })),
    declarations: z.array(
      z.strictObject({
        property: z.string(),
        value: z.string(),
        important: z.boolean(),
        holder: z.enum(['platform', 'theme', 'page', 'style attribute', 'old attribute']),
        selector: z.string(),
        place,
        wins: z.int().describe('Elements on which it wins, whatever the medium and state.'),
        waits: z.int().describe('Elements on which it wins in some medium or state only.'),
        beaten: z.int(),
        pages: z.int().describe('Pages on which it wins or waits.'),
        shared: z
          .strictObject({ times: z.int(), places: z.array(place) })
          .describe('Other places that say the same, and the first few of them.'),
      }),
    ),
  })
  .describe('acervus reach --json');

export type ReachDocument = DocumentOf<typeof reachDocument>;
