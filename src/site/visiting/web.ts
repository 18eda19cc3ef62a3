// Asks a running system over HTTP, within bounds: hosts, requests, bytes, seconds.

import { setTimeout as wait } from 'node:timers/promises';
import { Agent, fetch, type Headers, type Response } from 'undici';
import { DIGIT, isMadeOf } from '../../core/base/characters.js';
import { includesAny } from '../../core/base/phrases.js';
import type { CredentialJar } from './credentials.js';
import { hostOf, isPrivate, PrivateHost, publicLookup } from './hosts.js';
import type { Bounds } from './options.js';
import { type Answer, type Known, NotHad, type Source, typeAndCharset, UsedUp } from './source.js';

/** More than this nobody styles a page with. */
const LARGEST = 20_000_000;
const PATIENCE = 30_000;
const TRIES = 3;
/** Longer than this nobody is asked to wait for a retry. */
const LONGEST_PAUSE = 20_000;
const AGAIN = new Set([408, 429, 500, 502, 503, 504]);

export interface WebOptions {
  readonly bounds: Bounds;
  readonly credentials: CredentialJar;
  /** Whether machines of the house may be asked. */
  readonly allowsPrivate: boolean;
  /** Connections to one host at a time. */
  readonly atOnce: number;
  /** Milliseconds between the beginnings of two requests. */
  readonly pause: number;
  readonly agentName: string;
}

export class Web implements Source {
  readonly #options: WebOptions;
  readonly #agent: Agent;
  readonly #start = performance.now();
  #requests = 0;
  #bytes = 0;
  #next = 0;
  #pause: number;

