// How a box of a running system is named in the configuration.

import { z } from 'zod';

/** `style`, `#id`, `.class` and `[attribute]` or `[attribute=value]`, together. */
const blockSelector = z
  .string()
  .regex(
    /^(?:style)?(?:[#.][\w-]+|\[[\w-]+(?:=(?:"[^"]*"|'[^']*'|[\w-]+))?\])+$/,
    'expected a style block, such as #own-css or style.page-css',
  );

export const boxSchema = z.union([
  z.strictObject({ sheet: z.string().min(1).describe('The end of the address of a sheet.') }),
  z.strictObject({ style: blockSelector.describe('A style block that says the same on every page.') }),
  z.strictObject({ page: blockSelector.describe('A style block of which each page has its own.') }),
]);

export type Box = z.infer<typeof boxSchema>;
