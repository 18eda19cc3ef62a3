// The documents of `--json` of the commands for every day: explain, reach, restyle, rename, override, outlast, family.

import { z } from 'zod';
import { place } from './documents.js';

const told = z.strictObject({
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

export type ToldJson = z.infer<typeof told>;

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
    targets: z.array(
      z.strictObject({
        target: z.string().describe('A pseudo-element, empty for the element.'),
        properties: z.array(
          z.strictObject({
            name: z.string(),
            longhands: z.array(z.string()),
            declarations: z.array(told).describe('Strongest first.'),
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
        declarations: z.array(told),
      }),
    ),
    customProperties: z.array(
      z.strictObject({ name: z.string(), from: z.string().optional(), declarations: z.array(told) }),
    ),
    idle: z.array(
      z.strictObject({
        target: z.string(),
        longhands: z.array(z.string()),
        declaration: told,
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
  })
  .describe('acervus explain --json');

export const reachDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('reach'),
    asked: z.string(),
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

const pageCounts = z.array(z.strictObject({ path: z.string(), elements: z.int() }));

/** What every command that changes something tells of it. */
const carriedOut = {
  written: z.boolean(),
  files: z.array(z.string()).describe('Paths of the files that were written, or are in the patch.'),
  patch: z.string().optional().describe('With --patch.'),
  strays: z.int().describe('Differences that were not asked for: 0 in everything that is written.'),
};

export const restyleDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('restyle'),
    selector: z.string(),
    asked: z.array(z.string()),
    refused: z.enum(['it would change what was not asked', 'it would not reach all']).optional(),
    rules: z.array(z.strictObject({ selector: z.string(), place, did: z.enum(['changed', 'split off']) })),
    meant: z.int().describe('Elements that the selector matches.'),
    moved: z.strictObject({ elements: z.int(), pages: pageCounts }),
    unmoved: z.array(
      z.strictObject({
        property: z.string(),
        value: z.string().describe('What they have instead.'),
        why: z.enum([
          'style attribute',
          'old attribute',
          'stronger rule',
          '!important',
          'platform rule',
          'sheet not linked',
        ]),
        selector: z.string(),
        place,
        elements: z.int(),
        pages: z.int(),
      }),
    ),
    ...carriedOut,
  })
  .describe('acervus restyle --json');

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
          property: z.string().optional(),
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
    mended: z.array(z.strictObject({ place, selector: z.string() })).optional(),
    left: z.array(z.strictObject({ place, why: z.string() })).optional(),
    ...carriedOut,
  })
  .describe('acervus outlast --json');

export const familyDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('family'),
    families: z.array(
      z.strictObject({
        name: z.string(),
        into: z.string(),
        table: z.string().optional().describe('With --find: the table file that was written.'),
        rows: z.array(z.strictObject({ name: z.string(), values: z.record(z.string(), z.string()) })),
        rules: z
          .array(z.strictObject({ selector: z.string(), declarations: z.array(z.string()) }))
          .describe('Rules that were written; with --find those of the table.'),
        same: z.int().describe('Rules that were there already.'),
        byHand: z.array(
          z.strictObject({ what: z.enum(['changed', 'added', 'taken out']), selector: z.string(), place }),
        ),
        empty: z.array(z.string()).describe('Rows that no element belongs to.'),
        places: z.strictObject({ before: z.int(), after: z.int() }).optional(),
        refused: z.boolean(),
      }),
    ),
    moved: z.strictObject({ elements: z.int(), pages: pageCounts }),
    ...carriedOut,
  })
  .describe('acervus family --json');

export const renameDocument = z
  .strictObject({
    format: z.literal(1),
    command: z.literal('rename'),
    from: z.string(),
    to: z.string(),
    refused: z
      .enum([
        'the platform styles it',
        'the new name is taken',
        'not every place is sure',
        'it would look different',
      ])
      .optional(),
    counts: z.strictObject({
      markup: z.int(),
      sheets: z.int(),
      scripts: z.int(),
      removed: z.int().describe('Rules that the other name has already, with --merge.'),
    }),
    taken: z.array(place).describe('Where the new name stands already.'),
    unsure: z.array(z.strictObject({ place, what: z.string(), editable: z.boolean() })),
    platform: z.array(place).describe('Rules of the platform that name the class.'),
    ...carriedOut,
  })
  .describe('acervus rename --json');

/** File name in docs/schemas to type. */
export const everydayDocuments = {
  'explain.schema.json': explainDocument,
  'reach.schema.json': reachDocument,
  'restyle.schema.json': restyleDocument,
  'rename.schema.json': renameDocument,
  'override.schema.json': overrideDocument,
  'outlast.schema.json': outlastDocument,
  'family.schema.json': familyDocument,
} as const;
