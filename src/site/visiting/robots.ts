// What robots.txt asks of a program (RFC 9309).

import robotsParser from 'robots-parser';
import { NotHad, type Source } from './source.js';

const AGENT = 'acervus';
/** Its types and what is loaded disagree on what the module is. */
const parseRobots = robotsParser as unknown as typeof robotsParser.default;
const LONGEST_DELAY = 10_000;

export interface Robots {
  readonly allows: (address: string) => boolean;
  /** Pages that it did not allow. */
  readonly barred: ReadonlySet<string>;
  /** Milliseconds between requests. */
  readonly delay: number;
  readonly sitemaps: readonly string[];
}

/** In: whether it is to be kept. A server that cannot say is taken for one that asks for nothing. */
export async function readRobots(source: Source, origin: string, isKept: boolean): Promise<Robots> {
  const barred = new Set<string>();
  const none: Robots = { allows: () => true, barred, delay: 0, sitemaps: [] };
  if (!isKept) return none;
  const address = `${origin}/robots.txt`;
  const answer = await source
    .get(address, {}, () => true)
    .catch((error: unknown) => {
      if (error instanceof NotHad) return undefined;
      throw error;
    });
  if (answer?.status !== 200 || answer.type === 'text/html') return none;
  const rules = parseRobots(address, answer.bytes.toString('utf8').slice(0, 500_000));
  return {
    barred,
    delay: Math.min(LONGEST_DELAY, (rules.getCrawlDelay(AGENT) ?? 0) * 1000),
    sitemaps: rules.getSitemaps(),
    allows: (one) => {
      if (rules.isAllowed(one, AGENT) !== false) return true;
      barred.add(one);
      return false;
    },
  };
}
