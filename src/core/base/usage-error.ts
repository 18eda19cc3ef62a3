// The error that only a person can mend: shown as one line, exit code 2.

import { type MessageCode, type MessageValues, messageText } from './messages/index.js';

/** `message` says where, what is wrong and what to do, in one line; `code` names it in `messages.ts`. */
export class UsageError<Code extends MessageCode = MessageCode> extends Error {
  override readonly name = 'UsageError';
  readonly code: Code;
  readonly values: MessageValues<Code>;

  constructor(code: Code, values: MessageValues<Code>) {
    super(messageText(code, values));
    this.code = code;
    this.values = values;
  }
}
