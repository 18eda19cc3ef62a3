// `acervus.json`: optional, checked, never code.

import { z } from 'zod';
import { budgetsSchema } from '../core/ask/hold/budget-table.js';
import { boxSchema } from '../core/ask/visit/box-schema.js';
import { firstIssue, scopeName, sharedPath, tasteName } from '../core/base/choices.js';
import { UsageError } from '../core/base/usage-error.js';
import { PARTS } from '../core/read/sheets/shared-sheet.js';

const namePart = z.string().regex(/^[a-zA-Z0-9_-]*$/, 'expected letters, digits, - and _');
const globs = z.array(z.string().min(1));

export const configSchema = z
  .strictObject({
    $schema: z.string().optional(),
    rendering: z
      .union([
        z.literal('files'),
        z.strictObject({
          build: z.string().min(1).describe('The command that builds the site, run in a copy of it.'),
          into: z
            .string()
            .regex(/^(?!\.\/?$)(?!.*(?:^|\/)\.\.(?:\/|$))[^/\\][^\\]*$/, 'expected a folder inside the site')
            .describe('The folder that it writes the pages into.'),
        }),
        z.strictObject({
          visit: z
            .string()
            .min(1)
            .describe('The address, or the file of addresses, that the pages were brought from.'),
        }),
      ])
      .optional()
      .describe('How pages come to be. Default: files, as they are in the folder.'),
    pages: globs
      .optional()
      .describe(
        'Which files are pages or components. Default: every .html, .htm and .shtml file, and templates by their usual endings.',
      ),
    components: globs
      .optional()
      .describe(
        'Which of them are parts that pages include and nobody opens by themselves. Default: those that a template engine reads and nothing marks as a whole page.',
      ),
    sheets: z
      .record(z.string().min(1), z.array(sharedPath))
      .optional()
      .describe(
        'Which sheets style which pages and parts, in their order: pattern of files to paths. Default: what they link.',
      ),
    served: z
      .record(z.string().min(1), z.string())
      .optional()
      .describe(
        'Where folders are addressed when the site is served: folder to address, as in "public": "/".',
      ),
    link: z
      .string()
      .min(1)
      .refine(
        (line) => line === 'none' || /\{(path|file|name)\}/.test(line),
        'expected {path}, {file} or {name} in it, or none',
      )
      .optional()
      .describe(
        'How a template links a sheet, with {path}, {file} or {name} in it, or none where nothing is to be linked. Default: as the template links others.',
      ),
    own: z
      .array(boxSchema)
      .optional()
      .describe('Of a running system: the boxes that hold CSS of one’s own. All else is the platform’s.'),
    budgets: budgetsSchema,
    exclude: globs.optional().describe('Files and folders that are no part of the site.'),
    platform: globs.optional().describe('Sheets, scripts and pages that may not be edited.'),
    theme: globs
      .optional()
      .describe('Sheets and pages that may be edited, where the guess from names would say otherwise.'),
    shared: sharedPath.optional().describe('The sheet that shared styles are written into.'),
    taste: tasteName.optional().describe('What a draft should prefer. Default: balanced.'),
    scope: scopeName
      .optional()
      .describe(
        'How far rules are written to reach: site, section (its body class), or page. Default: site.',
      ),
    naming: z
      .strictObject({
        prefix: namePart.optional().describe('Stands in front of every new name.'),
        suffix: namePart.optional().describe('Stands behind every new class name.'),
        separator: z.enum(['-', '_', '--', '__']).optional().describe('Stands between words.'),
        stems: z
          .strictObject({
            colour: namePart,
            font: namePart,
            shadow: namePart,
            space: namePart,
            size: namePart,
            corner: namePart,
          })
          .partial()
          .optional()
          .describe('First words of the names of values.'),
      })
      .optional()
      .describe('How new names are built. Default: as the names in the theme are.'),
    parts: z
      .partialRecord(z.enum(PARTS), z.string().regex(/^[\w -]+$/, 'expected a word or a few'))
      .optional()
      .describe('What the headings of the parts of the shared sheet are called.'),
    pictureSizes: z
      .enum(['keep', 'move'])
      .optional()
      .describe('Whether width and height of pictures may move into sheets. Default: keep.'),
    outdated: z
      .enum(['repeats', 'move'])
      .optional()
      .describe(
        'Whether old attributes may move into sheets at any count, or as all else where they repeat. Default: repeats.',
      ),
    mail: z
      .enum(['keep', 'move'])
      .optional()
      .describe('Whether styles may leave the tags of mail. Default: keep.'),
    copies: z
      .record(z.string(), z.string())
      .optional()
      .describe('Local copies of sheets on other hosts: address to path.'),
  })
  .describe('Configuration of Acervus for one site');

export type Config = z.infer<typeof configSchema>;

/** In: the text of `acervus.json`, `undefined` when there is none. Throws `UsageError` naming the key. */
export function parseConfig(text: string | undefined): Config {
  if (text === undefined) return {};
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new UsageError('config-json', { problem: (error as Error).message });
  }
  const result = configSchema.safeParse(value);
  if (result.success) {
    const { rendering } = result.data;
    // Nothing is linked on pages that nobody writes.
    const isVisited = typeof rendering === 'object' && 'visit' in rendering;
    return isVisited ? { link: 'none', ...result.data } : result.data;
  }
  throw new UsageError('config-invalid', { problem: firstIssue(result.error) });
}
