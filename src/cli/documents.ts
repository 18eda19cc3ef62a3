// The documents of `--json`: one Zod type a command, published as JSON Schema in docs/schemas.

import { z } from 'zod';
import { draftSchema } from '../core/draft/text.js';
import { adoptionSchema } from '../site/ledger/plan.js';

export const place = z.strictObject({ path: z.string(), line: z.int(), column: z.int() });

const tally = z.strictObject({
  written: z.int().describe('Declarations or old attributes written.'),
  distinct: z.int(),
  repeated: z.int().describe('How many say what another of the same kind says.'),
  holders: z.int().describe('Style attributes, blocks, elements or sheets that hold them.'),
  alike: z.int().describe('Holders whose whole content stands elsewhere too.'),
});

const repeatedSet = z.strictObject({
  declarations: z.array(z.string()),
  times: z.int(),
  pages: z.int(),
  examples: z.array(place),
});

export const surveyDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('survey'),
    pages: z.int(),
    components: z.int(),
    elements: z.int(),
    sheets: z.array(
      z.strictObject({
        path: z.string(),
        owner: z.enum(['platform', 'theme']),
        because: z.string(),
        pages: z.int(),
      }),
    ),
    shared: z.string(),
    inline: tally,
    blocks: tally,
    oldAttributes: tally,
    themeSheets: tally,
    upkeep: z.strictObject({
      now: z.int(),
      drafted: z.int().optional().describe('Once the draft that is there is adopted.'),
      least: z.int(),
    }),
    repeatedSets: z.array(repeatedSet),
    repeatedRules: z.array(repeatedSet),
    colours: z.array(
      z.strictObject({
        colour: z.string(),
        times: z.int(),
        spellings: z.array(z.strictObject({ text: z.string(), times: z.int() })),
      }),
    ),
    nearMisses: z.array(
      z.strictObject({
        colour: z.string(),
        times: z.int(),
        near: z.string(),
        nearTimes: z.int(),
        distance: z.number(),
      }),
    ),
    broken: z.array(z.strictObject({ kind: z.string(), message: z.string(), place, times: z.int() })),
    unread: z.array(
      z.strictObject({ address: z.string(), why: z.enum(['elsewhere', 'missing']), pages: z.int() }),
    ),
  })
  .describe('acervus survey --json');

const { styles, tokens, 'near misses': nearMisses } = draftSchema.shape;

export const draftDocument = z
  .strictObject({
    format: z.literal(2),
    command: z.literal('draft'),
    file: z.string(),
    shared: z.string(),
    upkeep: adoptionSchema.shape.upkeep,
    size: adoptionSchema.shape.size,
    styles,
    tokens,
    nearMisses,
    kept: adoptionSchema.shape.kept,
  })
  .describe('acervus draft --json');

export const adoptDocument = z
  .strictObject({
    format: z.literal(2),
    command: z.literal('adopt'),
    written: z.boolean(),
    ...adoptionSchema.shape,
    files: z.array(z.string()),
    patch: z.string().optional(),
  })
  .describe('acervus adopt --json');

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

export const undoDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('undo'),
    undone: z.boolean(),
    restored: z.array(z.string()),
    removed: z.array(z.string()),
  })
  .describe('acervus undo --json');

/** File name in docs/schemas to type. */
export const documents = {
  'survey.schema.json': surveyDocument,
  'draft.schema.json': draftDocument,
  'adopt.schema.json': adoptDocument,
  'prove.schema.json': proveDocument,
  'undo.schema.json': undoDocument,
} as const;
