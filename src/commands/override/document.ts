// The document of `acervus override --json`.

import { z } from 'zod';
import { carriedOut, type DocumentOf, pageCounts, place } from '../shared/document-parts.js';

const rivalry = z.array(
  z.strictObject({
    selector: z.string(),
    value: z.string(),
    place,
    isPlatform: z.boolean(),
    elements: z.int(),
  }),
);

/** An override as it stands. */
const overrideEntry = z.strictObject({
  selector: z.string(),
  medium: z.string().optional(),
  place,
  elements: z.int(),
  pages: z.int(),
  verdict: z.enum(['needed', 'matches nothing', 'beaten', 'not needed']),
  declarations: z.array(
    z.strictObject({
      property: z.string(),
      value: z.string(),
      important: z.boolean(),
      wins: z.int(),
      waits: z.int(),
      beaten: z.int(),
      needed: z.int().describe('Elements that would look otherwise without it.'),
      beats: rivalry,
      by: rivalry.describe('What it is beaten by.'),
    }),
  ),
});

export const overrideDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('override'),
    did: z.enum(['override', 'list', 'drop']),
    selector: z.string().optional(),
    asked: z.array(z.string()),
    refused: z.boolean(),
    rules: z.array(
      z.strictObject({
        selector: z.string(),
        medium: z.string().optional(),
        declarations: z.array(z.string()),
        role: z
          .enum(['override', 'kept'])
          .describe('kept: says again what a state or medium said, which the override is stronger than.'),
        did: z.enum(['written', 'extended', 'changed']),
      }),
    ),
    important: z.boolean().describe('Whether nothing less than !important wins.'),
    meant: z.int(),
    moved: z.strictObject({ elements: z.int(), pages: pageCounts }),
    overrides: z.array(overrideEntry).optional().describe('With --list.'),
    ...carriedOut,
  })
  .describe('acervus override --json');

export type OverrideDocument = DocumentOf<typeof overrideDocument>;
