// The document of `acervus visit --json`.

import { z } from 'zod';
import { boxSchema } from '../../core/ask/visit/index.js';
import type { DocumentOf } from '../shared/document-parts.js';

const moved = z.strictObject({
  new: z.array(z.string()),
  gone: z.array(z.string()),
  changed: z.array(z.string()),
});

export const visitDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('visit'),
    from: z.string(),
    origin: z.string(),
    folder: z.string(),
    pages: z.int(),
    sheets: z.int(),
    scripts: z.int(),
    others: z.int().describe('Fonts, pictures and films.'),
    requests: z.int(),
    bytes: z.int(),
    unchanged: z.int().describe('Pages that the server said, or whose text shows, to be as they were.'),
    resumed: z.boolean().describe('Whether it went on with a visit that was cut short.'),
    failed: z.array(z.strictObject({ address: z.string(), why: z.string() })),
    barred: z.int().describe('Pages that robots.txt asks to leave alone.'),
    left: z.int().describe('Pages that were found beyond the limit.'),
    stopped: z.string().optional().describe('What was allowed and was used up.'),
    changes: z
      .strictObject({ pages: moved, sheets: moved, namesGone: z.array(z.string()), namesNew: z.int() })
      .optional()
      .describe('Against the visit before.'),
    boxes: z.array(
      z.strictObject({
        file: z.string(),
        pages: z.int(),
        state: z.enum(['as on the site', 'waits', 'pasted', 'both']),
        differs: z.int().describe('Pages whose block says something else than most.'),
      }),
    ),
    workList: z
      .strictObject({ file: z.string(), open: z.int(), done: z.int() })
      .optional()
      .describe('What is left for the editor of the platform, where there is a work list.'),
    likely: z
      .array(z.strictObject({ box: boxSchema, why: z.string() }))
      .describe('What may be a box of one’s own, where nobody has said which is.'),
    madeUp: z
      .strictObject({ count: z.int(), some: z.array(z.string()) })
      .describe('Classes and ids that a build or an editor makes up.'),
  })
  .describe('acervus visit --json');

export type VisitDocument = DocumentOf<typeof visitDocument>;
