// `acervus-starter.json`: what a house wants in the sheet that its sites begin with, and what not.

import { z } from 'zod';
import { firstIssue } from '../../base/choices.js';
import { UsageError } from '../../base/usage-error.js';

export const STARTER_FILE = 'acervus-starter.json';

const name = z
  .string()
  .regex(/^(?:\.|--)?[\p{L}_][\p{L}\d_-]*$/u, 'expected .class, --value or a type of element');

export const wishesSchema = z
  .strictObject({
    format: z.literal(1),
    'at-least': z.int().min(1).default(3).describe('Helpers that so many pages wear are wanted.'),
    keep: z.array(name).default([]).describe('Wanted, whoever wears it: `.class`, `--value`, `h2`.'),
    leave: z.array(name).default([]).describe('Not wanted.'),
  })
  .describe('acervus-starter.json: what the next site begins with');

export type Wishes = z.infer<typeof wishesSchema>;

export const NO_WISHES: Wishes = { format: 1, 'at-least': 3, keep: [], leave: [] };

/** Throws `UsageError` for a text that holds none. */
export function parseWishes(text: string): Wishes {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new UsageError('starter-file', { problem: (error as Error).message });
  }
  const read = wishesSchema.safeParse(value);
  if (!read.success) throw new UsageError('starter-file', { problem: firstIssue(read.error) });
  return read.data;
}

/** With more to keep and to leave: the last word counts. Throws `UsageError` for what is no name. */
export function withWishes(
  wishes: Wishes,
  more: {
    readonly keep: readonly string[];
    readonly leave: readonly string[];
    readonly atLeast?: number | undefined;
  },
): Wishes {
  for (const one of [...more.keep, ...more.leave])
    if (!name.safeParse(one).success) throw new UsageError('starter-name', { given: one });
  const both = more.keep.find((one) => more.leave.includes(one));
  if (both !== undefined) throw new UsageError('starter-both', { name: both });
  const merged = (own: readonly string[], added: readonly string[], gone: readonly string[]): string[] =>
    [...new Set([...own, ...added])].filter((one) => !gone.includes(one)).sort();
  return {
    format: 1,
    'at-least': more.atLeast ?? wishes['at-least'],
    keep: merged(wishes.keep, more.keep, more.leave),
    leave: merged(wishes.leave, more.leave, more.keep),
  };
}

export function renderWishes(wishes: Wishes): string {
  return `${JSON.stringify(wishes, null, 2)}\n`;
}
