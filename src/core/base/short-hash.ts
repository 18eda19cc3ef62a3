import { createHash } from 'node:crypto';

/** Eight letters by which something is found again whose words are these. */
export function shortHash(text: string): string {
  return createHash('sha256').update(text).digest('hex').slice(0, 8);
}