  constructor(options: WebOptions) {
    this.#options = options;
    this.#pause = options.pause;
    this.#agent = new Agent({
      connections: options.atOnce,
      headersTimeout: PATIENCE,
      bodyTimeout: PATIENCE,
      connect: { timeout: 10_000, ...(options.allowsPrivate ? {} : { lookup: publicLookup }) },
    });
  }

  get used(): { readonly requests: number; readonly bytes: number } {
    return { requests: this.#requests, bytes: this.#bytes };
  }

  /** In: milliseconds between requests, from now on. */
  slowDown(pause: number): void {
    this.#pause = pause;
  }

  close(): Promise<void> {
    return this.#agent.destroy();
  }

  async get(address: string, known: Known, wants: (type: string) => boolean): Promise<Answer> {
    if (!this.#options.allowsPrivate && isPrivate(hostOf(address)))
      throw new NotHad('is an address of this machine or house, and the start is none');
    for (let tried = 1; ; tried++) {
      const last = tried === TRIES;
      let pause = 250 * 3 ** (tried - 1);
      try {
        const answer = await this.#ask(address, known, wants);
        if (!AGAIN.has(answer.status) || last) return answer;
        pause = Math.max(pause, answer.waits);
      } catch (error) {
        if (error instanceof UsedUp || error instanceof NotHad) throw error;
        if (last) throw new NotHad(reasonOf(error));
      }
      await wait(Math.min(pause, LONGEST_PAUSE));
    }
  }

  /** The beginning of a request waits for its turn. */
  async #turn(): Promise<void> {
    const { bounds } = this.#options;
    if (this.#requests >= bounds.requests) throw new UsedUp(`${bounds.requests} requests`);
    this.#requests++;
    const now = performance.now();
    const at = Math.max(now, this.#next);
    this.#next = at + this.#pause;
    if (at > now) await wait(at - now);
    if ((performance.now() - this.#start) / 1000 > bounds.seconds)
      throw new UsedUp(`${bounds.seconds} seconds`);
  }

  async #ask(
    address: string,
    { etag, modified }: Known,
    wants: (type: string) => boolean,
  ): Promise<Answer & { readonly waits: number }> {
    const { credentials, agentName } = this.#options;
    await this.#turn();
    const response = await fetch(address, {
      redirect: 'manual',
      dispatcher: this.#agent,
      signal: AbortSignal.timeout(2 * PATIENCE),
      headers: {
        'user-agent': agentName,
        accept: 'text/html,application/xhtml+xml,text/css,*/*;q=0.5',
        ...(etag === undefined ? {} : { 'if-none-match': etag }),
        ...(modified === undefined ? {} : { 'if-modified-since': modified }),
        ...(await credentials.headersFor(address)),
      },
    });
    await credentials.learn(address, response.headers.getSetCookie());
    const { headers, status } = response;
    const { type, charset } = typeAndCharset(headers.get('content-type') ?? '');
    const reads = status >= 200 && status < 300 && wants(type);
    return {
      status,
      type,
      charset,
      redirect: status >= 300 && status < 400 ? (headers.get('location') ?? undefined) : undefined,
      bytes: reads ? await this.#read(response) : await drop(response),
      etag: headers.get('etag') ?? undefined,
      modified: headers.get('last-modified') ?? undefined,
      waits: waitOf(headers),
    };
  }

  /** Counted as it arrives: what is packed small may be large, and what never ends ends here. */
  async #read({ body }: Response): Promise<Buffer> {
    const parts: Uint8Array[] = [];
    let size = 0;
    if (body === null) return Buffer.alloc(0);
    for await (const part of body as AsyncIterable<Uint8Array>) {
      size += part.length;
      this.#bytes += part.length;
      if (size > LARGEST) throw new NotHad(`is larger than ${LARGEST / 1_000_000} MB`);
      if (this.#bytes > this.#options.bounds.bytes)
        throw new UsedUp(`${Math.round(this.#options.bounds.bytes / 1_000_000)} MB`);
      parts.push(part);
    }
    return Buffer.concat(parts);
  }
}

async function drop(response: Response): Promise<Buffer> {
  await response.body?.cancel().catch(() => undefined);
  return Buffer.alloc(0);
}

/** Milliseconds that a server asks for, in seconds or as a date (RFC 9110, 10.2.3). */
function waitOf(headers: Headers): number {
  const text = headers.get('retry-after');
  if (text === null) return 0;
  const seconds = isMadeOf(text, DIGIT) ? Number(text) : (Date.parse(text) - Date.now()) / 1000;
  return Number.isFinite(seconds) ? Math.max(0, seconds * 1000) : 0;
}

/** In a few words why a request failed. */
function reasonOf(error: unknown): string {
  const chain: unknown[] = [];
  for (let one: unknown = error; one instanceof Error; one = one.cause) chain.push(one);
  if (chain.some((one) => one instanceof PrivateHost))
    return 'is an address of this machine or house, and the start is none';
  const codes = chain.map((one) => String((one as NodeJS.ErrnoException).code ?? ''));
  const code = codes.find((one) => REASONS[one] !== undefined);
  if (code !== undefined) return REASONS[code]!;
  const certificate = codes.find((one) =>
    includesAny(one, ['CERT', 'SELF_SIGNED', 'UNABLE_TO_VERIFY', 'TLS']),
  );
  if (certificate !== undefined)
    return `its certificate is not accepted (${certificate.toLowerCase().replaceAll('_', ' ')})`;
  const [last] = chain.slice(-1) as Error[];
  if (last?.name === 'TimeoutError') return 'did not end in time';
  return last?.message.split('\n')[0] ?? 'failed';
}

const REASONS: Readonly<Record<string, string>> = {
  ECONNREFUSED: 'nobody answers there',
  ECONNRESET: 'the connection broke off',
  ENOTFOUND: 'there is no such host',
  EAI_AGAIN: 'the host could not be looked up',
  ETIMEDOUT: 'did not answer in time',
  UND_ERR_CONNECT_TIMEOUT: 'did not answer in time',
  UND_ERR_HEADERS_TIMEOUT: 'did not answer in time',
  UND_ERR_BODY_TIMEOUT: 'did not end in time',
  UND_ERR_SOCKET: 'the connection broke off',
  UND_ERR_RES_CONTENT_LENGTH_MISMATCH: 'says a length that it does not have',
  UND_ERR_REQ_CONTENT_LENGTH_MISMATCH: 'says a length that it does not have',
};
