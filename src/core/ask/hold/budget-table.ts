// The budgets that there are: the one list that the configuration, the count, the document and the screen follow.

import { z } from 'zod';

const count = z.int().min(0);

export const BUDGETS = {
  inline: {
    schema: count.describe('Declarations in style attributes.'),
    words: 'declarations in style attributes',
  },
  colours: {
    schema: count.describe('Different colours in your sheets, blocks and style attributes.'),
    words: 'different colours',
  },
  fontSizes: { schema: count.describe('Different font sizes there.'), words: 'different font sizes' },
  strength: {
    schema: z
      .string()
      .regex(/^\d+,\d+,\d+$/, 'expected ids, classes and types, such as 0,2,1')
      .describe('The strongest selector of your sheets.'),
    words: 'strongest selector',
  },
  sheetBytes: {
    schema: count.describe('Bytes of sheets that a page loads.'),
    words: 'bytes of sheets on one page',
  },
} as const;

export type BudgetName = keyof typeof BUDGETS;

export const BUDGET_NAMES = Object.keys(BUDGETS) as [BudgetName, ...BudgetName[]];

/** What is allowed at most; what is not named may grow. */
export type Budgets = {
  readonly [Name in BudgetName]?: z.infer<(typeof BUDGETS)[Name]['schema']> | undefined;
};

/** As the configuration holds it. */
export const budgetsSchema = z
  .strictObject({
    inline: BUDGETS.inline.schema,
    colours: BUDGETS.colours.schema,
    fontSizes: BUDGETS.fontSizes.schema,
    strength: BUDGETS.strength.schema,
    sheetBytes: BUDGETS.sheetBytes.schema,
  } satisfies Record<BudgetName, z.ZodType>)
  .partial()
  .optional()
  .describe('What acervus hold lets there be at most.');
