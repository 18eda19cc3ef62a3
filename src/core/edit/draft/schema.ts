// The draft as data: `acervus-draft.yaml`, the proposal that a person reads and edits; and the report of carrying it out.

import { z } from 'zod';
import { scopeName, sharedPath, tasteName } from '../../base/choices.js';

export const DRAFT_FILE = 'acervus-draft.yaml';

const yesOrNo = z
  .union([z.boolean(), z.enum(['yes', 'no'])])
  .transform((value) => value === true || value === 'yes');

/** A home that drafts of earlier versions call otherwise. */
function underItsName(home: unknown): unknown {
  return home === 'existing hooks' ? 'existing selector' : home;
}

export const HOMES = [
  'already given',
  'existing class',
  'existing selector',
  'position',
  'new class',
  'from style blocks',
  'grouped rule',
  'wider rule',
  'joined rule',
  'counted class',
  'idle class',
  'values by section',
  'class for ids',
] as const;

const styleSchema = z.strictObject({
  id: z.string().describe('By which the style is found again: leave it.'),
  home: z.preprocess(underItsName, z.enum(HOMES)).describe('For reading: where it goes.'),
  name: z.string().optional().describe('Name of the new class, without a dot.'),
  take: yesOrNo.describe('no leaves the style where it is.'),
  reviewed: yesOrNo.optional().describe('A person has decided on it.'),
  into: z
    .string()
    .optional()
    .describe('Name of another style of the draft, whose class these elements take instead.'),
  except: z
    .array(z.string())
    .optional()
    .describe('Places, each page:line:column of a start tag, that stay as they are.'),
  because: z.string().optional().describe('For reading: why a class that exists was thought to mean it.'),
  selector: z.string().optional().describe('For reading: what picks the elements out.'),
  beats: z.string().optional().describe('For reading: the rule that a plain selector is too weak against.'),
  elements: z.int().optional().describe('For reading: how many elements.'),
  pages: z.int().optional().describe('For reading: on how many pages.'),
  'out of': z.string().optional().describe('For reading: where it stands now.'),
  'written into': z
    .string()
    .optional()
    .describe('For reading: the page or component whose own block holds it.'),
  'such as': z.array(z.string()).optional().describe('For reading: two of the places.'),
  saves: z
    .strictObject({ places: z.int(), bytes: z.int() })
    .optional()
    .describe('For reading: places less to keep up; characters less, about.'),
  instead: z.string().optional().describe('For reading: why no selector that exists could do it.'),
  drops: z
    .string()
    .optional()
    .describe('For reading: declarations that go, since one behind them always beats them.'),
  declarations: z.string().describe('CSS declarations; addresses are relative to the shared sheet.'),
});

const tokenSchema = z.strictObject({
  name: z
    .string()
    .regex(/^--[a-zA-Z_][\w-]*$/, 'expected two dashes, a letter, then letters, digits, - and _'),
  take: yesOrNo,
  value: z.string().describe('For reading: the value as most places write it.'),
  kind: z.string().describe('For reading: what the value is.'),
  form: z.string().describe('By which the value is found again: leave it.'),
  uses: z.int().describe('For reading: how often the sheets would say it.'),
});

const mixinSchema = z.strictObject({
  id: z.string().describe('By which the set is found again: leave it.'),
  name: z
    .string()
    .regex(/^[a-zA-Z_][\w-]*$/, 'expected a letter, then letters, digits, - and _')
    .describe('Name of the mixin.'),
  take: yesOrNo.describe('no leaves the declarations where they are.'),
  times: z.int().describe('For reading: in how many rules the set stands.'),
  into: z.string().optional().describe('For reading: the source that defines it.'),
  'such as': z.array(z.string()).describe('For reading: two of the places.'),
  saves: z.int().describe('For reading: declarations less to keep up.'),
  declarations: z.string().describe('For reading: as they are written.'),
});

const codeBlockSchema = z.strictObject({
  id: z.string().describe('By which the block is found again: leave it.'),
  take: yesOrNo.describe('no leaves the block where it is.'),
  into: sharedPath.describe('For reading: the sheet that it becomes, as the configuration says.'),
  declarations: z.int().describe('For reading: how many it holds.'),
  from: z.string().describe('For reading: its place.'),
  'instead of it': z.string().describe('For reading: what code says there from then on.'),
});

const nearSchema = z.strictObject({
  from: z.string().describe('The rarer value.'),
  to: z.string().describe('The value that it nearly is.'),
  change: yesOrNo.describe('yes makes them the same; only that changes how the site looks.'),
  apart: z.string().describe('For reading: how far apart they are.'),
  'such as': z.array(z.string()).describe('For reading: where the rarer one stands.'),
});

export const draftSchema = z.strictObject({
  format: z.literal(2),
  shared: sharedPath,
  taste: tasteName,
  scope: scopeName,
  'at-least': z.int().min(1),
  weaken: yesOrNo.optional().describe('Rules become as weak as their work allows.'),
  assumed: z
    .array(z.string())
    .optional()
    .describe('For reading: what nobody read and the proof takes for granted. A copy of it, named, is read.'),
  upkeep: z.strictObject({ now: z.int(), after: z.int() }).describe('For reading: places to keep up.'),
  styles: z.array(styleSchema),
  tokens: z.array(tokenSchema),
  mixins: z.array(mixinSchema).default([]).describe('Sets of declarations that repeat in sources of SCSS.'),
  'code blocks': z
    .array(codeBlockSchema)
    .default([])
    .describe('Style blocks in strings of code that become sheets of their own.'),
  'near misses': z.array(nearSchema),
  kept: z.array(
    z.strictObject({ reason: z.string(), declarations: z.number(), 'such as': z.array(z.string()) }),
  ),
});

export type Draft = z.infer<typeof draftSchema>;
export type DraftStyle = Draft['styles'][number];

const count = z.int().min(0);

const change = z.strictObject({ now: count, after: count });

/** What is reported of an adoption. */
export const adoptionSchema = z.strictObject({
  shared: z.string(),
  upkeep: z
    .strictObject({ now: count, after: count })
    .describe('Places that hold a declaration or an old attribute.'),
  held: z
    .strictObject({ tags: change, blocks: change, sheets: change })
    .describe('What of these stands in tags, in style blocks, and in sheets.'),
  stylesFromSelf: change.describe(
    "Pages that would work under a content security policy without inline styles (style-src 'self').",
  ),
  size: z.strictObject({ now: count, after: count }).describe('Characters in pages and sheets.'),
  styles: draftSchema.shape.styles,
  tokens: z.array(z.strictObject({ name: z.string(), value: z.string(), kind: z.string(), uses: count })),
  mixins: z.array(mixinSchema),
  codeBlocks: z.array(codeBlockSchema),
  changed: z
    .strictObject({ elements: count, pages: count })
    .describe('What looks different, by near misses that the draft makes the same.'),
  gone: z.array(z.string()).describe('Styles of the draft that the site no longer asks for.'),
  kept: z.array(z.strictObject({ reason: z.string(), declarations: count, places: z.array(z.string()) })),
  proof: z.strictObject({
    pages: count,
    components: count,
    elements: count,
    assumptions: z.array(z.string()),
  }),
});

export type AdoptionReport = z.infer<typeof adoptionSchema>;
