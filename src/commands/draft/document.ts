// The document of `acervus draft --json`.

import { z } from 'zod';
import { adoptionSchema, draftSchema } from '../../core/edit/draft/schema.js';
import type { DocumentOf } from '../shared/document-parts.js';

const { styles, tokens, mixins, 'code blocks': codeBlocks, 'near misses': nearMisses } = draftSchema.shape;

export const draftDocument = z
  .strictObject({
    format: z.literal(2),
    command: z.literal('draft'),
    file: z.string(),
    shared: z.string(),
    assumed: z.array(z.string()).describe('What nobody read and the proof takes for granted.'),
    upkeep: adoptionSchema.shape.upkeep,
    held: adoptionSchema.shape.held,
    stylesFromSelf: adoptionSchema.shape.stylesFromSelf,
    size: adoptionSchema.shape.size,
    styles,
    tokens,
    mixins,
    codeBlocks,
    nearMisses,
    kept: adoptionSchema.shape.kept,
  })
  .describe('acervus draft --json');

export type DraftDocument = DocumentOf<typeof draftDocument>;
