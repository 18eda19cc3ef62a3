// The document of `acervus sampler --json`.

import { z } from 'zod';
import { SHOWN_STATES, STYLE_KINDS } from '../../core/ask/sampler/index.js';
import { type DocumentOf, place } from '../shared/document-parts.js';

const forms = z.array(z.string());

export const samplerDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('sampler'),
    file: z.string().describe('The page that was written.'),
    shown: z.enum(['frames', 'pictures']),
    values: z.int().describe('Values that have a name.'),
    styles: z.array(
      z.strictObject({
        name: z.string().describe('A class with its dot, or a type of element.'),
        kind: z.enum(STYLE_KINDS),
        part: z.string().optional().describe('The heading in the sheet that its first rule stands under.'),
        elements: z.int(),
        pages: z.int(),
        rules: z.array(place),
        states: z.array(z.enum(SHOWN_STATES)),
        example: z
          .strictObject({ page: z.string(), element: z.int() })
          .optional()
          .describe('The element that it is shown on, by its number on the page.'),
        like: z.array(z.strictObject({ name: z.string(), own: forms, others: forms })),
        nearly: z
          .strictObject({ elements: z.int(), place, lacks: forms })
          .optional()
          .describe('Elements whose style attribute says what it says, or all of it but one.'),
      }),
    ),
  })
  .describe('Every shared style of a site, and the page that shows them.');

export type SamplerDocument = DocumentOf<typeof samplerDocument>;
