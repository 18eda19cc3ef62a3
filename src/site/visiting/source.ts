// Where what is visited comes from: a running system, or an archive that a browser saved of one.

import type { Archived } from '../../core/ask/visit/index.js';

/** What was known of a file when it was fetched before. */
export interface Known {
  readonly etag?: string | undefined;
  readonly modified?: string | undefined;
}

export interface Answer {
  readonly status: number;
  /** Without what stands behind a semicolon; lower case. */
  readonly type: string;
  /** As the header says. */
  readonly charset: string | undefined;
  /** Where it leads, for a redirect. */
  readonly redirect: string | undefined;
  readonly bytes: Buffer;
  readonly etag: string | undefined;
  readonly modified: string | undefined;
}

/** Something that could not be had, and why, in a few words. */
export class NotHad extends Error {}

/** What was allowed is used up: the visit ends there. */
export class UsedUp extends Error {}

export interface Source {
  /**
   * In: what the answer may be; whether its type is one to read on for. Throws `NotHad`, and `UsedUp`.
   */
  get(address: string, known: Known, wants: (type: string) => boolean): Promise<Answer>;
}

/** What a header of content says. */
export function typeAndCharset(header: string): { type: string; charset: string | undefined } {
  const type = header.split(';')[0]!.trim().toLowerCase();
  const charset = /;\s*charset\s*=\s*["']?([\w:.+-]+)/i.exec(header)?.[1]?.toLowerCase();
  return { type, charset };
}

export class ArchiveSource implements Source {
  readonly #answers: ReadonlyMap<string, Archived>;

  constructor(answers: ReadonlyMap<string, Archived>) {
    this.#answers = answers;
  }

  get(address: string): Promise<Answer> {
    const found = this.#answers.get(address);
    if (found === undefined) return Promise.reject(new NotHad('is not in the archive'));
    const { type, charset } = typeAndCharset(found.type);
    return Promise.resolve({
      status: found.status,
      type,
      charset: found.isText ? 'utf-8' : charset,
      redirect: found.redirect,
      bytes: found.bytes,
      etag: undefined,
      modified: undefined,
    });
  }
}
