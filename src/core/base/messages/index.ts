// Every message that only a person can act on: where, what is wrong, what to do. Shown as one line, `where: what; do`;
// `{name}` stands for what differs. A file for each command; `docs/messages.md` is made from this table.

import { BUILDS_MESSAGES } from './builds.js';
import { CHANGES_MESSAGES } from './changes.js';
import { DEMO_MESSAGES } from './demo.js';
import { DRAFT_MESSAGES } from './draft.js';
import { EXPLAIN_MESSAGES } from './explain.js';
import { FAMILY_MESSAGES } from './family.js';
import { HOLD_MESSAGES } from './hold.js';
import { OPTIONS_MESSAGES } from './options.js';
import { OUTLAST_MESSAGES } from './outlast.js';
import { OVERRIDE_MESSAGES } from './override.js';
import { RENAME_MESSAGES } from './rename.js';
import { RESTYLE_MESSAGES } from './restyle.js';
import { SITE_MESSAGES } from './site.js';
import { STARTER_MESSAGES } from './starter.js';
import { VALUES_MESSAGES } from './values.js';
import { VISIT_MESSAGES } from './visit.js';

/** `todo` is empty where the line says it without. */
type Message = readonly [where: string, what: string, todo: string];

export const MESSAGES = {
  ...SITE_MESSAGES,
  ...BUILDS_MESSAGES,
  ...CHANGES_MESSAGES,
  ...DRAFT_MESSAGES,
  ...OPTIONS_MESSAGES,
  ...EXPLAIN_MESSAGES,
  ...RESTYLE_MESSAGES,
  ...RENAME_MESSAGES,
  ...OVERRIDE_MESSAGES,
  ...OUTLAST_MESSAGES,
  ...FAMILY_MESSAGES,
  ...VALUES_MESSAGES,
  ...HOLD_MESSAGES,
  ...STARTER_MESSAGES,
  ...VISIT_MESSAGES,
  ...DEMO_MESSAGES,
} as const satisfies Readonly<Record<string, Message>>;

export type MessageCode = keyof typeof MESSAGES;

/** The names in braces of a text. */
type NamesIn<Text extends string> = Text extends `${string}{${infer Name}}${infer Rest}`
  ? Name | NamesIn<Rest>
  : never;

/** What a message takes, by name. */
export type MessageValues<Code extends MessageCode> = Readonly<
  Record<NamesIn<(typeof MESSAGES)[Code][number]>, string | number>
>;

/** The line that a person reads, without a full stop. */
export function messageText<Code extends MessageCode>(code: Code, values: MessageValues<Code>): string {
  const [where, what, todo] = MESSAGES[code];
  const known: Readonly<Record<string, string | number>> = values;
  const line = `${where}: ${what}${todo === '' ? '' : `; ${todo}`}`;
  return line.replace(/\{([a-z]+)\}/g, (whole, name: string) => String(known[name] ?? whole));
}
