// `visit.json`: what was brought into the folder, from which address, and when; with it the next visit asks only for what
// has changed, and one that was cut short goes on.

import { z } from 'zod';
import { firstIssue } from '../../core/base/choices.js';
import { UsageError } from '../../core/base/usage-error.js';
import type { SiteFiles } from '../files/files.js';
import { changeablePath } from '../files/inside.js';

export const MANIFEST = 'visit.json';

const address = z.string().regex(/^https?:\/\//);
const entry = z.strictObject({
  address,
  file: changeablePath,
  status: z.int(),
  time: z.iso.datetime(),
  digest: z.string().describe('SHA-256 of what was sent, unpacked.'),
  etag: z.string().optional(),
  modified: z.string().optional(),
});

export const manifestSchema = z
  .strictObject({
    format: z.literal(1),
    start: z.string().describe('What the visit began with: an address, or a file of addresses.'),
    origin: address,
    asked: z
      .strictObject({
        pages: z.int(),
        depth: z.int().optional(),
        match: z.array(z.string()).optional(),
        skip: z.array(z.string()).optional(),
        robots: z.boolean(),
        all: z.boolean(),
        browser: z.boolean(),
        widths: z.array(z.int()).optional(),
      })
      .describe('What the visit was bounded by: the next one is bounded alike.'),
    begun: z.iso.datetime().optional().describe('When it began, of a visit that did not end yet.'),
    pages: z.array(
      entry.extend({ also: z.array(address).optional().describe('Other addresses of the same page.') }),
    ),
    files: z.array(entry.extend({ kind: z.enum(['sheet', 'script', 'other']) })),
    addresses: z
      .record(z.string(), changeablePath)
      .describe('Where addresses lead that would not lead to the file by themselves.'),
  })
  .describe('visit.json: what acervus visit brought');

export type Manifest = z.infer<typeof manifestSchema>;
export type PageEntry = Manifest['pages'][number];
export type FileEntry = Manifest['files'][number];

/** Throws `UsageError` for a file that is none. */
export function readManifest(files: SiteFiles): Manifest | undefined {
  const bytes = files.read(MANIFEST);
  if (bytes === undefined) return undefined;
  let value: unknown;
  try {
    value = JSON.parse(bytes.toString('utf8'));
  } catch (error) {
    throw new UsageError('visit-manifest', { problem: (error as Error).message });
  }
  const read = manifestSchema.safeParse(value);
  if (!read.success) throw new UsageError('visit-manifest', { problem: firstIssue(read.error) });
  return read.data;
}
