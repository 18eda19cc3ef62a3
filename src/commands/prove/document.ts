// The document of `acervus prove --json`.

import { z } from 'zod';
import { type DocumentOf, place } from '../shared/document-parts.js';

const shown = z.strictObject({ value: z.string(), condition: z.string(), from: z.string(), place });

export const proveDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('prove'),
    against: z.string(),
    equal: z.boolean(),
    pages: z.int(),
    components: z.int(),
    elements: z.int(),
    differences: z.array(
      z.discriminatedUnion('kind', [
        z.strictObject({ kind: z.literal('page'), page: z.string(), what: z.string() }),
        z.strictObject({
          kind: z.literal('markup'),
          page: z.string(),
          what: z.string(),
          place: place.optional(),
        }),
        z.strictObject({
          kind: z.literal('style'),
          page: z.string(),
          place: place.optional(),
          shown: z.string(),
          target: z.string(),
          property: z.string(),
          before: z.array(shown),
          after: z.array(shown),
        }),
      ]),
    ),
    assumptions: z.array(z.string()),
    live: z
      .strictObject({
        boxes: z.array(
          z.strictObject({
            file: z.string(),
            asPlanned: z.boolean().describe('Whether the box says on the site what it says here.'),
          }),
        ),
        content: z
          .array(z.string())
          .describe('Pages whose markup or text is another than when they were visited.'),
        failed: z.array(z.strictObject({ address: z.string(), why: z.string() })),
      })
      .optional()
      .describe('With --live.'),
    browser: z
      .strictObject({
        equal: z.boolean(),
        pages: z.int(),
        views: z.int().describe('Widths and print, for each page.'),
        nodes: z.int(),
        report: z.string().describe('Path of the HTML report.'),
        differences: z.array(
          z.strictObject({
            page: z.string(),
            view: z.string(),
            nodes: z.int(),
            pixels: z.int(),
            told: z.array(
              z.strictObject({
                node: z.string(),
                property: z.string(),
                before: z.string(),
                after: z.string(),
              }),
            ),
          }),
        ),
      })
      .optional()
      .describe('With --browser.'),
  })
  .describe('acervus prove --json');

export type ProveDocument = DocumentOf<typeof proveDocument>;
