// The forms in which other programs read what is new. One more is an entry here, and a file beside this one.

import type { HoldDocument } from './document.js';

export interface HoldForm {
  /** The option's, and the file's. */
  readonly name: string;
  /** Behind "print": what comes out. */
  readonly about: string;
  write(document: HoldDocument): Promise<string>;
}

export const HOLD_FORMS: readonly HoldForm[] = [
  {
    name: 'sarif',
    about: 'a SARIF 2.1.0 log',
    write: async (document) => (await import('./sarif.js')).asSarif(document),
  },
  {
    name: 'junit',
    about: 'a JUnit report',
    write: async (document) => (await import('./junit.js')).asJunit(document),
  },
];
