// An HTTP archive (HAR 1.2) that a browser saved: what was answered under each address.

import { z } from 'zod';
import { firstIssue } from '../../base/choices.js';
import { readAddress } from './addresses.js';

const header = z.object({ name: z.string(), value: z.string() });
const archive = z.object({
  log: z.object({
    entries: z.array(
      z.object({
        request: z.object({ method: z.string(), url: z.string() }),
        response: z.object({
          status: z.number(),
          headers: z.array(header).default([]),
          redirectURL: z.string().default(''),
          content: z.object({
            mimeType: z.string().default(''),
            text: z.string().optional(),
            encoding: z.string().optional(),
          }),
        }),
      }),
    ),
  }),
});

export interface Archived {
  readonly status: number;
  readonly type: string;
  readonly redirect: string | undefined;
  /** As it was sent, but for what was packed. A text is UTF-8 here, whatever it was. */
  readonly bytes: Buffer;
  readonly isText: boolean;
}

/** Out: by address, in the order of the archive; or what is wrong with it. */
export function readArchive(text: string): ReadonlyMap<string, Archived> | string {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    return (error as Error).message;
  }
  const read = archive.safeParse(value);
  if (!read.success) return firstIssue(read.error);
  const found = new Map<string, Archived>();
  for (const { request, response } of read.data.log.entries) {
    const address = readAddress(request.url);
    const { status, redirectURL, content } = response;
    if (address === undefined || request.method !== 'GET' || status === 304 || found.has(address)) continue;
    const isText = content.encoding !== 'base64';
    found.set(address, {
      status,
      type: content.mimeType,
      redirect: redirectURL === '' ? undefined : readAddress(redirectURL, address),
      bytes: Buffer.from(content.text ?? '', isText ? 'utf8' : 'base64'),
      isText,
    });
  }
  return found;
}
