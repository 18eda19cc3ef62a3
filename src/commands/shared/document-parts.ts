// What the documents of several commands hold alike.

import { z } from 'zod';

/** A document as it is made and read: nothing in it is changed. */
export type DocumentOf<Schema extends z.ZodType> = Frozen<z.infer<Schema>>;

export type Frozen<T> = T extends object ? { readonly [Key in keyof T]: Frozen<T[Key]> } : T;

export const place = z.strictObject({ path: z.string(), line: z.int(), column: z.int() });

export const pageCounts = z.array(z.strictObject({ path: z.string(), elements: z.int() }));

/** Where pages come from that a build makes. */
export const builtBy = z
  .strictObject({
    command: z.string(),
    into: z.string(),
    pagesOf: z
      .record(z.string(), z.int())
      .describe('By place in a source, on how many pages it shows; places of this document.'),
  })
  .describe('Where a build makes the pages; places are those of the sources, where a source holds them.');

/** What every command that changes something tells of it. */
export const carriedOut = {
  written: z.boolean(),
  files: z.array(z.string()).describe('Paths of the files that were written, or are in the patch.'),
  patch: z.string().optional().describe('With --patch.'),
  strays: z.int().describe('Differences that were not asked for: 0 in everything that is written.'),
};
