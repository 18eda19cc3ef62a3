// The document of `acervus explain --json`.

import { z } from 'zod';
import { builtBy, type DocumentOf, place } from '../shared/document-parts.js';

const declaration = z.strictObject({
  property: z.string(),
  value: z.string(),
  important: z.boolean(),
  whose: z.enum(['platform', 'theme', 'page', 'style attribute', 'old attribute']),
  selector: z.string().describe('Empty for what the element says of itself.'),
  specificity: z.tuple([z.int(), z.int(), z.int()]).optional().describe('Ids, classes, types.'),
  layer: z.string().optional(),
  place,
  when: z.string().describe('The condition, empty for always.'),
  beaten: z.strictObject({ by: z.string(), why: z.string() }).optional(),
});

const proposed = z.strictObject({
  selector: z.string(),
  elements: z.int(),
  generated: z.array(z.string()).describe('Names in it that look made by a program.'),
});

export const explainDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('explain'),
    page: z.string(),
    asked: z.string(),
    matching: z
      .int()
      .describe('Elements of the page that were meant by what was asked; the first is explained.'),
    shown: z.string(),
    place: place.optional(),
    ancestors: z.array(z.string()),
    standsIn: z
      .array(
        z.strictObject({
          ancestors: z.array(z.string()),
          pages: z
            .array(z.string())
            .describe('The pages that show it there; none where more may stand around it.'),
        }),
      )
      .describe('Of a part, what stands around it, as far as templates name it.'),
    targets: z.array(
      z.strictObject({
        target: z.string().describe('A pseudo-element, empty for the element.'),
        properties: z.array(
          z.strictObject({
            name: z.string(),
            longhands: z.array(z.string()),
            declarations: z.array(declaration).describe('Strongest first.'),
          }),
        ),
        hidden: z.string().optional(),
      }),
    ),
    inherited: z.array(
      z.strictObject({
        longhand: z.string(),
        from: z.string(),
        generations: z.int(),
        declarations: z.array(declaration),
      }),
    ),
    customProperties: z.array(
      z.strictObject({ name: z.string(), from: z.string().optional(), declarations: z.array(declaration) }),
    ),
    idle: z.array(
      z.strictObject({
        target: z.string(),
        longhands: z.array(z.string()),
        declaration,
        why: z.string(),
        remedy: z.string(),
      }),
    ),
    containingBlock: z.string().optional(),
    selectors: z.strictObject({
      alone: proposed.optional(),
      kindOnPage: proposed.optional(),
      kindOnSite: proposed,
      generated: z.array(z.string()),
    }),
    toChange: z.array(
      z.strictObject({
        property: z.string(),
        beat: z.string(),
        place: place.optional(),
        selector: z.string().optional().describe('The least specific for its kind.'),
        alone: z.string().optional().describe('The least specific for this element alone.'),
        important: z.boolean(),
      }),
    ),
    rules: z
      .array(z.strictObject({ selector: z.string(), place, target: z.string(), when: z.string() }))
      .describe('Every rule that matches, in the order of the sheets.'),
    site: z
      .strictObject({ selector: z.string(), pages: z.int(), of: z.int() })
      .describe('The kind on the whole site, and how many pages hold its names in their text.'),
    unread: z.array(z.string()),
    built: builtBy.optional(),
  })
  .describe('acervus explain --json');

export type ExplainDocument = DocumentOf<typeof explainDocument>;
