// The document of `acervus survey --json`.

import { z } from 'zod';
import { FINDING_KINDS } from '../../core/stock/findings.js';
import { builtBy, type DocumentOf, place } from '../shared/document-parts.js';

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
    platformPages: z.int().describe('Pages of the platform: read where they matter, not counted.'),
    components: z.int(),
    elements: z.int(),
    stylesFromSelf: z
      .int()
      .describe(
        "Pages that would work under a content security policy without inline styles (style-src 'self').",
      ),
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
    sources: tally.describe('What is written in sources of SCSS, Sass and Less: not counted as upkeep.'),
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
    broken: z.array(
      z.strictObject({ kind: z.enum(FINDING_KINDS), message: z.string(), place, times: z.int() }),
    ),
    unread: z.array(
      z.strictObject({ address: z.string(), why: z.enum(['elsewhere', 'missing']), pages: z.int() }),
    ),
    inCode: z
      .strictObject({
        times: z.int(),
        examples: z.array(place),
        blocks: z.strictObject({ times: z.int(), declarations: z.int(), examples: z.array(place) }),
      })
      .describe(
        'Tags with style attributes, and style blocks, in strings of code: not counted. The tags are never edited.',
      ),
    unreadEndings: z
      .record(z.string(), z.int())
      .describe('Files that make pages or sheets and are not read, by their ending.'),
    built: builtBy.optional(),
    suggested: z
      .strictObject({ sheets: z.record(z.string(), z.array(z.string())) })
      .optional()
      .describe('What acervus.json could say, where nothing tells which sheets style the templates.'),
  })
  .describe('acervus survey --json');

export type SurveyDocument = DocumentOf<typeof surveyDocument>;
