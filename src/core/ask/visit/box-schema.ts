// How a box of a running system is named in the configuration.

import { z } from 'zod';
import { BLOCK_SELECTOR } from './block-selector.js';

const blockSelector = z
  .string()
  .regex(BLOCK_SELECTOR, 'expected a style block, such as #own-css or style.page-css');

export const boxSchema = z.union([
  z.strictObject({ sheet: z.string().min(1).describe('The end of the address of a sheet.') }),
  z.strictObject({ style: blockSelector.describe('A style block that says the same on every page.') }),
  z.strictObject({ page: blockSelector.describe('A style block of which each page has its own.') }),
]);

export type Box = z.infer<typeof boxSchema>;
