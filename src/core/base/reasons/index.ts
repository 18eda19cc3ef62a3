// Every reason why something stays or is not done: what a person reads, where, and what would help; `{name}` stands for what
// differs. A file for each question; `docs/reasons.md` is made from these tables.

import { type Place, showPlace } from '../source.js';
import { REFUSED } from './refused.js';
import { STAYS } from './stays.js';
import { UNDECIDED } from './undecided.js';

/** `where` and `help` are empty where there is nothing to say; `help` is for the documents, unless the text says it. */
type Reason = readonly [text: string, where: string, help: string];
type Reasons = Readonly<Record<string, Reason>>;

export const REASONS = {
  stays: STAYS satisfies Reasons,
  undecided: UNDECIDED satisfies Reasons,
  refused: REFUSED satisfies Reasons,
} as const;

/** The names in braces of a text. */
type NamesIn<Text extends string> = Text extends `${string}{${infer Name}}${infer Rest}`
  ? Name | NamesIn<Rest>
  : never;
type Values<Names extends string> = {
  readonly [Name in Names]: Name extends 'place' ? Place : string | number;
};
type ValuesOf<Table extends Reasons, Code extends keyof Table> = Values<NamesIn<Table[Code][0 | 1]>>;

/** Why a declaration stays: a code of the table, and its values. */
export type KeptReason = {
  readonly [Code in keyof typeof STAYS]: { readonly kind: Code } & ValuesOf<typeof STAYS, Code>;
}[keyof typeof STAYS];

/** One line for a person, without a full stop. */
export function keptText({ kind, ...values }: KeptReason): string {
  return filled(STAYS[kind], values);
}

export function undecidedText<Code extends keyof typeof UNDECIDED>(
  code: Code,
  values: ValuesOf<typeof UNDECIDED, Code>,
): string {
  return filled(UNDECIDED[code], values);
}

export type RefusalCode = keyof typeof REFUSED;

export function refusalText<Code extends RefusalCode>(
  code: Code,
  values: ValuesOf<typeof REFUSED, Code>,
): string {
  return filled(REFUSED[code], values);
}

/** What would help, empty for nothing. */
export function refusalHelp(code: RefusalCode): string {
  return REFUSED[code][2];
}

function filled([text, where]: Reason, values: Readonly<Record<string, string | number | Place>>): string {
  const line = where === '' ? text : `${text} (${where})`;
  return line.replace(/\{([a-zA-Z]+)\}/g, (whole, name: string) => {
    const value = values[name];
    return value === undefined ? whole : typeof value === 'object' ? showPlace(value) : String(value);
  });
}
